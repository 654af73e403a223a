/** What may be wrong with a mark, as it looks once it is washed and scrubbed. */
export const FAULTS = [
  'washed off whole',
  'faint in one corner',
  'grainy',
  'patchy',
  'halo or brown',
  'chipped or crazed',
  'density drifts',
  'pale along one edge',
  'pale all over',
  'faint strokes',
  'residue left',
  'out of place',
  'lost under the pad',
  'tinted',
] as const;
export type Fault = (typeof FAULTS)[number];

/** A place on a mark, as shares of its width and height from the upper left. */
export interface FaultSpot {
  readonly x: number;
  readonly y: number;
}

/** What cannot be seen any more where a mark is gone. */
const GONE_WITH_IT: readonly Fault[] = [
  'faint in one corner',
  'grainy',
  'patchy',
  'density drifts',
  'pale along one edge',
  'pale all over',
  'faint strokes',
  'lost under the pad',
  'tinted',
];

/** Faults that nobody can have looked for beside some others: a mark that is gone shows no grain. */
export function hiddenBy(seen: readonly Fault[]): Fault[] {
  return seen.includes('washed off whole') ? GONE_WITH_IT.filter((fault) => !seen.includes(fault)) : [];
}

/** Pairs of faults that no one piece can show at once, in words; empty where they go together. */
export function contradictions(seen: readonly Fault[]): string[] {
  if (!seen.includes('washed off whole')) return [];
  return seen
    .filter((fault) => GONE_WITH_IT.includes(fault))
    .map(
      (fault) =>
        `A mark that washed off whole cannot be “${fault}” too: if these are two pieces, look at each by itself.`,
    );
}
