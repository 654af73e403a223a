import { DataTypes, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { Figure, Grade } from '@unto/core';
import type { FrozenFit, Recipe, RecipeRange, Revisions } from '@unto/contract';
import { SETTING_COLUMNS, SettingRow } from './setting-row.js';

const { BIGINT, DATE, DOUBLE, INTEGER, JSONB, TEXT, UUID } = DataTypes;

/** Accepted settings of a pairing. Append-only. */
export class RecipeRow extends SettingRow<InferAttributes<RecipeRow>, InferCreationAttributes<RecipeRow>> {
  declare id: string;
  declare ticketId: string | null;
  declare substrateId: string;
  declare compoundId: string | null;
  declare headId: string;
  declare lensId: string;
  declare number: number;
  declare kind: string;
  declare couponIds: readonly string[];
  declare weights: Recipe['weights'];
  declare runIds: readonly string[];
  declare valid: RecipeRange | null;
  declare powerPercent: number;
  declare powerW: number | null;
  declare speedMmPerS: number;
  declare intervalMm: number;
  declare seed: number;
  declare secondsPerPiece: number;
  declare fit: FrozenFit | null;
  declare worst: Figure | null;
  declare grade: Grade;
  declare because: readonly string[];
  declare revisions: Revisions;
  declare at: Date;
  declare byId: string;
}

export function recipes(sequelize: Sequelize) {
  return class extends RecipeRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      substrateId: UUID,
      compoundId: UUID,
      headId: UUID,
      lensId: UUID,
      number: INTEGER,
      kind: TEXT,
      couponIds: JSONB,
      weights: JSONB,
      runIds: JSONB,
      valid: JSONB,
      powerPercent: DOUBLE,
      powerW: DOUBLE,
      speedMmPerS: DOUBLE,
      intervalMm: DOUBLE,
      ...SETTING_COLUMNS,
      seed: BIGINT,
      secondsPerPiece: DOUBLE,
      fit: JSONB,
      worst: JSONB,
      grade: TEXT,
      because: JSONB,
      revisions: JSONB,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'recipes', tableName: 'recipes' },
  );
}
