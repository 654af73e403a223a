import { object, string, type InferType } from 'yup';
import { CALENDAR_WHILES, TREND_MEASURES } from '@unto/core';
import { amount, finite, flag, instant, list, orNull, record, uuid, word, words } from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

/** Runs that a trend takes in at most, the newest. */
export const MOST_TREND_RUNS = 3000;

const trendValue = orNull(record({ value: amount(), low: orNull(amount()), high: orNull(amount()), runs: amount() }));

/** Runs that a filter lets through, followed over time. */
export const ledgerTrend = record({
  /** Runs that it tells of; the newest of more where it is not whole. */
  runs: amount(),
  whole: flag(),
  /** Compounds on substrates that they are of. */
  pairings: amount(),
  by: word(CALENDAR_WHILES),
  points: list(
    record({
      from: instant(),
      to: instant(),
      runs: amount(),
      pieces: amount(),
      contrast: trendValue,
      good: trendValue,
      minutes: trendValue,
    }),
  ),
  ways: list(record({ measure: word(TREND_MEASURES), tau: finite('τ').required(), chance: amount(), runs: amount() })),
});
export type LedgerTrendAnswer = Frozen<InferType<typeof ledgerTrend>>;

/** Runs of one page that pictures are asked for. */
export const MOST_PICTURED = 50;
const id = '[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}';
export const runPicturesQuery = object({
  runs: string()
    .label('Runs')
    .required()
    .max(37 * MOST_PICTURED)
    .matches(new RegExp(`^${id}(,${id})*$`), 'Say the runs by their ids, with commas between.'),
});
export type RunPicturesQuery = Frozen<InferType<typeof runPicturesQuery>>;

export const PICTURED = ['tray', 'note', 'coat', 'coupon'] as const;
/** A picture that tells of a run: its washed pieces, one put beside it, its dry coat, the coupon its recipe rests on. */
export const runPicture = record({
  runId: uuid(),
  of: word(PICTURED),
  fileHash: words(),
  words: words(),
  at: instant(),
});
export type RunPicture = Frozen<InferType<typeof runPicture>>;
