import type { Outcome, Stage } from '@unto/core';
import type { Coupon } from '@unto/contract';

/** Newest outcome of every cell at a stage. */
export function newestOutcomes(coupon: Pick<Coupon, 'readings'>, stage: Stage): Map<number, Outcome> {
  const newest = new Map<number, Outcome>();
  for (const reading of coupon.readings) {
    if (reading.stage === stage) for (const { cell, outcome } of reading.entries) newest.set(cell, outcome);
  }
  return newest;
}

/** Entries that differ from what is kept. */
export function changedEntries(
  kept: ReadonlyMap<number, Outcome>,
  now: ReadonlyMap<number, Outcome>,
): { cell: number; outcome: Outcome }[] {
  return [...now].filter(([cell, outcome]) => kept.get(cell) !== outcome).map(([cell, outcome]) => ({ cell, outcome }));
}
