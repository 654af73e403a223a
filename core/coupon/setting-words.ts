import { CORE_READING, writtenIn, type Quantity, type UnitReading } from '../units/registry.js';
import type { CellSetting } from './layout.js';

/**
 * A cell's setting in words and units: power, speed and interval always, the rest where it says something.
 * @param reading units to say it in; as the core counts where nobody says
 */
export function settingWords(cell: CellSetting, reading: UnitReading = CORE_READING): string {
  const read = (quantity: Quantity, value: number) => writtenIn(reading, quantity, value);
  return [
    read('power', cell.powerPercent),
    read('speed', cell.speedMmPerS),
    read('interval', cell.intervalMm),
    cell.passes > 1 ? `${cell.passes} passes` : '',
    cell.hatches > 1 ? 'crossed' : '',
    cell.angleDeg === 0 ? '' : `${number(cell.angleDeg)}°`,
    cell.frequencyKHz === null ? '' : `${number(cell.frequencyKHz)} kHz`,
    cell.pulseNs === null ? '' : `${number(cell.pulseNs)} ns`,
    cell.focusOffsetMm === null
      ? ''
      : `focus ${cell.focusOffsetMm > 0 ? '+' : ''}${read('length', cell.focusOffsetMm)}`,
    cell.coats > 1 ? `${cell.coats} coats` : '',
  ]
    .filter(Boolean)
    .join(', ');
}

function number(value: number): string {
  return String(Number(value.toPrecision(4)));
}
