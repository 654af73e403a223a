import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { BurnState, ControllerAction } from '@unto/contract';

/** A switch as the controller told it: one that was seen both ways is none to rely on. */
export type SwitchSeen = 'off' | 'on' | 'changed';

const { BOOLEAN, DATE, DOUBLE, INTEGER, JSONB, TEXT, UUID } = DataTypes;

/** Programs of coupons and of runs sent to a controller. */
export class BurnRow extends Model<InferAttributes<BurnRow>, InferCreationAttributes<BurnRow>> {
  declare id: string;
  /** Of a coupon or of a run that is counted: exactly one of both. */
  declare couponId: string | null;
  declare markingId: string | null;
  /** Parts it was sent for; null for every cell of a coupon. */
  declare parts: readonly number[] | null;
  declare attempt: number;
  declare state: BurnState;
  declare laserOn: 'M3' | 'M4';
  declare elapsedS: number;
  declare totalS: number;
  /** Cells done by earlier attempts and this one. */
  declare cellsDone: readonly number[];
  /** Those of the earlier attempts alone. */
  declare cellsBefore: readonly number[];
  /** Burnt in part as an attempt broke off. */
  declare cellsCut: readonly number[];
  declare cell: number | null;
  declare message: string;
  /** The controller has named this attempt. */
  declare heard: boolean;
  /** The server that may use the controller for it, and until when; null while none does. */
  declare holder: string | null;
  declare leaseUntil: Date | null;
  declare sendBefore: Date | null;
  declare sentAt: Date | null;
  declare asked: ControllerAction | null;
  declare askedAt: Date | null;
  declare askedById: string | null;
  declare settledById: string | null;
  declare air: SwitchSeen | null;
  declare extraction: SwitchSeen | null;
  declare fault: string;
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
      markingId: UUID,
      parts: JSONB,
      attempt: INTEGER,
      state: TEXT,
      laserOn: TEXT,
      elapsedS: DOUBLE,
      totalS: DOUBLE,
      cellsDone: JSONB,
      cellsBefore: JSONB,
      cellsCut: JSONB,
      cell: INTEGER,
      message: TEXT,
      heard: BOOLEAN,
      holder: UUID,
      leaseUntil: DATE,
      sendBefore: DATE,
      sentAt: DATE,
      asked: TEXT,
      askedAt: DATE,
      askedById: UUID,
      settledById: UUID,
      air: TEXT,
      extraction: TEXT,
      fault: TEXT,
      startedAt: DATE,
      seenAt: DATE,
      endedAt: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'burns', tableName: 'burns' },
  );
}
