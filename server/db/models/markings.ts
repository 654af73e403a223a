import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { OpenStation } from '@unto/core';
import type { CreateMarking, Revisions } from '@unto/contract';

const { DATE, INTEGER, JSONB, TEXT, UUID } = DataTypes;

/** Runs that are counted at the bench: what was set as they began, and the run that they became. */
export class MarkingRow extends Model<InferAttributes<MarkingRow>, InferCreationAttributes<MarkingRow>> {
  declare id: string;
  declare ticketId: string;
  declare recipeId: string | null;
  declare pieces: number;
  declare entered: CreateMarking;
  declare revisions: Revisions;
  declare open: readonly OpenStation[];
  declare note: string;
  declare endedAt: Date | null;
  declare runId: string | null;
  /** How its pieces were to be marked as it began. */
  declare layoutId: string | null;
  declare at: Date;
  declare byId: string;
}

export function markings(sequelize: Sequelize) {
  return class extends MarkingRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      recipeId: UUID,
      pieces: INTEGER,
      entered: JSONB,
      revisions: JSONB,
      open: JSONB,
      note: TEXT,
      endedAt: DATE,
      runId: UUID,
      layoutId: UUID,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'markings', tableName: 'markings' },
  );
}
