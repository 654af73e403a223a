import { settingOf, type MarkSetting, type Outcome } from '@unto/core';
import type { Judgement } from '@unto/contract';
import type { CouponWindowCell } from './window-cells.js';

/** A judged run, as far as a window asks. */
export interface JudgedRun extends MarkSetting {
  readonly id: string;
  readonly pieces: number;
  readonly judgement: Pick<Judgement, 'contrastStep' | 'piecesGood' | 'faults' | 'tests'>;
}

/** Faults that speak of the setting: too much, too little. What is uneven, faint at a corner or blown speaks of coat, focus and air. */
const TOO_MUCH: readonly string[] = ['halo or brown', 'chipped or crazed'];
const TOO_LITTLE: readonly string[] = ['washed off whole', 'grainy'];
/** A contrast step up to which a mark is pale: it stood, but whether somebody would call it good its ticket says. */
const PALE = 2;
/** Tests under which a mark that is not bonded goes; a thumb tells nothing. */
const SCRUBS: readonly string[] = ['abrasive pad', '600 grit wet paper'];

/**
 * What a judged run says of its setting: too much or too little where pieces were lost to it, that it holds where the pad changed nothing
 * and no piece was lost. Null where it says neither: the loss may lie in the coat.
 */
export function runOutcome({ pieces, judgement }: Pick<JudgedRun, 'pieces' | 'judgement'>): Outcome | null {
  const { contrastStep, piecesGood, faults, tests } = judgement;
  const scrubs = tests.filter(({ test }) => SCRUBS.includes(test));
  if (faults.some((fault) => TOO_MUCH.includes(fault))) return 'over';
  if (faults.some((fault) => TOO_LITTLE.includes(fault)) || scrubs.some(({ result }) => result === 'lost'))
    return 'under';
  const stood = scrubs.length > 0 && scrubs.every(({ result }) => result === 'no change');
  return stood && contrastStep > PALE && piecesGood === pieces && faults.length === 0 ? 'holds' : null;
}

/** A run is judged by eye, once, and no picture tells what it kept. */
const BY_EYE = { byEye: true, lookedAgain: false, kept: null } as const;

/** Judged runs as cells of a window, by eye each; those whose watts or speed nobody knows, and those that say nothing, are left out. */
export function runWindowCells(runs: readonly JudgedRun[]): CouponWindowCell[] {
  return runs.flatMap((run): CouponWindowCell[] => {
    const outcome = runOutcome(run);
    const setting = settingOf(run);
    const { powerW, powerPercent, speedMmPerS, intervalMm } = setting;
    if (outcome === null || powerW === null || powerPercent === null || speedMmPerS === null || intervalMm === null)
      return [];
    const place = { couponId: null, runId: run.id, cell: 0, coats: null };
    return [{ ...setting, powerW, powerPercent, speedMmPerS, intervalMm, ...place, outcome, ...BY_EYE }];
  });
}
