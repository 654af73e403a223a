import type { PieceWork } from '@unto/core';
import type { LedgerRecord } from '@unto/contract';

/** What a run came to. Money in minor units. */
export interface RunCost {
  readonly totalMinor: number;
  /** A good piece; null while none is good. */
  readonly goodMinor: number | null;
  readonly parts: readonly { readonly what: 'blanks' | 'compound' | 'laser' | 'hands'; readonly minor: number }[];
  /** What nobody weighed or timed: compound that counts nothing, minutes as planned, cleaning as usual. */
  readonly notRead: readonly ('compound' | 'laser minutes' | 'cleaning')[];
}

type Run = Pick<LedgerRecord, 'pieces' | 'minutes' | 'minutesFrom' | 'compoundId' | 'cleaning' | 'judgement'>;

/**
 * What the pieces of a run came to, by what was weighed and timed on them.
 * @param anew whether it made pieces anew: those are on the blank they were on
 */
export function runCost(run: Run, work: PieceWork, anew: boolean): RunCost {
  const { pieces, minutes, judgement } = run;
  const parts = [
    { what: 'blanks' as const, minor: anew ? 0 : work.blankMinor * pieces },
    { what: 'compound' as const, minor: work.compoundMinor * pieces },
    { what: 'laser' as const, minor: minutes * work.laserMinorPerMinute },
    { what: 'hands' as const, minor: (work.coatMinutes + work.cleanMinutes) * pieces * work.labourMinorPerMinute },
  ].filter(({ minor }) => minor > 0);
  const totalMinor = parts.reduce((sum, { minor }) => sum + minor, 0);
  const good = Math.min(pieces, judgement?.piecesGood ?? 0);
  return {
    ...{ totalMinor, goodMinor: good > 0 ? totalMinor / good : null, parts },
    notRead: [
      ...(run.compoundId && work.compoundG === 0 ? (['compound'] as const) : []),
      ...(run.minutesFrom === 'planned' ? (['laser minutes'] as const) : []),
      ...(run.cleaning ? [] : (['cleaning'] as const)),
    ],
  };
}
