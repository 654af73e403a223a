import type { InferType } from 'yup';
import { timer } from '../coat/index.js';
import { interval } from '../evidence/index.js';
import { flag, instant, list, orNull, record, words } from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

/** Something to do next. */
const todayTask = record({
  key: words(),
  at: orNull(instant()),
  title: words(),
  text: words(),
  action: words(),
  to: words(),
  urgent: flag(),
});
export type TodayTask = Frozen<InferType<typeof todayTask>>;

/** Something that runs short, or is past its date. */
const todayShort = record({ key: words(), what: words(), left: words(), to: words() });
export type TodayShort = Frozen<InferType<typeof todayShort>>;

/** The one measurement that would tell most of what is planned now. */
const todayMeasurement = record({
  /** What to do, and of what it would tell. */
  words: words(),
  of: words(),
  /** A planned figure as it is known now, and as it would be. */
  now: interval(),
  then: interval(),
  unit: words(),
  to: words(),
});
export type TodayMeasurement = Frozen<InferType<typeof todayMeasurement>>;

export const today = record({
  tellsMost: orNull(todayMeasurement),
  tasks: list(todayTask),
  timers: list(timer),
  short: list(todayShort),
  now: instant(),
});
export type Today = Frozen<InferType<typeof today>>;
