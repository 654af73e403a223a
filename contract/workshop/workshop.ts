import { type InferType } from 'yup';
import { FILM_UNITS, INTERVAL_UNITS, LENGTH_UNITS, MASS_UNITS, SHOP_SPEED_UNITS } from '@unto/core';
import {
  amount,
  flag,
  notNegative,
  oneOf,
  record,
  shape,
  text,
  timeZone,
  uuid,
  whole,
  within,
  words,
  yes,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

export const createOperator = shape({
  id: uuid().label('id'),
  name: text('Name', 80),
  role: text('Role', 40),
});
export type CreateOperator = Frozen<InferType<typeof createOperator>>;
/** Renamed, or gone: who retired is picked no more, and stays beside what they did. */
export const changeOperator = shape({
  version: whole('Version', 1, 1e9),
  name: text('Name', 80),
  role: text('Role', 40),
  retired: yes('Works here no more'),
});
export type ChangeOperator = Frozen<InferType<typeof changeOperator>>;
export const operator = record({ id: uuid(), name: words(), role: words(), version: amount(), retired: flag() });
export type Operator = Frozen<InferType<typeof operator>>;

/** Settings of the whole shop. */
export const changeWorkshop = shape({
  version: whole('Version', 1, 1e9),
  name: text('Workshop', 120),
  currency: text('Currency', 8),
  labourMinorPerMinute: notNegative('Labour rate', 'per minute'),
  bound: within('Share that must hold in the worst case', 0.5, 0.99),
  tolerancePower: within('Power may drift by', 0, 0.5),
  toleranceFocusMm: within('Focus may drift by', 0, 10, 'mm'),
  /** A run stops after its first piece until that was rinsed and scrubbed. */
  firstPieceStop: yes('Stop after the first piece'),
  speedUnit: oneOf('Speed read in', SHOP_SPEED_UNITS),
  intervalUnit: oneOf('Line interval read in', INTERVAL_UNITS),
  lengthUnit: oneOf('Lengths read in', LENGTH_UNITS),
  filmUnit: oneOf('Film read in', FILM_UNITS),
  massUnit: oneOf('Mass read in', MASS_UNITS),
  timeZone: timeZone('Time zone'),
});
export type Workshop = Frozen<InferType<typeof changeWorkshop>>;
