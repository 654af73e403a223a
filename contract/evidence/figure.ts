import { boolean, mixed, number, string } from 'yup';
import type { Figure, RecordRef } from '@unto/core';
import { amount, describes, gradeWord, list, record, words } from '../fields/answers.js';

const recordRef = describes<RecordRef>()(record({ kind: words(), id: words(), revision: number().optional() }));

const figureInput = record({
  label: words(),
  value: mixed<number | string>((value): value is number | string =>
    ['number', 'string'].includes(typeof value),
  ).optional(),
  unit: string().optional(),
  grade: gradeWord(),
  decisive: boolean().required(),
  factor: number().optional(),
  ref: recordRef.optional().default(undefined),
});

/** Between which bounds a number lies, so many times in a hundred. */
export const interval = () => record({ low: amount(), high: amount(), level: amount() });

/** A planned, computed or read number with its unit, interval, grade, formula and what it rests on. */
export const figure = () =>
  describes<Figure>()(
    record({
      value: amount(),
      unit: words(),
      interval: interval().optional().default(undefined),
      grade: gradeWord(),
      formula: words(),
      inputs: list(figureInput),
    }),
  );
