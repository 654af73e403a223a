import type { Fill, PowerMode } from '@unto/core';
import { settableParts, type FittedEquipment } from '@unto/domain';

export const FILL_WORDS: Record<Fill, string> = {
  filled: 'filled areas',
  lines: 'lines apart',
  artwork: 'strokes of the artwork',
};

export const POWER_MODE_WORDS: Record<PowerMode, string> = {
  constant: 'stays as set',
  scaled: 'follows the speed',
};

/** What a head lets set of its pulses. */
export function pulsedOf({ head }: Pick<FittedEquipment, 'head'>): { frequency: boolean; pulse: boolean } {
  const settable = settableParts({ head });
  return { frequency: settable.includes('frequencyKHz'), pulse: settable.includes('pulseNs') };
}
