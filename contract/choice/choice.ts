import { string, type InferType, type Schema } from 'yup';
import {
  CRITERIA,
  METHODS,
  type CompoundJudgement,
  type Criterion,
  type CriterionEstimate,
  type Weights,
} from '@unto/core';
import { figure } from '../evidence/index.js';
import {
  amount,
  byKey,
  describes,
  flag,
  gradeWord,
  instant,
  list,
  note,
  orNull,
  record,
  shape,
  uuid,
  who,
  whole,
  word,
  words,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';
import { weightFields } from '../inventory/shelf-bodies.js';

/** Takes an option for a ticket under some weights; the server ranks again and freezes what it finds. */
export const createChoice = shape({
  id: uuid().label('id'),
  version: whole('Version of the ticket', 1, 1e9),
  optionId: string().label('Option').required('Choose an option.').max(80),
  profileId: uuid().label('Profile').nullable().defined().default(null),
  weights: shape(weightFields),
  reason: note('Reason for the choice', 1000),
});
export type CreateChoice = Omit<Frozen<InferType<typeof createChoice>>, 'weights'> & { readonly weights: Weights };

const reason = record({ code: words(), hard: flag(), text: words(), grade: gradeWord(), favourable: flag() });
const verdict = describes<CompoundJudgement>()(
  record({ verdict: word(['offered', 'warned', 'blocked']), reasons: list(reason) }),
);
const byCriterion = <S extends Schema>(of: S) =>
  record(Object.fromEntries(CRITERIA.map((criterion) => [criterion, of])) as Record<Criterion, S>);
const estimate = describes<CriterionEstimate>()(
  record({
    criterion: word(CRITERIA),
    figure: orNull(figure()),
    low: amount(),
    high: amount(),
    sd: amount(),
    wanted: string().optional(),
  }),
);

/** An option of a ticket: a compound on the shelf, or the beam alone; `id` is the compound's or the method's word. */
export const choiceOption = record({
  id: words(),
  name: words(),
  estimates: byCriterion(estimate),
  method: word(METHODS),
  compoundId: orNull(uuid()),
  about: words(),
  judgement: verdict,
  /** Scrubbed coupons of this pairing. */
  coupons: amount(),
  /** Judged runs it rests on here, and nearby. */
  runs: amount(),
  runsNear: amount(),
  /** Compound for one piece, g in the container. */
  gramsPerPiece: orNull(amount()),
  /** Taken against its label or usual practice, not proved here. */
  offLabel: flag(),
});
export type ChoiceOptionView = Frozen<InferType<typeof choiceOption>>;

/** A method of the trade for this part and head, whether the shelf has something for it or not. */
export const methodView = record({
  method: word(METHODS),
  about: words(),
  judgement: verdict,
  /** Compounds on the shelf that are of this kind. */
  compounds: list(words()),
  /** Other heads of this shop under which it would not be withheld. */
  elsewhere: list(words()),
});
export type MethodView = Frozen<InferType<typeof methodView>>;

/** One option as it stood when a choice was taken. */
const frozenScore = record({
  optionId: words(),
  name: words(),
  rank: amount(),
  score: amount(),
  low: amount(),
  high: amount(),
  wins: amount(),
  points: byCriterion(amount()),
});
export type FrozenScore = Frozen<InferType<typeof frozenScore>>;

/** A choice taken, with everything needed to make its ranking again. */
export const choice = record({
  id: uuid(),
  optionId: words(),
  profileId: orNull(uuid()),
  weights: shape(weightFields),
  reason: words(),
  ticketId: uuid(),
  method: word(METHODS),
  compoundId: orNull(uuid()),
  offLabel: flag(),
  modelVersion: amount(),
  seed: amount(),
  scores: list(frozenScore),
  /** `factor` is null where the criterion counts nothing now, so that no multiple of its weight would do. */
  switching: list(record({ criterion: word(CRITERIA), to: words(), factor: orNull(amount()), weight: amount() })),
  at: instant(),
  by: who(),
});
export type Choice = Frozen<InferType<typeof choice>>;

/** What Choose shows: every option with its evidence, every method with its reasons. */
export const choicePage = record({
  seed: amount(),
  modelVersion: amount(),
  options: list(choiceOption),
  methods: list(methodView),
  /** Compound used over the last year, g and cm² coated, by compound. */
  yearlyUse: byKey(record({ grams: amount(), areaCm2: amount() })),
  /** Compound on the shelf in containers not past their date, g, by compound. */
  stock: byKey(amount()),
  /** The blank that the price of a piece counts, if one is on the shelf. */
  blank: orNull(record({ id: uuid(), name: words(), priceMinor: amount() })),
  choices: list(choice),
});
export type ChoicePage = Frozen<InferType<typeof choicePage>>;
