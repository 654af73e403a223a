import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { SwitchingPoint, Weights } from '@unto/core';
import type { FrozenScore } from '@unto/contract';

const { BIGINT, BOOLEAN, DATE, INTEGER, JSONB, TEXT, UUID } = DataTypes;

/** Choices taken, with all that their ranking was made of. Append-only. */
export class ChoiceRow extends Model<InferAttributes<ChoiceRow>, InferCreationAttributes<ChoiceRow>> {
  declare id: string;
  declare ticketId: string;
  declare optionId: string;
  declare method: string;
  declare compoundId: string | null;
  declare offLabel: boolean;
  declare profileId: string | null;
  declare weights: Weights;
  declare modelVersion: number;
  declare seed: number;
  declare scores: FrozenScore[];
  declare switching: SwitchingPoint[];
  declare reason: string;
  declare at: Date;
  declare byId: string;
}

export function choices(sequelize: Sequelize) {
  return class extends ChoiceRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      optionId: TEXT,
      method: TEXT,
      compoundId: UUID,
      offLabel: BOOLEAN,
      profileId: UUID,
      weights: JSONB,
      modelVersion: INTEGER,
      seed: BIGINT,
      scores: JSONB,
      switching: JSONB,
      reason: TEXT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'choices', tableName: 'choices' },
  );
}
