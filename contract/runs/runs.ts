import { array, number, object, string, type InferType } from 'yup';
import { GRADES, type Figure, type Grade } from '@unto/core';
import {
  enteredInterval,
  enteredPower,
  enteredSpeed,
  finite,
  note,
  notNegative,
  oneOf,
  positive,
  text,
  uuid,
  whole,
} from '../fields/index.js';
import type { Pins } from '../coupons/coupons.js';

export const AIR_STATES = ['off', 'on'] as const;

export const FAULTS = [
  'washed off whole',
  'faint in one corner',
  'grainy',
  'patchy',
  'halo or brown',
  'chipped or crazed',
  'density drifts',
  'pale along one edge',
] as const;

/** Contrast by eye, one step a row of a printed grey scale held beside the mark. */
export const CONTRAST_STEPS = [
  { step: 1, word: 'barely there', text: 'found only when tilted to the light' },
  { step: 2, word: 'pale', text: 'seen at arm’s length, reads as grey' },
  { step: 3, word: 'clear', text: 'read from a metre without looking for it' },
  { step: 4, word: 'strong', text: 'read from two metres, even and deep' },
  { step: 5, word: 'full', text: 'as deep as the darkest printed patch' },
] as const;

export const EVENNESS_STEPS = ['blotched', 'patchy', 'slightly uneven', 'even', 'perfectly even'] as const;

export const DURABILITY_TESTS = [
  'thumb',
  'wet sponge',
  'abrasive pad',
  'denatured alcohol',
  'strong ammonia',
  '600 grit wet paper',
  'dishwasher cycle',
] as const;
export const DURABILITY_RESULTS = ['no change', 'slightly paler', 'lost'] as const;
export const CLEANING_METHODS = [
  'dry paper towel',
  'water and sponge',
  'water and abrasive pad',
  'alcohol and scrubbing',
  'isopropyl alcohol',
] as const;
export const RESIDUES = ['none', 'trace', 'some', 'heavy'] as const;

const runFields = {
  pieces: whole('Pieces', 1, 100_000),
  power: enteredPower(),
  speed: enteredSpeed(),
  interval: enteredInterval(),
  passes: whole('Passes', 1, 99),
  focusOffsetMm: finite('Focus offset', 'mm'),
  air: oneOf('Air assist', AIR_STATES),
  minutes: positive('Minutes', 'min').max(10_000, 'Minutes must be at most 10000.'),
  note: note('Note'),
};

/** A run on pieces of a ticket. */
export const createRun = object({
  id: uuid().label('id'),
  ticketId: uuid().label('Ticket'),
  recipeId: uuid().label('Recipe').nullable().defined().default(null),
  correctsId: uuid().label('Corrected run').nullable().defined().default(null),
  ...runFields,
}).noUnknown();
export type CreateRun = InferType<typeof createRun>;

export const createCleaning = object({
  id: uuid().label('id'),
  method: oneOf('Method', CLEANING_METHODS),
  minutes: notNegative('Minutes', 'min').max(1000, 'Minutes must be at most 1000.'),
  residue: oneOf('Residue', RESIDUES),
}).noUnknown();
export type CreateCleaning = InferType<typeof createCleaning>;

const durability = object({
  test: oneOf('Test', DURABILITY_TESTS),
  result: oneOf('Result', DURABILITY_RESULTS),
}).noUnknown();

export const createJudgement = object({
  id: uuid().label('id'),
  contrastStep: whole('Contrast', 1, 5),
  evenness: oneOf('Evenness', EVENNESS_STEPS),
  piecesGood: whole('Good pieces', 0, 100_000),
  faults: array().of(oneOf('Fault', FAULTS)).defined().default([]),
  tests: array().of(durability).defined().default([]),
  note: note('Note'),
}).noUnknown();
export type CreateJudgement = InferType<typeof createJudgement>;

export interface Cleaning extends CreateCleaning {
  readonly at: string;
  readonly by: string;
}
export interface Judgement extends CreateJudgement {
  readonly at: string;
  readonly by: string;
}

/** A run with what followed it: one record of the ledger. */
export interface LedgerRecord extends CreateRun {
  readonly at: string;
  readonly by: string;
  readonly ticketNumber: number;
  readonly ticketTitle: string;
  readonly substrateId: string;
  readonly substrateName: string;
  readonly compoundId: string | null;
  readonly compoundName: string | null;
  readonly headId: string;
  readonly headName: string;
  readonly lensName: string;
  readonly pins: Pins;
  readonly powerPercent: number | null;
  readonly powerW: number | null;
  readonly speedMmPerS: number | null;
  readonly intervalMm: number;
  readonly dose: Figure | null;
  readonly grade: Grade;
  readonly correctedById: string | null;
  readonly cleaning: Cleaning | null;
  readonly judgement: Judgement | null;
}

export interface LedgerPage {
  readonly records: readonly LedgerRecord[];
  readonly next: string | null;
}

export const ledgerQuery = object({
  substrateId: string().optional(),
  compoundId: string().optional(),
  headId: string().optional(),
  ticketId: string().optional(),
  grade: string()
    .oneOf([...GRADES])
    .optional(),
  judged: string().oneOf(['yes', 'no']).optional(),
  from: string().optional(),
  to: string().optional(),
  cursor: string().optional(),
  limit: number().integer().min(1).max(500).optional(),
});
export type LedgerQuery = InferType<typeof ledgerQuery>;

/** A ledger file brought back: the text of a CSV or JSON export. */
export const importLedger = object({
  format: oneOf('Format', ['csv', 'json'] as const),
  text: text('File', 40_000_000),
}).noUnknown();
export interface ImportReport {
  readonly created: number;
  readonly unchanged: number;
  readonly problems: readonly { readonly line: number; readonly message: string }[];
}
