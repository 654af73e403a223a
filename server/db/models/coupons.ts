import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { CouponDesign } from '@unto/core';
import type { Firing, Revisions } from '@unto/contract';

const { DATE, DOUBLE, INTEGER, JSONB, UUID } = DataTypes;

/** Coupon designs and their burning. */
export class CouponRow extends Model<InferAttributes<CouponRow>, InferCreationAttributes<CouponRow>> {
  declare id: string;
  declare number: number;
  declare ticketId: string | null;
  declare substrateId: string;
  declare compoundId: string | null;
  declare headId: string;
  declare lensId: string;
  declare focusOffsetMm: number;
  declare design: CouponDesign;
  declare cells: number;
  declare revisions: Revisions;
  declare version: number;
  declare createdAt: Date;
  declare burntAt: Date | null;
  declare burntCells: readonly number[] | null;
  declare firing: Firing | null;
  declare byId: string;
}

export function coupons(sequelize: Sequelize) {
  return class extends CouponRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      number: INTEGER,
      ticketId: UUID,
      substrateId: UUID,
      compoundId: UUID,
      headId: UUID,
      lensId: UUID,
      focusOffsetMm: DOUBLE,
      design: JSONB,
      cells: INTEGER,
      revisions: JSONB,
      version: INTEGER,
      createdAt: DATE,
      burntAt: DATE,
      burntCells: JSONB,
      firing: JSONB,
      byId: UUID,
    },
    { sequelize, modelName: 'coupons', tableName: 'coupons' },
  );
}
