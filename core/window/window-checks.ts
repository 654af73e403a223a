import { OUTCOMES, type Outcome } from '../coupon/outcomes.js';
import { median } from '../statistics/median.js';
import { boundariesAt, chanceAt } from './fit-window.js';
import type { WindowFit } from './window-fit.js';
import { quickSigmoid } from './quick-sigmoid.js';
import type { Draws } from './boundary-posterior.js';
import { columnsOf, doubtOf } from './window-form.js';
import { restOfPoint, type WindowCell } from './window-terms.js';

/** A cell that the others do not bear out. */
export interface OddCell {
  /** Its place among the cells that were fitted. */
  readonly index: number;
  /** Chance of what it was read as, by the others alone. */
  readonly chance: number;
}

/** Chances of each outcome at every cell by the others alone. */
export type LeftOut = readonly Record<Outcome, number>[];

/** A cell less likely than this by its neighbours is pointed out: among a hundred cells that follow their boundary about one. */
const ODD = 0.02;

/**
 * Cells whose outcome disagrees with what all others say of their place, the oddest first; none that somebody looked at again.
 * @param alone chances by the others alone, where they are known already
 */
export function oddCells(fit: WindowFit, alone = leftOut(fit)): OddCell[] {
  return alone
    .map((chances, index) => ({ index, chance: chances[fit.cells[index]!.outcome] }))
    .filter(({ index, chance }) => chance < ODD && !fit.cells[index]!.lookedAgain)
    .sort((a, b) => a.chance - b.chance);
}

/**
 * Chances of each outcome at every cell by the others alone: each is left out by weighing the draws with one over the chance that they
 * gave it (Gelfand, Dey & Chang 1992: importance-weighted leave-one-out).
 */
export function leftOut(fit: WindowFit): LeftOut {
  const places = new Map<string, ReturnType<typeof boundariesAt>>();
  const at = (cell: WindowCell) => {
    const key = [cell.speedMmPerS, ...Object.values(restOfPoint(cell))].join(' ');
    if (!places.has(key)) places.set(key, boundariesAt(fit, cell));
    return places.get(key)!;
  };
  const misread = shareMisread(fit);
  return fit.cells.map((cell) => {
    const boundaries = at(cell);
    const lnPower = Math.log(cell.powerW);
    const doubt = doubtOf(cell);
    const sums = { under: 0, holds: 0, over: 0 };
    let weights = 0;
    for (let d = 0; d < fit.drawCount; d += 1) {
      const holds = chanceAt(boundaries, lnPower, d);
      const over = quickSigmoid(boundaries.overK[d]! * (lnPower - boundaries.overAt[d]!));
      const chances = { under: Math.max(0, 1 - holds - over), holds, over };
      const astray = doubt * misread[d]!;
      const weight = 1 / (astray + (1 - astray) * chances[cell.outcome] + 1e-9);
      weights += weight;
      for (const outcome of OUTCOMES) sums[outcome] += weight * chances[outcome];
    }
    return { under: sums.under / weights, holds: sums.holds / weights, over: sums.over / weights };
  });
}

/** An outcome less likely than this by the others lies where it is not expected. */
const UNLIKELY = 0.1;

/** How many cells lie where they are not expected, and how many would by chance. */
function unexpected(fit: WindowFit, alone: LeftOut): { found: number; byChance: number } {
  let [found, byChance] = [0, 0];
  alone.forEach((chances, index) => {
    if (chances[fit.cells[index]!.outcome] < UNLIKELY) found += 1;
    for (const outcome of OUTCOMES) if (chances[outcome] < UNLIKELY) byChance += chances[outcome];
  });
  return { found, byChance };
}

/** Share of the cells misread, draw by draw: by either boundary. */
function shareMisread({ form, bond, over, drawCount }: WindowFit): Float64Array {
  const place = columnsOf(form) + 1;
  const of = ({ values, size }: Draws, d: number) => quickSigmoid(values[d * size + place]!) / 2;
  return Float64Array.from({ length: drawCount }, (_, d) => of(bond, d) + of(over, d));
}

/** What is to be said of a fit in words. */
export const FIT_NOTES = ['nothing held', 'nothing failed', 'cells contradict', 'blurred', 'narrow band'] as const;
export type FitNote = (typeof FIT_NOTES)[number];

/** From where a note is worth its place. Common practice, no source. */
const LIMITS = { excess: 2.5, steepness: 10, halfBand: 0.12 };

/** What the fit says of how well the cells follow it: nothing where they do. */
export function fitNotes(fit: WindowFit, alone = leftOut(fit)): FitNote[] {
  const outcomes = new Set(fit.cells.map(({ outcome }) => outcome));
  if (!outcomes.has('holds')) return ['nothing held'];
  if (outcomes.size === 1) return ['nothing failed'];
  const { found, byChance } = unexpected(fit, alone);
  const at = boundariesAt(
    fit,
    fit.cells.find(({ outcome }) => outcome === 'holds')!,
  );
  const width = at.overAt.map((over, d) => over - at.bondAt[d]!);
  const wide = outcomes.has('over') ? median(width) / 2 : Infinity;
  return [
    ...(found > byChance + 1 + LIMITS.excess * Math.sqrt(byChance) ? (['cells contradict'] as const) : []),
    ...(median(at.bondK) < LIMITS.steepness ? (['blurred'] as const) : []),
    ...(wide < LIMITS.halfBand ? (['narrow band'] as const) : []),
  ];
}

/** The note in words, with its numbers. */
export function fitNoteWords(fit: WindowFit, note: FitNote, alone?: LeftOut): string {
  switch (note) {
    case 'nothing held':
      return 'No cell held: there is no window here yet. Try another interval, a thicker coat, or powers and speeds between those lost and those scorched.';
    case 'nothing failed':
      return 'Every cell held: the edges lie outside what was tried. Quicker or weaker cells would find them.';
    case 'cells contradict':
      return contradiction(unexpected(fit, alone ?? leftOut(fit)), fit.cells.length);
    case 'blurred': {
      const k = median(boundariesAt(fit, fit.cells[0]!).bondK);
      return `The edge is blurred: from 1 in 10 to 9 in 10 takes ×${Math.exp(4.39 / k).toFixed(1)} of power, where an even coat takes ×1.3.`;
    }
    case 'narrow band':
      return 'Narrow band: what holds is no wider than ± 12 % of power. Try another interval, coat or compound.';
  }
}

function contradiction({ found, byChance }: ReturnType<typeof unexpected>, cells: number): string {
  return `${found} of ${cells} cells lie where they are not expected, where chance would put ${Math.ceil(byChance)}: they were misread, or the coat follows no such edge. Look again at those ringed.`;
}
