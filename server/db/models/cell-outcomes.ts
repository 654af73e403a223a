import { DataTypes, Model, type InferAttributes, type Sequelize } from 'sequelize';
import type { Outcome, Stage } from '@unto/core';

const { BOOLEAN, DOUBLE, INTEGER, TEXT, UUID } = DataTypes;

/** The newest outcome of every cell of a coupon at each stage. A view. */
export class CellOutcomeRow extends Model<InferAttributes<CellOutcomeRow>> {
  declare couponId: string;
  declare stage: Stage;
  declare cell: number;
  declare outcome: Outcome;
  declare source: string;
  declare readingId: string;
  declare byEye: boolean;
  /** Share of its contrast that was left after the scrub; only where pictures told. */
  declare kept: number | null;
  declare keptLimit: number | null;
  /** Somebody looked once more, since it disagrees with the cells around. */
  declare lookedAgain: boolean;
}

export function cellOutcomes(sequelize: Sequelize) {
  return class extends CellOutcomeRow {}.init(
    {
      couponId: { type: UUID, primaryKey: true },
      stage: { type: TEXT, primaryKey: true },
      cell: { type: INTEGER, primaryKey: true },
      outcome: TEXT,
      source: TEXT,
      readingId: UUID,
      byEye: BOOLEAN,
      kept: DOUBLE,
      keptLimit: DOUBLE,
      lookedAgain: BOOLEAN,
    },
    { sequelize, modelName: 'cellOutcomes', tableName: 'cell_outcomes' },
  );
}
