import { array, object, type InferType } from 'yup';
import { SUBSTRATE_FAMILIES, WAVELENGTH_CLASSES } from '@unto/core';
import {
  amount,
  day,
  instant,
  note,
  oneOf,
  optionalNumber,
  orNull,
  pageQuery,
  record,
  shape,
  text,
  uuid,
  who,
  whole,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';
import { keptSetting, statedParts } from '../setting/index.js';

export const PAST_OUTCOMES = ['held', 'partly', 'lost'] as const;
export type PastOutcome = (typeof PAST_OUTCOMES)[number];

/** A run of before the record began, as far as somebody wrote it down. */
const pastRun = shape({
  on: day('Day').nullable().defined().default(null),
  pieces: whole('Pieces', 1, 100_000).nullable().defined().default(null),
  minutes: optionalNumber('Minutes', 'min'),
  outcome: oneOf('How it came out', PAST_OUTCOMES).nullable().defined().default(null),
});
export type PastRun = Frozen<InferType<typeof pastRun>>;

const statedFields = {
  id: uuid().label('id'),
  title: text('What it marks', 160),
  family: oneOf('Material', SUBSTRATE_FAMILIES),
  wavelengthClass: oneOf('Beam', WAVELENGTH_CLASSES),
  /** What was laid on, by its name or its kind as it was called; empty where nothing was, or nobody said. */
  compound: note('Compound', 120),
  ratedW: optionalNumber('Rated power of that head', 'W'),
  topSpeedMmPerS: optionalNumber('Top speed of that head', 'mm/s'),
  ...statedParts,
  source: text('Who says so', 200),
  note: note('Note', 1000),
  /** Of which run it is; null where it is only said to work. */
  past: pastRun.nullable().optional(),
};

/** A setting somebody stated: a label, a data sheet, an old note. Kept in the units it came in. */
export const createStatedSetting = shape(statedFields);
export type CreateStatedSetting = Frozen<InferType<typeof createStatedSetting>>;

/** An old sheet brought in: all of it, or nothing. */
export const createStatedSettings = shape({
  settings: array()
    .of(createStatedSetting)
    .label('Settings')
    .required()
    .min(1, 'There is nothing to keep.')
    .max(500, 'At most 500 settings are kept at once.'),
});
export type CreateStatedSettings = Frozen<InferType<typeof createStatedSettings>>;

/** A stated setting with what can be said of it in core units; null where that cannot be known. */
export const statedSetting = record({
  ...statedFields,
  past: orNull(pastRun),
  ...keptSetting,
  doseJPerMm2: orNull(amount()),
  at: instant(),
  by: who(),
});
export type StatedSetting = Frozen<InferType<typeof statedSetting>>;

export const listStatedSettingsQuery = object(pageQuery);
