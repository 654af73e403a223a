import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { Stage } from '@unto/core';
import type { CouponPictureEntries } from '@unto/contract';

const { DATE, JSONB, TEXT, UUID } = DataTypes;

/** What a picture told of a coupon. Append-only. */
export class CouponPictureRow extends Model<
  InferAttributes<CouponPictureRow>,
  InferCreationAttributes<CouponPictureRow>
> {
  declare id: string;
  declare couponId: string;
  declare stage: Stage;
  declare fileHash: string;
  declare entries: CouponPictureEntries;
  declare at: Date;
  declare byId: string;
}

export function couponPictures(sequelize: Sequelize) {
  return class extends CouponPictureRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      couponId: UUID,
      stage: TEXT,
      fileHash: TEXT,
      entries: JSONB,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'couponPictures', tableName: 'coupon_pictures' },
  );
}
