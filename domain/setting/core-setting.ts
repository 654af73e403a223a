import {
  arealDose,
  CoreError,
  deliveredPower,
  intervalToMm,
  powerToPercent,
  settingOf,
  speedToMmPerS,
  type IntervalUnit,
  type MarkSetting,
  type PanelScale,
  type PowerUnit,
  type SettingRest,
  type SpeedUnit,
} from '@unto/core';
import { panelScale } from '../equipment/reading.js';
import { powerSource, type FittedEquipment } from '../equipment/fitted-equipment.js';

/** A setting as it was entered; null where it was not said. */
export interface SaidSetting extends SettingRest {
  readonly power: { readonly value: number; readonly unit: PowerUnit } | null;
  readonly speed: { readonly value: number; readonly unit: SpeedUnit } | null;
  readonly interval: { readonly value: number; readonly unit: IntervalUnit } | null;
}

/**
 * A setting in core units, as far as the panel's scale reaches; null where something needed is not known.
 * @param deliveredW watts at the part of a percentage; null where nobody can say
 * @throws CoreError at `power.value`, `speed.value` or `interval.value`
 */
export function settingInCore(
  said: SaidSetting,
  scale: Partial<PanelScale>,
  deliveredW: (percent: number) => number | null,
): MarkSetting {
  const { power, speed, interval } = said;
  const powerPercent = power && at('power.value', () => powerToPercent(power.value, power.unit, scale.ratedW));
  const powerW = powerPercent === null ? (power?.unit === 'W' ? power.value : null) : deliveredW(powerPercent);
  return settingOf({
    ...said,
    powerPercent,
    powerW,
    speedMmPerS: speed && at('speed.value', () => speedToMmPerS(speed.value, speed.unit, scale)),
    intervalMm: interval && at('interval.value', () => intervalToMm(interval.value, interval.unit)),
  });
}

/**
 * A setting as keyed in at some equipment, in core units; checked against what the head can do.
 * @throws CoreError at the part that cannot be
 */
export function settingOnEquipment(said: SaidSetting, equipment: FittedEquipment): MarkSetting {
  const { machine, head } = equipment;
  const source = powerSource(equipment);
  const setting = settingInCore(said, panelScale(equipment), (percent) => deliveredPower(percent, source));
  const { powerPercent, speedMmPerS } = setting;
  if (speedMmPerS !== null && speedMmPerS > machine.topSpeedMmPerS * (1 + 1e-9))
    throw refused(
      'speed.value',
      `${machine.name} runs at most ${machine.topSpeedMmPerS} mm/s; that would be ${Number(speedMmPerS.toPrecision(4))} mm/s.`,
    );
  if (powerPercent !== null && powerPercent < head.firingThresholdPercent)
    throw refused('power.value', `${head.name} fires only from ${head.firingThresholdPercent} %.`);
  checkPulsed(setting, equipment);
  return setting;
}

/** Parts of a setting that only some heads let set. */
export type SettablePart = 'frequencyKHz' | 'pulseNs';

/** What of its pulses a head lets set. */
export function settableParts({ head }: Pick<FittedEquipment, 'head'>): SettablePart[] {
  return [
    ...(typeof head.frequencyKHzMax === 'number' ? (['frequencyKHz'] as const) : []),
    ...(typeof head.pulseNsMax === 'number' ? (['pulseNs'] as const) : []),
  ];
}

/** A head without frequency or pulse length to set cannot have been set to one. @throws CoreError at that part */
export function checkPulsed(
  { frequencyKHz, pulseNs }: Pick<MarkSetting, 'frequencyKHz' | 'pulseNs'>,
  equipment: Pick<FittedEquipment, 'head'>,
): void {
  const { head } = equipment;
  const settable = settableParts(equipment);
  if (frequencyKHz !== null && !settable.includes('frequencyKHz'))
    throw refused('frequencyKHz', `${head.name} has no frequency to set: leave it out.`);
  if (pulseNs !== null && !settable.includes('pulseNs'))
    throw refused('pulseNs', `${head.name} has no pulse length to set: leave it out.`);
}

/** Dose of a setting, J/mm²; null where something is not known, and for lines apart and strokes, which cover no area evenly. */
export function doseOf({ powerW, speedMmPerS, intervalMm, passes, hatches, fill }: MarkSetting): number | null {
  if (!powerW || !speedMmPerS || !intervalMm || fill !== 'filled') return null;
  return arealDose({ powerW, speedMmPerS, intervalMm, passes: passes * hatches });
}

function at<T>(path: string, work: () => T): T {
  try {
    return work();
  } catch (error) {
    throw error instanceof CoreError ? new CoreError(error.code, error.message, { path }) : error;
  }
}

function refused(path: string, message: string): CoreError {
  return new CoreError('value.out-of-range', message, { path });
}
