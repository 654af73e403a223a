import { DataTypes, Model } from 'sequelize';
import type { Directions, Fill, PowerMode, SettingRest, SwitchState } from '@unto/core';

const { DOUBLE, INTEGER, TEXT } = DataTypes;

/** A row that carries a whole setting: what of it needs no panel's scale. */
export abstract class SettingRow<A extends object, C extends object> extends Model<A, C> implements SettingRest {
  declare passes: number;
  declare hatches: number;
  declare angleDeg: number;
  declare fill: Fill;
  declare focusOffsetMm: number;
  declare frequencyKHz: number | null;
  declare pulseNs: number | null;
  declare directions: Directions | null;
  declare powerMode: PowerMode | null;
  declare air: SwitchState | null;
  declare extraction: SwitchState | null;
}

export const SETTING_COLUMNS = {
  passes: INTEGER,
  hatches: INTEGER,
  angleDeg: DOUBLE,
  fill: TEXT,
  focusOffsetMm: DOUBLE,
  frequencyKHz: DOUBLE,
  pulseNs: DOUBLE,
  directions: TEXT,
  powerMode: TEXT,
  air: TEXT,
  extraction: TEXT,
};
