import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { SheetEntries } from '@unto/contract';

const { DATE, DOUBLE, INTEGER, JSONB, UUID } = DataTypes;

/** Layouts of a sheet or jig. Append-only. */
export class SheetRow extends Model<InferAttributes<SheetRow>, InferCreationAttributes<SheetRow>> {
  declare id: string;
  declare ticketId: string;
  declare entries: SheetEntries;
  declare places: number;
  declare leftOut: number;
  declare used: number;
  declare at: Date;
  declare byId: string;
}

export function sheets(sequelize: Sequelize) {
  return class extends SheetRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      entries: JSONB,
      places: INTEGER,
      leftOut: INTEGER,
      used: DOUBLE,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'sheets', tableName: 'sheets' },
  );
}
