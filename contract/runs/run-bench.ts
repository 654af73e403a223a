import { type InferType } from 'yup';
import { FOCUS_METHODS } from '@unto/core';
import { figure } from '../evidence/index.js';
import { amount, list, orNull, record, uuid, word, words } from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

/** What lay under the beam as a run was logged, frozen with it; null where nothing of it was kept. */
export const runBench = record({
  /** The coat that was fired: the newest that was weighed and stands. */
  coat: orNull(
    record({
      weighingId: uuid(),
      laidG: amount(),
      pieces: amount(),
      film: figure(),
      /** From its clock’s start to its end; null where nobody clocked it. */
      driedS: orNull(amount()),
      container: words(),
      lot: words(),
    }),
  ),
  /** The height that was found best, mm, and how it was set. */
  focus: record({ foundMm: orNull(amount()), setBy: orNull(word(FOCUS_METHODS)) }),
  blank: orNull(record({ id: uuid(), name: words(), supplier: words(), grade: words(), lot: words() })),
  /** Coupons that its recipe rests on, with the picture that was read last. */
  coupons: list(record({ id: uuid(), code: words(), pictureId: orNull(uuid()) })),
});
export type RunBench = Frozen<InferType<typeof runBench>>;
