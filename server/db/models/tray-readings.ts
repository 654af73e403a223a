import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { TrayReadingRecord } from '@unto/contract';

const { DATE, JSONB, TEXT, UUID } = DataTypes;

/** What a picture of a tray told of a run's pieces. Append-only. */
export class TrayReadingRow extends Model<InferAttributes<TrayReadingRow>, InferCreationAttributes<TrayReadingRow>> {
  declare id: string;
  declare runId: string;
  declare fileHash: string;
  declare read: Omit<TrayReadingRecord, 'id' | 'runId' | 'fileHash' | 'at' | 'by'>;
  declare at: Date;
  declare byId: string;
}

export function trayReadings(sequelize: Sequelize) {
  return class extends TrayReadingRow {}.init(
    { id: { type: UUID, primaryKey: true }, runId: UUID, fileHash: TEXT, read: JSONB, at: DATE, byId: UUID },
    { sequelize, modelName: 'trayReadings', tableName: 'tray_readings' },
  );
}
