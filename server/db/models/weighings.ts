import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { Figure } from '@unto/core';

const { BOOLEAN, DATE, DOUBLE, INTEGER, JSONB, UUID } = DataTypes;

/** Containers weighed round a coat. Append-only; a correction names what it corrects. */
export class WeighingRow extends Model<InferAttributes<WeighingRow>, InferCreationAttributes<WeighingRow>> {
  declare id: string;
  declare ticketId: string;
  declare containerId: string;
  declare containerRevisionId: string;
  declare compoundId: string;
  declare compoundRevisionId: string;
  declare pieces: number;
  declare beforeG: number;
  declare afterG: number;
  declare entered: Record<string, unknown>;
  declare film: Figure;
  declare transfer: Figure | null;
  declare transferValue: number | null;
  declare correctsId: string | null;
  declare strokes: number | null;
  declare afterPotLife: boolean;
  declare at: Date;
  declare byId: string;
}

/** Columns of a weighing, which its view shares. */
export const weighingColumns = () => ({
  id: { type: UUID, primaryKey: true },
  ticketId: UUID,
  containerId: UUID,
  containerRevisionId: UUID,
  compoundId: UUID,
  compoundRevisionId: UUID,
  pieces: INTEGER,
  beforeG: DOUBLE,
  afterG: DOUBLE,
  entered: JSONB,
  film: JSONB,
  transfer: JSONB,
  transferValue: DOUBLE,
  correctsId: UUID,
  strokes: INTEGER,
  afterPotLife: BOOLEAN,
  at: DATE,
  byId: UUID,
});

export function weighings(sequelize: Sequelize) {
  return class extends WeighingRow {}.init(weighingColumns(), {
    sequelize,
    modelName: 'weighings',
    tableName: 'weighings',
  });
}
