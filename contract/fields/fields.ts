import { array, boolean, number, object, string, type ObjectShape } from 'yup';
import {
  FILM_UNITS,
  INTERVAL_UNITS,
  intervalToMm,
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
import { isWritten } from './fit.js';
import { rangeOf } from './ranges.js';

/** A record with these fields and no others, which must be there; where it may not, `nullable` or `optional` says so. */
export const shape = <S extends ObjectShape>(fields: S) =>
  object(fields)
    .noUnknown()
    .required(({ label, path }: { label?: string; path: string }) => `${label ?? path} is missing.`);

/** A client-made identifier, where one may be left out. */
export const optionalUuid = () =>
  string().matches(/^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/, {
    message: '${label} must be a UUID in lower case.',
    excludeEmptyString: false,
  });

/** A client-made identifier. */
export const uuid = () => optionalUuid().required();

/** Text that a person can have written: no control characters but tab and new line, no half of a character. */
const written = (label: string) =>
  string()
    .label(label)
    .test(
      'written',
      `${label} holds characters that cannot be written or shown.`,
      (value) => !value || isWritten(value),
    );

/** Text a person must give, with its own message when it is empty. */
export const text = (label: string, max = 200) =>
  written(label)
    .required(`${label} is missing.`)
    .test('not-blank', `${label} is missing.`, (value) => value == null || value === '' || value.trim() !== '')
    .max(max, `${label} is longer than ${max} characters.`);

/** Text that may stay empty. */
export const note = (label: string, max = 4000) =>
  written(label).max(max, `${label} is longer than ${max} characters.`).defined().default('');

/** A finite number within what its unit can be; `unit` is shown beside the field. */
const numeric = (label: string, unit: string) => {
  const { most } = rangeOf(unit);
  return number()
    .label(label)
    .meta({ unit })
    .typeError(`${label} must be a number.`)
    .test('finite', `${label} must be a number.`, (value) => value == null || Number.isFinite(value))
    .min(-most, `${label} must be at least ${inUnit(-most, unit)}.`)
    .max(most, `${label} must be at most ${inUnit(most, unit)}.`);
};

const inUnit = (value: number, unit: string) => (unit ? `${value} ${unit}` : String(value));

/** Any number, within what its unit can be. */
export const finite = (label: string, unit = '') => numeric(label, unit).required(`${label} is missing.`);

export const positive = (label: string, unit = '') => {
  const { least } = rangeOf(unit);
  return finite(label, unit)
    .moreThan(0, `${label} must be above 0.`)
    .test('least', `${label} must be at least ${inUnit(least, unit)}.`, (value) => !(value! > 0 && value! < least));
};

export const notNegative = (label: string, unit = '') => finite(label, unit).min(0, `${label} cannot be negative.`);

export const within = (label: string, low: number, high: number, unit = '') =>
  finite(label, unit).min(low, `${label} must be at least ${low}.`).max(high, `${label} must be at most ${high}.`);

/** A share as a fraction, which people type in percent as well. */
export const share = (label: string, low: number, high: number) =>
  within(label, low, high).meta({ unit: '', share: true });

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
  array().of(oneOf(label, values)).label(label).max(values.length).defined().default([]);

export const yes = (label: string) => boolean().label(label).required(`${label} is missing.`);

/** A calendar day, YYYY-MM-DD. */
export const day = (label: string) =>
  string()
    .label(label)
    .meta({ day: true })
    .matches(/^\d{4}-\d{2}-\d{2}$/, `${label} must be a date like 2026-03-01.`)
    .test('real', `${label} is not a day of the calendar.`, (value) => value == null || isDay(value));

/** A day that there is, of the years 1900 to 2199; Date alone takes 30 February for 2 March. */
function isDay(value: string): boolean {
  const time = Date.parse(`${value}T00:00:00Z`);
  return (
    /^(19|20|21)\d\d-\d\d-\d\d$/.test(value) && !Number.isNaN(time) && new Date(time).toISOString().startsWith(value)
  );
}

const MOMENT = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d{1,9})?)?(Z|[+-]\d{2}:\d{2})$/;
const isMoment = (value: string) => MOMENT.test(value) && isDay(value.slice(0, 10)) && !Number.isNaN(Date.parse(value));

/** A moment, ISO 8601 with zone. */
export const moment = (label: string) =>
  string()
    .label(label)
    .max(40)
    .test('moment', `${label} must be a time.`, (value) => value == null || isMoment(value));

/** Where a span of time begins or ends: a moment, or a day for its first instant in UTC. */
export const dayOrMoment = (label: string) =>
  string()
    .label(label)
    .max(40)
    .test('when', `${label} must be a date or a time.`, (value) => value == null || isDay(value) || isMoment(value));

/** A value as it was entered, with its unit. */
export interface Entered<U extends string> {
  readonly value: number;
  readonly unit: U;
}

const entered = <U extends string>(label: string, units: readonly U[]) =>
  shape({ value: positive(label), unit: oneOf(`Unit of ${label.toLowerCase()}`, units) });

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
export const enteredInterval = () =>
  entered<IntervalUnit>('Interval', INTERVAL_UNITS).test('in-mm', 'Interval', (interval, context) => {
    if (!(interval?.value > 0) || !INTERVAL_UNITS.includes(interval.unit)) return true;
    const mm = intervalToMm(interval.value, interval.unit);
    const { least, most } = rangeOf('mm');
    const message = `Interval must be from ${least} to ${most} mm.`;
    return (mm >= least && mm <= most) || context.createError({ path: `${context.path}.value`, message });
  });
export const enteredMass = (label: string) =>
  shape({
    value: notNegative(label, 'g'),
    unit: oneOf<MassUnit>(`Unit of ${label.toLowerCase()}`, MASS_UNITS),
  });

export const outcome = () => oneOf('Outcome', OUTCOMES);

/** A number of 0 or more that may be left out (null). */
export const optionalNumber = (label: string, unit = '') =>
  numeric(label, unit).min(0, `${label} cannot be negative.`).nullable().defined().default(null);

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
export const pictureSpot = shape({ x: finite('x', 'px'), y: finite('y', 'px') });

/** A file kept by the server, named by the hash of its content; null for none. */
export const storedFile = (label: string) =>
  shape({
    hash: keptHash(label),
    name: text('File name', 200),
  })
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
  shape({
    units: shape({
      power: oneOf('Power on its panel', POWER_UNITS),
      speed: oneOf('Speed on its panel', SPEED_UNITS),
      interval: oneOf('Unit of the interval', INTERVAL_UNITS),
      length: oneOf('Unit of lengths', LENGTH_UNITS),
      film: oneOf('Unit of the film', FILM_UNITS),
      mass: oneOf('Unit of mass', MASS_UNITS),
    }),
    scale: shape({
      ratedW: positive('Rated power', 'W').nullable().default(null),
      topSpeedMmPerS: positive('Top speed', 'mm/s').nullable().default(null),
      dialTable: array()
        .of(shape({ x: finite('Dial'), y: positive('Speed', 'mm/s') }))
        .max(100, 'A dial has at most 100 rows.')
        .nullable()
        .default(null),
    }),
  });
