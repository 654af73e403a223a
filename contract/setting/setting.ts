import { array } from 'yup';
import {
  DIRECTIONS,
  FILLS,
  POWER_MODES,
  SWITCH_STATES,
  type FiringNotes,
  type MarkSetting,
  type SettingRest,
} from '@unto/core';
import {
  amount,
  describes,
  enteredInterval,
  enteredPower,
  enteredSpeed,
  finite,
  oneOf,
  optionalNumber,
  optionalOneOf,
  orNull,
  positive,
  record,
  shape,
  uuid,
  whole,
  within,
  word,
} from '../fields/index.js';

/** What was noted of the machine while it fired; null where nobody did. */
const notes = {
  powerMode: optionalOneOf('Power at turns', POWER_MODES),
  air: optionalOneOf('Air assist', SWITCH_STATES),
  extraction: optionalOneOf('Extraction', SWITCH_STATES),
};
export const firingNotes = describes<FiringNotes>()(shape(notes));

/** A pulsed head’s frequency or pulse length: above nought, or none to set. */
const pulsed = (label: string, unit: string) => optionalNumber(label, unit).moreThan(0, `${label} must be above 0.`);

/** The parts of a setting that need no panel’s scale, as they are sent. */
export const settingRest = {
  passes: whole('Passes', 1, 99),
  hatches: whole('Crossing', 1, 2),
  angleDeg: within('Hatch angle', -90, 90, '°'),
  fill: oneOf('Fill', FILLS),
  focusOffsetMm: finite('Focus offset', 'mm'),
  frequencyKHz: pulsed('Frequency', 'kHz'),
  pulseNs: pulsed('Pulse length', 'ns'),
  directions: optionalOneOf('Row directions', DIRECTIONS),
  ...notes,
};

/** A setting as it was entered: power, speed and interval in the units they were read in. */
export const enteredSetting = {
  power: enteredPower(),
  speed: enteredSpeed(),
  interval: enteredInterval(),
  ...settingRest,
};

/** A setting as somebody stated it: any of the three may be missing. */
export const statedParts = {
  ...settingRest,
  power: enteredPower().nullable().defined().default(null),
  speed: enteredSpeed().nullable().defined().default(null),
  interval: enteredInterval().nullable().defined().default(null),
};

/** A setting as it is sent in core units. */
export const coreSetting = {
  powerPercent: within('Power', 0, 100, '%').moreThan(0, 'Power must be above 0.'),
  speedMmPerS: positive('Speed', 'mm/s'),
  intervalMm: positive('Interval', 'mm'),
  ...settingRest,
};

/** The parts of a kept setting besides power, speed and interval. */
const keptRest = {
  passes: amount(),
  hatches: amount(),
  angleDeg: amount(),
  fill: word(FILLS),
  focusOffsetMm: amount(),
  frequencyKHz: orNull(amount()),
  pulseNs: orNull(amount()),
  directions: orNull(word(DIRECTIONS)),
  powerMode: orNull(word(POWER_MODES)),
  air: orNull(word(SWITCH_STATES)),
  extraction: orNull(word(SWITCH_STATES)),
};
describes<SettingRest>()(record(keptRest));

/** A kept setting in core units; null where that cannot be known. */
export const keptSetting = {
  powerPercent: orNull(amount()),
  powerW: orNull(amount()),
  speedMmPerS: orNull(amount()),
  intervalMm: orNull(amount()),
  ...keptRest,
};
describes<MarkSetting>()(record(keptSetting));

/** What was frozen when a coupon was fired. */
export const firing = record({
  ...notes,
  /** Watts at the part of every cell, in their order; null for one that cannot be fired. */
  cellW: array().of(orNull(amount())).required(),
  /** The blank it was fired on, where that is known. */
  blankId: uuid().nullable().optional(),
  /** Revisions of every compound on it. */
  compounds: array()
    .of(record({ id: uuid(), revision: uuid() }))
    .required(),
});
export type Firing = FiringNotes & {
  readonly cellW: readonly (number | null)[];
  readonly compounds: readonly { readonly id: string; readonly revision: string }[];
  readonly blankId?: string | null | undefined;
};
