import type { CellSetting } from './layout.js';

/** A cell's setting in words and units: power, speed and interval always, the rest where it says something. */
export function settingWords(cell: CellSetting): string {
  return [
    `${number(cell.powerPercent)} %`,
    `${number(cell.speedMmPerS)} mm/s`,
    `${number(cell.intervalMm)} mm`,
    cell.passes > 1 ? `${cell.passes} passes` : '',
    cell.hatches > 1 ? 'crossed' : '',
    cell.angleDeg === 0 ? '' : `${number(cell.angleDeg)}°`,
    cell.frequencyKHz === null ? '' : `${number(cell.frequencyKHz)} kHz`,
    cell.pulseNs === null ? '' : `${number(cell.pulseNs)} ns`,
    cell.focusOffsetMm === null ? '' : `focus ${cell.focusOffsetMm > 0 ? '+' : ''}${number(cell.focusOffsetMm)} mm`,
    cell.coats > 1 ? `${cell.coats} coats` : '',
  ]
    .filter(Boolean)
    .join(', ');
}

function number(value: number): string {
  return String(Number(value.toPrecision(4)));
}
