import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { Figure } from '@unto/core';
import { weighingColumns } from './weighings.js';

const { BOOLEAN } = DataTypes;

/** Weighings that no later one corrects, and whether their coat was rinsed off. A view. */
export class StandingWeighingRow extends Model<
  InferAttributes<StandingWeighingRow>,
  InferCreationAttributes<StandingWeighingRow>
> {
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
  declare rinsedOff: boolean;
  declare at: Date;
  declare byId: string;
}

export function standingWeighings(sequelize: Sequelize) {
  return class extends StandingWeighingRow {}.init(
    {
      ...weighingColumns(),
      rinsedOff: BOOLEAN,
    },
    { sequelize, modelName: 'standingWeighings', tableName: 'standing_weighings' },
  );
}
