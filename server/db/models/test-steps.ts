import { DataTypes, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { StepTestOutcome } from '@unto/core';
import type { Revisions } from '@unto/contract';
import { SETTING_COLUMNS, SettingRow } from './setting-row.js';

const { DATE, DOUBLE, JSONB, TEXT, UUID } = DataTypes;

/** Tiny cells fired on the piece itself. Append-only. */
export class TestStepRow extends SettingRow<InferAttributes<TestStepRow>, InferCreationAttributes<TestStepRow>> {
  declare id: string;
  declare ticketId: string;
  declare powerPercent: number;
  declare powerW: number;
  declare speedMmPerS: number;
  declare intervalMm: number;
  declare outcome: StepTestOutcome;
  declare note: string;
  declare revisions: Revisions;
  declare at: Date;
  declare byId: string;
}

export function testSteps(sequelize: Sequelize) {
  return class extends TestStepRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      powerPercent: DOUBLE,
      powerW: DOUBLE,
      speedMmPerS: DOUBLE,
      intervalMm: DOUBLE,
      ...SETTING_COLUMNS,
      outcome: TEXT,
      note: TEXT,
      revisions: JSONB,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'testSteps', tableName: 'test_steps' },
  );
}
