import { BLOCK_POWERS, BLOCK_SPEEDS, type CouponLimits, type UnitReading } from '@unto/core';
import type { DesignDraft } from './design-form';
import { roundIn } from '../ui/round-in';
import type { ProposedBlock } from '../window/proposed-block';
import { fits } from './starting-draft';

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
    count: BLOCK_POWERS.count,
  } as const;
  const [from, to] = [round(block.speedsMmPerS[0]), round(block.speedsMmPerS[1])];
  const speed = { parameter: 'speed', spacing: 'log', from, to, count: BLOCK_SPEEDS.count } as const;
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
