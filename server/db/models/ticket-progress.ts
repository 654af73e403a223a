import { DataTypes, Model, type InferAttributes, type Sequelize } from 'sequelize';
import type { CouponStage } from '@unto/contract';

const { BOOLEAN, DATE, INTEGER, TEXT, UUID } = DataTypes;

/** How far a ticket is, counted from what stands: one row a ticket. A view. */
export class TicketProgressRow extends Model<InferAttributes<TicketProgressRow>> {
  declare ticketId: string;
  declare coatedPieces: number;
  declare unclockedPieces: number;
  declare offBandPieces: number;
  declare storedPieces: number;
  declare storedUntil: Date | null;
  declare dryingUntil: Date | null;
  declare dryingPieces: number | null;
  declare coupon: CouponStage | 'none';
  declare recipeNumber: number | null;
  declare recipeSuspended: boolean;
  declare recipeOffered: number | null;
  declare markedPieces: number;
  declare rejectedPieces: number;
  declare runs: number;
  declare runsCleaned: number;
  declare runsJudged: number;
  declare runsFaulty: number;
}

export function ticketProgress(sequelize: Sequelize) {
  return class extends TicketProgressRow {}.init(
    {
      ticketId: { type: UUID, primaryKey: true },
      coatedPieces: INTEGER,
      unclockedPieces: INTEGER,
      offBandPieces: INTEGER,
      storedPieces: INTEGER,
      storedUntil: DATE,
      dryingUntil: DATE,
      dryingPieces: INTEGER,
      coupon: TEXT,
      recipeNumber: INTEGER,
      recipeSuspended: BOOLEAN,
      recipeOffered: INTEGER,
      markedPieces: INTEGER,
      rejectedPieces: INTEGER,
      runs: INTEGER,
      runsCleaned: INTEGER,
      runsJudged: INTEGER,
      runsFaulty: INTEGER,
    },
    { sequelize, modelName: 'ticketProgress', tableName: 'ticket_progress' },
  );
}
