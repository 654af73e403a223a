import { array, boolean, number, object, string } from 'yup';
import {
  FILM_UNITS,
  INTERVAL_UNITS,
  LENGTH_UNITS,
  MASS_UNITS,
  OUTCOMES,
  POWER_UNITS,
  SPEED_UNITS,
  type IntervalUnit,
  type MassUnit,
  type PowerUnit,
  type SpeedUnit,
} from '@unto/core';

/** A client-made identifier. */
export const uuid = () =>
  string()
    .matches(/^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/, {
      message: '${label} must be a UUID in lower case.',
      excludeEmptyString: false,
    })
    .required();

/** Text a person must give, with its own message when it is empty. */
export const text = (label: string, max = 200) =>
  string()
    .label(label)
    .required(`${label} is missing.`)
    .test('not-blank', `${label} is missing.`, (value) => value == null || value === '' || value.trim() !== '')
    .max(max, `${label} is longer than ${max} characters.`);

/** Text that may stay empty. */
export const note = (label: string, max = 4000) =>
  string().label(label).max(max, `${label} is longer than ${max} characters.`).defined().default('');

/** Any finite number; `unit` is shown beside the field. */
export const finite = (label: string, unit = '') =>
  number()
    .label(label)
    .meta({ unit })
    .typeError(`${label} must be a number.`)
    .required(`${label} is missing.`)
    .test('finite', `${label} must be a number.`, (value) => value == null || Number.isFinite(value));

export const positive = (label: string, unit = '') => finite(label, unit).moreThan(0, `${label} must be above 0.`);

export const notNegative = (label: string, unit = '') => finite(label, unit).min(0, `${label} cannot be negative.`);

export const within = (label: string, low: number, high: number, unit = '') =>
  finite(label, unit).min(low, `${label} must be at least ${low}.`).max(high, `${label} must be at most ${high}.`);

export const whole = (label: string, low: number, high: number) =>
  within(label, low, high).integer(`${label} must be a whole number.`);

/** One of a list of words. */
export const oneOf = <T extends string>(label: string, values: readonly T[]) =>
  string<T>()
    .label(label)
    .required(`${label} is missing.`)
    .oneOf([...values], ({ value }: { value?: unknown }) =>
      value === '' ? `${label} is missing.` : `${label} must be one of: ${values.join(', ')}.`,
    );

/** Several of a list of words. */
export const someOf = <T extends string>(label: string, values: readonly T[]) =>
  array().of(oneOf(label, values)).label(label).defined().default([]);

export const yes = (label: string) => boolean().label(label).required(`${label} is missing.`);

/** A calendar day, YYYY-MM-DD. */
export const day = (label: string) =>
  string()
    .label(label)
    .meta({ day: true })
    .matches(/^\d{4}-\d{2}-\d{2}$/, `${label} must be a date like 2026-03-01.`)
    .test(
      'real',
      `${label} is not a day of the calendar.`,
      (value) => value == null || !Number.isNaN(Date.parse(`${value}T00:00:00Z`)),
    );

/** A moment, ISO 8601 with zone. */
export const moment = (label: string) =>
  string()
    .label(label)
    .test('moment', `${label} must be a time.`, (value) => value == null || !Number.isNaN(Date.parse(value)));

/** A value as it was entered, with its unit. */
export interface Entered<U extends string> {
  readonly value: number;
  readonly unit: U;
}

const entered = <U extends string>(label: string, units: readonly U[]) =>
  object({ value: positive(label), unit: oneOf(`Unit of ${label.toLowerCase()}`, units) }).noUnknown();

export const enteredPower = () =>
  entered<PowerUnit>('Power', POWER_UNITS).test('full-scale', 'Power is above full scale.', (power, context) => {
    const top = power?.unit === '%' ? 100 : power?.unit === '0-1000' ? 1000 : Infinity;
    return (
      !power ||
      power.value <= top ||
      context.createError({ path: `${context.path}.value`, message: `Power must be at most ${top}.` })
    );
  });
export const enteredSpeed = () => entered<SpeedUnit>('Speed', SPEED_UNITS);
export const enteredInterval = () => entered<IntervalUnit>('Interval', INTERVAL_UNITS);
export const enteredMass = (label: string) =>
  object({
    value: notNegative(label, 'g'),
    unit: oneOf<MassUnit>(`Unit of ${label.toLowerCase()}`, MASS_UNITS),
  }).noUnknown();

export const outcome = () => oneOf('Outcome', OUTCOMES);

/** A number of 0 or more that may be left out (null). */
export const optionalNumber = (label: string, unit = '') =>
  number()
    .label(label)
    .meta({ unit })
    .typeError(`${label} must be a number.`)
    .min(0, `${label} cannot be negative.`)
    .nullable()
    .defined()
    .default(null);

/** One of a list of words, or none (null). */
export const optionalOneOf = <T extends string>(label: string, values: readonly T[]) =>
  string<T>()
    .label(label)
    .nullable()
    .defined()
    .default(null)
    .oneOf([...values, null], `${label} must be one of: ${values.join(', ')}.`);

/** A score of 0 to 10 that may be left out (null). */
export const optionalScore = (label: string) => optionalNumber(label, 'of 10').max(10, `${label} must be at most 10.`);

/** Name of a file kept by the server: the SHA-256 of its content in hex. */
export const keptHash = (label: string) =>
  string()
    .matches(/^[0-9a-f]{64}$/, `${label} names no kept file.`)
    .required();

/** A place in a picture, pixels. */
export const pictureSpot = object({ x: finite('x', 'px'), y: finite('y', 'px') }).noUnknown();

/** A file kept by the server, named by the hash of its content; null for none. */
export const storedFile = (label: string) =>
  object({
    hash: keptHash(label),
    name: text('File name', 200),
  })
    .noUnknown()
    .label(label)
    .nullable()
    .defined()
    .default(null);

/** Which part of a list is asked for: as many as `limit` after the cursor of the page before. */
export const pageQuery = {
  cursor: string().max(200, 'That cursor is none of ours.').optional(),
  limit: number().integer().min(1, 'Ask for one at least.').max(500, 'At most 500 are answered at once.').optional(),
};

/** A time zone by its IANA name, as this machine knows it. */
export const timeZone = (label: string) =>
  text(label, 60).test('zone', `${label} is none that is known: write it like Europe/Berlin.`, (name) => {
    try {
      return name === undefined || new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions() !== null;
    } catch {
      return false;
    }
  });

/** Units that somebody reads in, and what the panel's numbers are relative to. */
export const unitReading = () =>
  object({
    units: object({
      power: oneOf('Power on its panel', POWER_UNITS),
      speed: oneOf('Speed on its panel', SPEED_UNITS),
      interval: oneOf('Unit of the interval', INTERVAL_UNITS),
      length: oneOf('Unit of lengths', LENGTH_UNITS),
      film: oneOf('Unit of the film', FILM_UNITS),
      mass: oneOf('Unit of mass', MASS_UNITS),
    }).noUnknown(),
    scale: object({
      ratedW: positive('Rated power', 'W').nullable().default(null),
      topSpeedMmPerS: positive('Top speed', 'mm/s').nullable().default(null),
      dialTable: array()
        .of(object({ x: finite('Dial'), y: positive('Speed', 'mm/s') }).noUnknown())
        .max(100, 'A dial has at most 100 rows.')
        .nullable()
        .default(null),
    }).noUnknown(),
  }).noUnknown();
