import { DataTypes, Model, type InferAttributes, type Sequelize } from 'sequelize';
import type { Grade } from '@unto/core';
import type { Revisions } from '@unto/contract';

const { BOOLEAN, DATE, INTEGER, JSONB, TEXT, UUID } = DataTypes;

/** Runs that no later one corrects, with what followed them. A view. */
export class StandingRunRow extends Model<InferAttributes<StandingRunRow>> {
  declare id: string;
  declare ticketId: string;
  declare recipeId: string | null;
  declare substrateId: string;
  declare compoundId: string | null;
  declare headId: string;
  declare revisions: Revisions;
  declare pieces: number;
  declare at: Date;
  declare cleaned: boolean;
  declare judged: boolean;
  declare faults: number;
  declare grade: Grade;
  declare piecesGood: number | null;
}

export function standingRuns(sequelize: Sequelize) {
  return class extends StandingRunRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      recipeId: UUID,
      substrateId: UUID,
      compoundId: UUID,
      headId: UUID,
      revisions: JSONB,
      pieces: INTEGER,
      at: DATE,
      cleaned: BOOLEAN,
      judged: BOOLEAN,
      faults: INTEGER,
      grade: TEXT,
      piecesGood: INTEGER,
    },
    { sequelize, modelName: 'standingRuns', tableName: 'standing_runs' },
  );
}
