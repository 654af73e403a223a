import type { Outcome } from '@unto/core';

/** Entries that differ from what is kept. */
export function changedEntries(
  kept: ReadonlyMap<number, Outcome>,
  now: ReadonlyMap<number, Outcome>,
): { cell: number; outcome: Outcome }[] {
  return [...now].filter(([cell, outcome]) => kept.get(cell) !== outcome).map(([cell, outcome]) => ({ cell, outcome }));
}
