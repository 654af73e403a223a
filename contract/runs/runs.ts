import { array, object, string, type InferType } from 'yup';
import { FAULTS, GRADES, SWITCH_STATES } from '@unto/core';
import {
  amount,
  dayOrMoment,
  gradeWord,
  instant,
  list,
  note,
  notNegative,
  oneOf,
  optionalOneOf,
  optionalUuid,
  orNull,
  page,
  pageQuery,
  positive,
  record,
  shape,
  text,
  uuid,
  who,
  whole,
  word,
  words,
  yes,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';
import { revisions } from '../coupons/coupons.js';
import { runBench } from './run-bench.js';
import { enteredSetting, keptSetting } from '../setting/index.js';
import { figure } from '../evidence/index.js';

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
  'ultrasonic bath',
  'dishwasher',
] as const;
/** Where the water went that carried the coat off. */
export const RINSE_WATER = ['collected', 'down the drain'] as const;
export const RESIDUES = ['none', 'trace', 'some', 'heavy'] as const;

/** The whole setting of a run as its panel shows it; how the air stood is always said. */
export const runSetting = { ...enteredSetting, air: oneOf('Air assist', SWITCH_STATES) };

/** Where the minutes of a run come from: a clock somebody read, the count of its pieces, or only the plan. */
export const MINUTES_FROM = ['typed', 'counted', 'planned'] as const;

const runFields = {
  pieces: whole('Pieces', 1, 100_000),
  ...runSetting,
  minutes: positive('Minutes', 'min').max(10_000, 'Minutes must be at most 10000.'),
  note: note('Note'),
  /** Why it was run though a station was still open; empty where none was. */
  reason: note('Why all the same', 500),
};

/** A run on pieces of a ticket. */
export const createRun = shape({
  id: uuid().label('id'),
  ticketId: uuid().label('Ticket'),
  recipeId: uuid().label('Recipe').nullable().defined().default(null),
  /** The blank on the shelf that the pieces are; null where nobody says. */
  blankId: uuid().label('Blank').nullable().optional(),
  correctsId: uuid().label('Corrected run').nullable().defined().default(null),
  /** The rework that it does; null, or left out, for pieces made for the first time. */
  reworkId: uuid().label('Rework').nullable().optional(),
  /** Planned where nobody timed it: kept as planned, never as a reading. */
  minutesFrom: string().oneOf(['typed', 'planned']).optional(),
  ...runFields,
});
export type CreateRun = Frozen<InferType<typeof createRun>>;

export const createCleaning = shape({
  id: uuid().label('id'),
  method: oneOf('Method', CLEANING_METHODS),
  minutes: notNegative('Minutes', 'min').max(1000, 'Minutes must be at most 1000.'),
  residue: oneOf('Residue', RESIDUES),
  /** Where it is left: at the rollers' line of a round part, in corners. */
  residueAt: text('Where residue is left', 200).nullable().optional(),
  rinseWater: optionalOneOf('Rinse water', RINSE_WATER).optional(),
});
export type CreateCleaning = Frozen<InferType<typeof createCleaning>>;

const durability = shape({
  test: oneOf('Test', DURABILITY_TESTS),
  result: oneOf('Result', DURABILITY_RESULTS),
});

export const createJudgement = shape({
  id: uuid().label('id'),
  contrastStep: whole('Contrast', 1, 5),
  /** Steps of the printed scale between bare ground and mark; null where nobody held it beside them. */
  stepsApart: whole('Printed steps', 0, 10).nullable().optional(),
  evenness: oneOf('Evenness', EVENNESS_STEPS),
  piecesGood: whole('Good pieces', 0, 100_000),
  faults: array().of(oneOf('Fault', FAULTS)).max(FAULTS.length).defined().default([]),
  tests: array().of(durability).max(50).defined().default([]),
  note: note('Note'),
});
export type CreateJudgement = Frozen<InferType<typeof createJudgement>>;

export const cleaning = record({
  id: uuid(),
  method: word(CLEANING_METHODS),
  minutes: amount(),
  residue: word(RESIDUES),
  residueAt: orNull(words()).optional(),
  rinseWater: orNull(word(RINSE_WATER)).optional(),
  at: instant(),
  by: who(),
});
export type Cleaning = Frozen<InferType<typeof cleaning>>;
/** What one way of cleaning came to on a compound and substrate. */
export const cleaningAdvice = record({
  method: word(CLEANING_METHODS),
  runs: amount(),
  /** Runs it left without residue. */
  clean: amount(),
  minutesPerPiece: amount(),
  /** Of the mean, 90 of 100; null of fewer than two runs. */
  low: orNull(amount()),
  high: orNull(amount()),
});
export type CleaningAdvice = Frozen<InferType<typeof cleaningAdvice>>;
export const judgement = record({
  id: uuid(),
  contrastStep: amount(),
  stepsApart: orNull(amount()).optional(),
  evenness: word(EVENNESS_STEPS),
  piecesGood: amount(),
  faults: list(word(FAULTS)),
  tests: list(durability),
  note: words(),
  at: instant(),
  by: who(),
});
export type Judgement = Frozen<InferType<typeof judgement>>;

/** A run with what followed it: one record of the ledger. */
export const ledgerRecord = record({
  id: uuid(),
  ticketId: uuid(),
  recipeId: orNull(uuid()),
  correctsId: orNull(uuid()),
  ...runFields,
  minutesFrom: word(MINUTES_FROM),
  at: instant(),
  by: who(),
  ticketNumber: amount(),
  ticketTitle: words(),
  substrateId: uuid(),
  substrateName: words(),
  compoundId: orNull(uuid()),
  compoundName: orNull(words()),
  headId: uuid(),
  headName: words(),
  lensName: words(),
  revisions,
  ...keptSetting,
  air: orNull(word(SWITCH_STATES)),
  intervalMm: amount(),
  dose: orNull(figure()),
  grade: gradeWord(),
  /** Why the grade is no better, in words. */
  because: list(words()),
  /** What lay under the beam; null for runs of before it was kept. */
  bench: orNull(runBench),
  correctedById: orNull(uuid()),
  cleaning: orNull(cleaning),
  judgement: orNull(judgement),
});
export type LedgerRecord = Frozen<InferType<typeof ledgerRecord>>;

export const ledgerPage = page(ledgerRecord);
export type LedgerPage = Frozen<InferType<typeof ledgerPage>>;

/** What the ledger is filtered by. */
const ledgerFilterFields = {
  substrateId: optionalUuid(),
  compoundId: optionalUuid(),
  headId: optionalUuid(),
  ticketId: optionalUuid(),
  operatorId: optionalUuid(),
  /** Of the can, and of the blanks. */
  canLot: string().max(60).optional(),
  blankLot: string().max(60).optional(),
  grade: string()
    .oneOf([...GRADES])
    .optional(),
  judged: string().oneOf(['yes', 'no', 'faulty']).optional(),
  from: dayOrMoment('From').optional(),
  to: dayOrMoment('To').optional(),
  /** Words that are all in it, each as it begins. */
  text: string().max(200).optional(),
};
export const ledgerQuery = object({ ...ledgerFilterFields, ...pageQuery });
export const ledgerTrendQuery = object(ledgerFilterFields);
export type LedgerQuery = Frozen<InferType<typeof ledgerQuery>>;

/** A filter that somebody gave a name. */
export const createLedgerFilter = shape({
  id: uuid().label('id'),
  name: text('Name', 60),
  query: shape(ledgerFilterFields).required(),
});
export type CreateLedgerFilter = Frozen<InferType<typeof createLedgerFilter>>;
export const retireLedgerFilter = shape({ retired: yes('Retired') });
export type RetireLedgerFilter = Frozen<InferType<typeof retireLedgerFilter>>;
export const ledgerFilter = record({
  id: uuid(),
  name: words(),
  query: object(ledgerFilterFields).required(),
  by: who(),
});
export type LedgerFilter = Frozen<InferType<typeof ledgerFilter>>;

/** What stands in the ledger to be filtered by: lots of cans and of blanks, the newest first. */
export const ledgerChoices = record({ canLots: list(words()), blankLots: list(words()) });

/** What a ledger's file says that it is. */
export const LEDGER_FILE = { format: 'unto-ledger', version: 1 } as const;
/** A ledger file is taken as it is, whole. */
export const MAX_LEDGER_BYTES = 256_000_000;
export const importLedgerQuery = object({ format: oneOf('Format', ['csv', 'json'] as const) });
const importProblems = list(record({ line: amount(), message: words() }));
export const importReport = record({ created: amount(), unchanged: amount(), problems: importProblems });
export type ImportReport = Frozen<InferType<typeof importReport>>;
