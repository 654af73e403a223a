import { CORE_READING, writtenIn, type Quantity, type UnitReading } from '../units/registry.js';
import type { MarkSetting } from './mark-setting.js';

/** What of a setting is to be said; what is left out is not spoken of. */
export type SayableSetting = Partial<Omit<MarkSetting, 'focusOffsetMm'>> & {
  readonly focusOffsetMm?: number | null | undefined;
  readonly coats?: number | null | undefined;
};

/**
 * A setting in words and units: power, speed and interval, the rest where it is out of the ordinary or was noted.
 * @param reading units to say it in; as the core counts where nobody says
 * @example settingWords({ powerPercent: 80, speedMmPerS: 150, intervalMm: 0.06, passes: 2 }) // '80 %, 150 mm/s, 0.06 mm, 2 passes'
 */
export function settingWords(setting: SayableSetting, reading: UnitReading = CORE_READING): string {
  const read = (quantity: Quantity, value: number | null | undefined) =>
    value === null || value === undefined ? '' : writtenIn(reading, quantity, value);
  return [
    read('power', setting.powerPercent),
    read('speed', setting.speedMmPerS),
    read('interval', setting.intervalMm),
    ...restWords(setting, reading),
  ]
    .filter(Boolean)
    .join(', ');
}

/** What a setting says besides power, speed and interval: only what is out of the ordinary, and what was noted. */
export function restWords(setting: SayableSetting, reading: UnitReading = CORE_READING): string[] {
  const { passes = 1, hatches = 1, angleDeg = 0, focusOffsetMm = null } = setting;
  const coats = setting.coats ?? 1;
  const said = (value: number | null | undefined, unit: string) =>
    value === null || value === undefined ? '' : `${Number(value.toPrecision(4))} ${unit}`;
  const focus = (mm: number) =>
    mm === 0 ? 'at focus' : `focus ${mm > 0 ? '+' : ''}${writtenIn(reading, 'length', mm)}`;
  return [
    passes > 1 ? `${passes} passes` : '',
    hatches > 1 ? 'crossed' : '',
    angleDeg === 0 ? '' : `${Number(angleDeg.toPrecision(4))}°`,
    setting.fill === 'lines' ? 'lines apart' : setting.fill === 'artwork' ? 'strokes of the artwork' : '',
    said(setting.frequencyKHz, 'kHz'),
    said(setting.pulseNs, 'ns'),
    focusOffsetMm === null ? '' : focus(focusOffsetMm),
    coats > 1 ? `${coats} coats` : '',
    setting.directions === 'one-way' ? 'rows one way' : '',
    setting.powerMode === 'scaled' ? 'power follows speed' : '',
    setting.air ? `air ${setting.air}` : '',
    setting.extraction === 'off' ? 'extraction off' : '',
  ].filter(Boolean);
}
