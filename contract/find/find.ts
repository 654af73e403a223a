import { object, string, type InferType } from 'yup';
import { instant, list, record, word, words } from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

/** Kinds of things that one field finds, in the order in which they are shown. */
export const FOUND_KINDS = ['ticket', 'coupon', 'run', 'setting', 'store', 'stated'] as const;
export type FoundKind = (typeof FOUND_KINDS)[number];

/** What is sought: words that must all be there; what changed last where there are none. */
export const findQuery = object({ q: string().max(100).optional() });
export type FindQuery = Frozen<InferType<typeof findQuery>>;

const found = record({
  kind: word(FOUND_KINDS),
  title: words(),
  text: words(),
  /** Address of its page. */
  to: words(),
  at: instant(),
});
export type Found = Frozen<InferType<typeof found>>;
export const findings = list(found);
