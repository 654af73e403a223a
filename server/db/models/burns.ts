import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { BurnState } from '@unto/contract';

const { DATE, DOUBLE, INTEGER, JSONB, TEXT, UUID } = DataTypes;

/** Programs of coupons sent to a controller. */
export class BurnRow extends Model<InferAttributes<BurnRow>, InferCreationAttributes<BurnRow>> {
  declare id: string;
  declare couponId: string;
  declare attempt: number;
  declare state: BurnState;
  declare laserOn: 'M3' | 'M4';
  declare elapsedS: number;
  declare totalS: number;
  /** Cells done by earlier attempts and this one. */
  declare cellsDone: readonly number[];
  /** Those of the earlier attempts alone. */
  declare cellsBefore: readonly number[];
  declare cell: number | null;
  declare message: string;
  declare startedAt: Date;
  declare seenAt: Date;
  declare endedAt: Date | null;
  declare byId: string;
}

export function burns(sequelize: Sequelize) {
  return class extends BurnRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      couponId: UUID,
      attempt: INTEGER,
      state: TEXT,
      laserOn: TEXT,
      elapsedS: DOUBLE,
      totalS: DOUBLE,
      cellsDone: JSONB,
      cellsBefore: JSONB,
      cell: INTEGER,
      message: TEXT,
      startedAt: DATE,
      seenAt: DATE,
      endedAt: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'burns', tableName: 'burns' },
  );
}
