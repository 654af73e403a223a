import {
  CoreError,
  layoutCoupon,
  startingRange,
  type CouponLimits,
  type Quantity,
  type StartingPoint,
  type StartingRange,
  type StartingBench,
  type UnitReading,
} from '@unto/core';
import { roundIn } from '../ui/round-in';
import { designOf, firstDraft, type DesignDraft } from './design-form';

/** A blank that may be spent on a coupon, mm. */
export interface SpareBlank {
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** A first design with where its axes come from, and the blank it was cut to; null where the shelf holds none that serves. */
export interface StartingDraft {
  readonly draft: DesignDraft;
  readonly range: StartingRange | null;
  /** Why no range came of what is known. */
  readonly because: string | null;
  readonly blank: SpareBlank | null;
}

/** Columns and rows with the size of a cell, mm, from the best: eighty squares are typical, and a cell must be read (common practice). */
const GRIDS = [
  [8, 10, 5, 4],
  [8, 10, 4, 3.2],
  [7, 9, 4, 3.2],
  [7, 8, 5, 4],
  [7, 8, 4, 3.2],
  [6, 7, 4, 3.2],
  [6, 6, 4, 3.2],
  [5, 6, 4, 3.2],
  [6, 7, 3.2, 2.6],
  [5, 6, 3.2, 2.6],
  [4, 6, 3.2, 2.6],
  [6, 5, 3.2, 2.6],
  [6, 4, 3.2, 2.6],
  [4, 6, 2.6, 2.2],
  [7, 4, 2.6, 2.2],
  [6, 4, 2.6, 2.2],
] as const;

/** So many cells tell an edge well; common practice, no source. */
const ENOUGH = 48;

/** A design that starts from what is known of the pairing, in round numbers of the panel, on the smallest spare blank that serves. */
export function startingDraft(
  limits: CouponLimits,
  bench: StartingBench,
  points: readonly StartingPoint[],
  blanks: readonly SpareBlank[],
  reading: UnitReading | null,
): StartingDraft {
  const plain = firstDraft(limits, reading);
  let range: StartingRange | null = null;
  let because: string | null = null;
  try {
    range = startingRange(points, bench);
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    because = error.message;
  }
  const draft = range ? withRange(plain, range, limits, reading) : plain;
  const bySize = [...blanks].sort((a, b) => a.widthMm * a.heightMm - b.widthMm * b.heightMm);
  const fitted = bySize.flatMap((blank) => {
    const cut = fitTo(draft, blank, limits, reading);
    return cut ? [{ draft: cut, blank, cells: cut.x.count * cut.y.count }] : [];
  });
  // The smallest that takes enough of them; else the one that takes most.
  const most = fitted.reduce<(typeof fitted)[number] | null>(
    (best, one) => (one.cells > (best?.cells ?? 0) ? one : best),
    null,
  );
  const chosen = fitted.find(({ cells }) => cells >= ENOUGH) ?? most;
  return chosen ? { draft: chosen.draft, range, because, blank: chosen.blank } : { draft, range, because, blank: null };
}

function withRange(
  plain: DesignDraft,
  range: StartingRange,
  limits: CouponLimits,
  reading: UnitReading | null,
): DesignDraft {
  const round = (quantity: Quantity, value: number) => roundIn(reading, quantity, value);
  const { from, to } = range.speedMmPerS;
  const top = limits.topSpeedMmPerS;
  const speed = { from: round('speed', from), to: Math.min(top, round('speed', to)) };
  return {
    ...plain,
    x: { ...plain.x, from: range.powerPercent.from, to: range.powerPercent.to },
    y: { ...plain.y, ...speed },
    intervalMm: Number(range.intervalMm.toPrecision(2)),
    powerPercent: Math.min(90, range.powerPercent.to),
    speedMmPerS: Math.min(top, round('speed', Math.sqrt(from * to))),
    // Labels are burnt where everything holds: the strongest of the grid at its slowest.
    labelPowerPercent: Math.min(90, range.powerPercent.to),
    labelSpeedMmPerS: speed.from,
  };
}

/** The best grid that a blank takes; null where it takes too few cells to bracket an edge. */
function fitTo(
  draft: DesignDraft,
  blank: SpareBlank,
  limits: CouponLimits,
  reading: UnitReading | null,
): DesignDraft | null {
  for (const [columns, rows, cellWidthMm, cellHeightMm] of GRIDS)
    for (const labelsAt of new Set([draft.labelsAt, 'edges'] as const)) {
      const tried = {
        ...draft,
        x: { ...draft.x, count: columns },
        y: { ...draft.y, count: rows },
        ...{ cellWidthMm, cellHeightMm, labelsAt, blankWidthMm: blank.widthMm, blankHeightMm: blank.heightMm },
      };
      if (fits(tried, limits, reading)) return tried;
    }
  return null;
}

/** Whether a design can be laid out on its blank. */
export function fits(draft: DesignDraft, limits: CouponLimits, reading: UnitReading | null): boolean {
  try {
    layoutCoupon(designOf(draft, reading), limits);
    return true;
  } catch (error) {
    if (error instanceof CoreError) return false;
    throw error;
  }
}
