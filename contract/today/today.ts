import type { InferType } from 'yup';
import { timer } from '../coat/index.js';
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

export const today = record({ tasks: list(todayTask), timers: list(timer), short: list(todayShort), now: instant() });
export type Today = Frozen<InferType<typeof today>>;
