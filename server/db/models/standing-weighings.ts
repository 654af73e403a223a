import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { Figure } from '@unto/core';

const { BOOLEAN, DATE, DOUBLE, INTEGER, JSONB, UUID } = DataTypes;

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
      rinsedOff: BOOLEAN,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'standingWeighings', tableName: 'standing_weighings' },
  );
}
