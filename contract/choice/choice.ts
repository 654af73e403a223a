import { object, string, type InferType } from 'yup';
import type { ChoiceOption, CompoundJudgement, Criterion, Method, SwitchingPoint, Weights } from '@unto/core';
import { note, uuid, whole } from '../fields/index.js';
import { weightFields } from '../stores/shelf-bodies.js';

/** Takes an option for a ticket under some weights; the server ranks again and freezes what it finds. */
export const createChoice = object({
  id: uuid().label('id'),
  version: whole('Version of the ticket', 1, 1e9),
  optionId: string().label('Option').required('Choose an option.').max(80),
  profileId: uuid().label('Profile').nullable().defined().default(null),
  weights: object(weightFields).noUnknown(),
  reason: note('Reason for the choice', 1000),
}).noUnknown();
export type CreateChoice = Omit<InferType<typeof createChoice>, 'weights'> & { readonly weights: Weights };

/** An option of a ticket: a compound on the shelf, or the beam alone; `id` is the compound's or the method's word. */
export interface ChoiceOptionView extends ChoiceOption {
  readonly method: Method;
  readonly compoundId: string | null;
  readonly about: string;
  readonly judgement: CompoundJudgement;
  /** Scrubbed coupons of this pairing. */
  readonly coupons: number;
  /** Judged runs it rests on here, and nearby. */
  readonly runs: number;
  readonly runsNear: number;
  /** Compound for one piece, g in the container. */
  readonly gramsPerPiece: number | null;
  /** Taken against its label or usual practice, not proved here. */
  readonly offLabel: boolean;
}

/** A method of the trade for this part and head, whether the shelf has something for it or not. */
export interface MethodView {
  readonly method: Method;
  readonly about: string;
  readonly judgement: CompoundJudgement;
  /** Compounds on the shelf that are of this kind. */
  readonly compounds: readonly string[];
  /** Other heads of this shop under which it would not be withheld. */
  readonly elsewhere: readonly string[];
}

/** One option as it stood when a choice was taken. */
export interface FrozenScore {
  readonly optionId: string;
  readonly name: string;
  readonly rank: number;
  readonly score: number;
  readonly low: number;
  readonly high: number;
  readonly wins: number;
  readonly points: Readonly<Record<Criterion, number>>;
}

/** A choice taken, with everything needed to make its ranking again. */
export interface Choice extends Omit<CreateChoice, 'version'> {
  readonly ticketId: string;
  readonly method: Method;
  readonly compoundId: string | null;
  readonly offLabel: boolean;
  readonly modelVersion: number;
  readonly seed: number;
  readonly scores: readonly FrozenScore[];
  readonly switching: readonly SwitchingPoint[];
  readonly at: string;
  readonly by: string;
}

/** What Choose shows: every option with its evidence, every method with its reasons. */
export interface ChoicePage {
  readonly seed: number;
  readonly modelVersion: number;
  readonly options: readonly ChoiceOptionView[];
  readonly methods: readonly MethodView[];
  /** Compound used over the last year, g and cm² coated, by compound. */
  readonly yearlyUse: Readonly<Record<string, { readonly grams: number; readonly areaCm2: number }>>;
  /** Compound on the shelf in containers not past their date, g, by compound. */
  readonly stock: Readonly<Record<string, number>>;
  /** The blank that the price of a piece counts, if one is on the shelf. */
  readonly blank: { readonly id: string; readonly name: string; readonly priceMinor: number } | null;
  readonly choices: readonly Choice[];
}
