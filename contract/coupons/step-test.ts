import { type InferType } from 'yup';
import { STEP_TEST_OUTCOMES } from '@unto/core';
import { amount, instant, note, oneOf, record, shape, uuid, who, word, words } from '../fields/index.js';
import type { Frozen } from '../routing/index.js';
import { coreSetting, keptSetting } from '../setting/index.js';
import { revisions } from './coupons.js';

/** A tiny cell fired on the piece itself, rinsed and scrubbed. Appended, never changed. */
export const createTestStep = shape({
  id: uuid().label('id'),
  ...coreSetting,
  outcome: oneOf('Outcome', STEP_TEST_OUTCOMES),
  note: note('Where', 300),
});
export type CreateTestStep = Frozen<InferType<typeof createTestStep>>;

export const keptTestStep = record({
  id: uuid(),
  ...keptSetting,
  powerPercent: amount(),
  powerW: amount(),
  speedMmPerS: amount(),
  intervalMm: amount(),
  outcome: word(STEP_TEST_OUTCOMES),
  note: words(),
  revisions,
  at: instant(),
  by: who(),
});
export type KeptTestStep = Frozen<InferType<typeof keptTestStep>>;
