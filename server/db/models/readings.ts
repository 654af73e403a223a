import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { OutcomeRules, Stage } from '@unto/core';
import type { CreateReading } from '@unto/contract';

const { BIGINT, DATE, JSONB, TEXT, UUID } = DataTypes;

/** Outcomes of cells at a stage. Append-only; the newest of a cell counts. */
export class ReadingRow extends Model<InferAttributes<ReadingRow>, InferCreationAttributes<ReadingRow>> {
  declare id: string;
  declare couponId: string;
  declare stage: Stage;
  declare source: string;
  declare pictureId: string | null;
  declare rules: OutcomeRules | null;
  declare entries: CreateReading['entries'];
  declare sequence: number;
  declare at: Date;
  declare byId: string;
}

export function readings(sequelize: Sequelize) {
  return class extends ReadingRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      couponId: UUID,
      stage: TEXT,
      source: TEXT,
      pictureId: UUID,
      rules: JSONB,
      entries: JSONB,
      sequence: BIGINT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'readings', tableName: 'readings' },
  );
}
