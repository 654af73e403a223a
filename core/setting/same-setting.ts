import { SETTING_PARTS, type MarkSetting, type SettingPart } from './mark-setting.js';

/** Within what two settings count as the same: shares of a value, mm of focus, degrees of angle. Common practice, no source. */
export const SETTING_TOLERANCE = { share: 0.01, focusMm: 0.02, angleDeg: 1 } as const;

/** Parts that are not noted where they are null; for the others null says that there is none to set. */
const NOTED: readonly SettingPart[] = [
  'powerPercent',
  'speedMmPerS',
  'intervalMm',
  'directions',
  'powerMode',
  'air',
  'extraction',
];
/** Read off a scale, so that the last digit may differ. */
const SCALED: readonly SettingPart[] = ['powerPercent', 'speedMmPerS', 'intervalMm', 'frequencyKHz', 'pulseNs'];

/**
 * Whether two values of a part are the same. What was not noted is the same as nothing, not even as another that was not noted:
 * nobody can know.
 * @example samePart('speedMmPerS', 150, 151) // true
 */
export function samePart<P extends SettingPart>(part: P, a: MarkSetting[P], b: MarkSetting[P]): boolean {
  if (a === null || b === null) return a === b && !NOTED.includes(part);
  if (typeof a !== 'number' || typeof b !== 'number') return a === b;
  if (SCALED.includes(part)) return Math.abs(a - b) <= SETTING_TOLERANCE.share * Math.max(Math.abs(a), Math.abs(b));
  if (part === 'focusOffsetMm') return Math.abs(a - b) <= SETTING_TOLERANCE.focusMm;
  if (part === 'angleDeg') return Math.abs(a - b) <= SETTING_TOLERANCE.angleDeg;
  return a === b;
}

/** The parts in which two settings differ or cannot be compared; none for the same setting. */
export function settingDifferences(a: MarkSetting, b: MarkSetting): SettingPart[] {
  return SETTING_PARTS.filter((part) => !samePart(part, a[part], b[part]));
}

/** Whether two settings are the same in every part, within SETTING_TOLERANCE. */
export function sameSetting(a: MarkSetting, b: MarkSetting): boolean {
  return settingDifferences(a, b).length === 0;
}
