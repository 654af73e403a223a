import { seededRandom, shuffled } from '../support/random.js';
import type { CouponCell, CouponLayout } from './layout.js';

/**
 * Cells in the order they are burnt: those the head can reach, as read or shuffled by the design's seed (Fisher & Yates), and gathered
 * by what a person must set by hand between them (focus offset, frequency, pulse length), so that nobody sets anything twice.
 */
export function burnOrder({ cells, design }: CouponLayout): CouponCell[] {
  const read = cells.filter(({ reachable }) => reachable);
  const order = design.order === 'shuffled' ? shuffled(read, seededRandom(design.orderSeed)) : read;
  const groups = new Map<string, CouponCell[]>();
  for (const cell of order) groups.set(handSetting(cell), [...(groups.get(handSetting(cell)) ?? []), cell]);
  return [...groups.values()].flat();
}

/** What a person sets on the machine before a cell can be burnt; cells that agree in it need no stop between them. */
export function handSetting({ focusOffsetMm, frequencyKHz, pulseNs }: CouponCell): string {
  return [
    focusOffsetMm === null ? '' : `focus offset ${focusOffsetMm} mm`,
    frequencyKHz === null ? '' : `frequency ${frequencyKHz} kHz`,
    pulseNs === null ? '' : `pulse length ${pulseNs} ns`,
  ]
    .filter(Boolean)
    .join(', ');
}
