import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { Grade } from '@unto/core';
import type { WeighedPart } from '@unto/contract';

const { DATE, DOUBLE, INTEGER, JSONB, TEXT, UUID } = DataTypes;

/** What parts were taken to be. Append-only. */
export class IdentificationRow extends Model<
  InferAttributes<IdentificationRow>,
  InferCreationAttributes<IdentificationRow>
> {
  declare id: string;
  declare label: string;
  declare ticketId: string | null;
  declare blankId: string | null;
  declare words: Record<string, string>;
  declare weighed: WeighedPart | null;
  declare density: { value: number; error: number } | null;
  declare modelVersion: number;
  declare probabilities: { key: string; name: string; probability: number }[];
  declare guessKey: string;
  declare probability: number;
  declare grade: Grade;
  declare substrateId: string | null;
  declare at: Date;
  declare byId: string;
}

export function identifications(sequelize: Sequelize) {
  return class extends IdentificationRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      label: TEXT,
      ticketId: UUID,
      blankId: UUID,
      words: JSONB,
      weighed: JSONB,
      density: JSONB,
      modelVersion: INTEGER,
      probabilities: JSONB,
      guessKey: TEXT,
      probability: DOUBLE,
      grade: TEXT,
      substrateId: UUID,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'identifications', tableName: 'identifications' },
  );
}
