import type { CouponLimits, UnitReading } from '@unto/core';
import type { DesignDraft } from './design-form';
import { fits, roundIn } from './starting-draft';

/** The block of cells that a window proposes, as the panel would be set. */
export interface ProposedBlock {
  readonly powersPercent: readonly [low: number, high: number];
  readonly speedsMmPerS: readonly [low: number, high: number];
  readonly rest: Pick<DesignDraft, 'intervalMm' | 'passes' | 'focusOffsetMm' | 'frequencyKHz' | 'pulseNs'>;
}

const COLUMNS = 4;
const ROWS = 6;
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

/** Sizes of a cell, mm, from the best; the last can just be read (common practice). */
const CELLS = [
  [5, 4],
  [4, 3.2],
  [3.2, 2.6],
  [2.6, 2.2],
] as const;

/**
 * A design of the proposed block in round numbers of the panel: power across or down as the blank has it, all else as the window has
 * it there. Cells are mixed where each has its label, since a spray that grows thicker along an axis passes for a slope. One that fits
 * no blank is left for its designer to fit.
 */
export function draftOfBlock(
  draft: DesignDraft,
  block: ProposedBlock,
  { limits, reading }: { readonly limits: CouponLimits; readonly reading: UnitReading | null },
): DesignDraft {
  const { powersPercent, rest } = block;
  const round = (speed: number) => Math.min(limits.topSpeedMmPerS, roundIn(reading, 'speed', speed));
  const power = {
    parameter: 'power',
    spacing: 'linear',
    from: powersPercent[0],
    to: powersPercent[1],
    count: COLUMNS,
  } as const;
  const [from, to] = [round(block.speedsMmPerS[0]), round(block.speedsMmPerS[1])];
  const speed = { parameter: 'speed', spacing: 'log', from, to, count: ROWS } as const;
  const tries = CELLS.flatMap(([cellWidthMm, cellHeightMm]) =>
    (['each', 'edges'] as const).flatMap((labelsAt) =>
      [[power, speed] as const, [speed, power] as const].map(([x, y]) => ({
        ...{ ...draft, ...rest, third: false, shuffled: labelsAt === 'each' },
        ...{ cellWidthMm, cellHeightMm, labelsAt, x: { ...draft.x, ...x }, y: { ...draft.y, ...y } },
      })),
    ),
  );
  return tries.find((one) => fits(one, limits, reading)) ?? tries.at(-1)!;
}
