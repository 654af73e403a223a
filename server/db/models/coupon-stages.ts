import { DataTypes, Model, type InferAttributes, type Sequelize } from 'sequelize';
import type { CouponStage } from '@unto/contract';

const { INTEGER, TEXT, UUID } = DataTypes;

/** How far a coupon is. A view. */
export class CouponStageRow extends Model<InferAttributes<CouponStageRow>> {
  declare couponId: string;
  declare ticketId: string | null;
  declare number: number;
  declare stage: CouponStage;
}

export function couponStages(sequelize: Sequelize) {
  return class extends CouponStageRow {}.init(
    {
      couponId: { type: UUID, primaryKey: true },
      ticketId: UUID,
      number: INTEGER,
      stage: TEXT,
    },
    { sequelize, modelName: 'couponStages', tableName: 'coupon_stage' },
  );
}
