import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { Rework } from '@unto/contract';

const { DATE, DOUBLE, JSONB, TEXT, UUID } = DataTypes;

/** Pieces of a run that are made anew, whole or in a region. Append-only. */
export class ReworkRow extends Model<InferAttributes<ReworkRow>, InferCreationAttributes<ReworkRow>> {
  declare id: string;
  declare ticketId: string;
  declare runId: string;
  declare caseId: string | null;
  declare way: Rework['way'];
  declare pieces: readonly number[];
  declare region: Rework['region'];
  declare alignment: Rework['alignment'];
  declare focusMm: number | null;
  declare note: string;
  declare at: Date;
  declare byId: string;
}

export function reworks(sequelize: Sequelize) {
  return class extends ReworkRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      runId: UUID,
      caseId: UUID,
      way: TEXT,
      pieces: JSONB,
      region: JSONB,
      alignment: JSONB,
      focusMm: DOUBLE,
      note: TEXT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'reworks', tableName: 'reworks' },
  );
}
