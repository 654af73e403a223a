import { DataTypes, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { Figure, Grade } from '@unto/core';
import type { Revisions, RunBench } from '@unto/contract';
import { SETTING_COLUMNS, SettingRow } from './setting-row.js';

const { DATE, DOUBLE, INTEGER, JSONB, TEXT, UUID } = DataTypes;

/** Runs on pieces. Append-only; a correction names what it corrects. */
export class RunRow extends SettingRow<InferAttributes<RunRow>, InferCreationAttributes<RunRow>> {
  declare id: string;
  declare ticketId: string;
  declare recipeId: string | null;
  declare correctsId: string | null;
  declare substrateId: string;
  declare compoundId: string | null;
  declare headId: string;
  declare revisions: Revisions;
  declare pieces: number;
  declare entered: Record<string, unknown>;
  declare powerPercent: number | null;
  declare powerW: number | null;
  declare speedMmPerS: number | null;
  declare intervalMm: number;
  declare minutes: number;
  declare minutesFrom: 'typed' | 'counted' | 'planned';
  declare note: string;
  declare reason: string;
  declare bench: RunBench | null;
  declare dose: Figure | null;
  declare grade: Grade;
  declare because: readonly string[];
  declare at: Date;
  declare byId: string;
}

export function runs(sequelize: Sequelize) {
  return class extends RunRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      recipeId: UUID,
      correctsId: UUID,
      substrateId: UUID,
      compoundId: UUID,
      headId: UUID,
      revisions: JSONB,
      pieces: INTEGER,
      entered: JSONB,
      powerPercent: DOUBLE,
      powerW: DOUBLE,
      speedMmPerS: DOUBLE,
      intervalMm: DOUBLE,
      ...SETTING_COLUMNS,
      minutes: DOUBLE,
      minutesFrom: TEXT,
      note: TEXT,
      reason: TEXT,
      bench: JSONB,
      dose: JSONB,
      grade: TEXT,
      because: JSONB,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'runs', tableName: 'runs' },
  );
}
