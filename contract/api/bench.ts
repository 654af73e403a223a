import { object, type InferType } from 'yup';
import { MASS_UNITS } from '@unto/core';
import { notNegative, oneOf, text, uuid, whole, within } from '../fields/index.js';

export const createOperator = object({
  id: uuid().label('id'),
  name: text('Name', 80),
  role: text('Role', 40),
}).noUnknown();
export type CreateOperator = InferType<typeof createOperator>;
export type Operator = CreateOperator;

/** Settings of the whole shop. */
export const changeWorkshop = object({
  version: whole('Version', 1, 1e9),
  name: text('Workshop', 120),
  currency: text('Currency', 8),
  handsMinorPerMinute: notNegative('Hands-on rate', 'per minute'),
  bound: within('Share that must hold in the worst case', 0.5, 0.99),
  tolerancePower: within('Power may drift by', 0, 0.5),
  toleranceFocusMm: within('Focus may drift by', 0, 10, 'mm'),
  massUnit: oneOf('Mass shown in', MASS_UNITS),
}).noUnknown();
export type Workshop = InferType<typeof changeWorkshop>;

/** Something to do next. */
export interface TodayTask {
  readonly key: string;
  readonly at: string | null;
  readonly title: string;
  readonly text: string;
  readonly action: string;
  readonly to: string;
  readonly urgent: boolean;
}
export interface TodayShort {
  readonly key: string;
  readonly what: string;
  readonly left: string;
  readonly to: string;
}
export interface Today {
  readonly tasks: readonly TodayTask[];
  readonly clocks: readonly import('../coat/index.js').Clock[];
  readonly short: readonly TodayShort[];
  readonly now: string;
}
