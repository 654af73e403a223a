/** What a proposed block keeps the same in all its cells. */
export interface ProposedRest {
  readonly intervalMm: number;
  readonly passes: number;
  readonly focusOffsetMm: number;
  readonly frequencyKHz: number | null;
  readonly pulseNs: number | null;
}

/** The block of cells that a window proposes, as the panel would be set. */
export interface ProposedBlock {
  readonly powersPercent: readonly [low: number, high: number];
  readonly speedsMmPerS: readonly [low: number, high: number];
  readonly rest: ProposedRest;
}

const PARTS = ['intervalMm', 'passes', 'focusOffsetMm', 'frequencyKHz', 'pulseNs'] as const;

/** A proposed block in an address, so that it opens in the designer. */
export function blockQuery({ powersPercent, speedsMmPerS, rest }: ProposedBlock): string {
  return [...powersPercent, ...speedsMmPerS, ...PARTS.map((part) => rest[part] ?? '')].join('_');
}

/** The block that an address holds; null where it holds none. */
export function blockOf(query: unknown): ProposedBlock | null {
  if (typeof query !== 'string') return null;
  const [weak, strong, slow, fast, ...rest] = query.split('_').map((part) => (part === '' ? null : Number(part)));
  if (![weak, strong, slow, fast].every((one) => typeof one === 'number' && Number.isFinite(one) && one > 0))
    return null;
  const [intervalMm, passes, focusOffsetMm, frequencyKHz = null, pulseNs = null] = rest;
  return {
    powersPercent: [weak!, strong!],
    speedsMmPerS: [slow!, fast!],
    rest: {
      intervalMm: intervalMm ?? 0.06,
      passes: passes ?? 1,
      focusOffsetMm: focusOffsetMm ?? 0,
      frequencyKHz,
      pulseNs,
    },
  };
}
