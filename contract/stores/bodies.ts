import { array, object, type InferType } from 'yup';
import {
  COAT_HANDLINGS,
  COMPOUND_FORMS,
  monotoneCurve,
  POWER_UNITS,
  SPEED_UNITS,
  SUBSTRATE_FAMILIES,
  SURFACE_LAYERS,
  WAVELENGTH_CLASSES,
} from '@unto/core';
import {
  day,
  note,
  notNegative,
  oneOf,
  optionalNumber,
  positive,
  someOf,
  text,
  uuid,
  whole,
  within,
  yes,
} from '../fields/index.js';

/** Kinds of things a shop keeps. Each has immutable revisions. */
export const STORE_KINDS = ['machine', 'head', 'lens', 'calibration', 'compound', 'container', 'substrate'] as const;
export type StoreKind = (typeof STORE_KINDS)[number];

const risingTable =
  (name: string, x: string, y: string) =>
  (rows: unknown, context: { createError: (o: { message: string }) => Error }) => {
    const table = rows as Record<string, number>[] | null | undefined;
    if (!table?.length) return true;
    try {
      monotoneCurve(
        table.map((row) => ({ x: row[x]!, y: row[y]! })),
        name,
      );
      return true;
    } catch (error) {
      return context.createError({ message: (error as Error).message }) as never;
    }
  };

export const machineBody = object({
  name: text('Name'),
  motion: oneOf('Motion', ['gantry', 'galvo'] as const),
  bedWidthMm: positive('Bed width', 'mm'),
  bedHeightMm: positive('Bed height', 'mm'),
  topSpeedMmPerS: positive('Top speed', 'mm/s'),
  accelerationMmPerS2: positive('Acceleration', 'mm/s²'),
  jumpDelayS: notNegative('Delay per jump', 's'),
  panelPower: oneOf('Power on its panel', POWER_UNITS),
  panelSpeed: oneOf('Speed on its panel', SPEED_UNITS),
  dialTable: array()
    .of(object({ dial: positive('Dial'), mmPerS: positive('Speed', 'mm/s') }).noUnknown())
    .label('Dial table')
    .defined()
    .default([])
    .test('rises', risingTable('dial table', 'dial', 'mmPerS') as never),
  fullScaleS: positive('S at full power'),
  laserMinorPerMinute: notNegative('Laser rate', 'per minute'),
}).noUnknown();

export const headBody = object({
  name: text('Name'),
  machineId: uuid().label('Machine'),
  wavelengthClass: oneOf('Wavelength class', WAVELENGTH_CLASSES),
  wavelengthNm: within('Wavelength', 100, 20000, 'nm'),
  emission: oneOf('Emission', ['continuous', 'pulsed'] as const),
  ratedW: positive('Rated power', 'W'),
  firingThresholdPercent: within('Fires from', 0, 99, '%'),
  m2: within('Beam quality M²', 1, 100),
  frequencyKHzMin: optionalNumber('Lowest frequency', 'kHz'),
  frequencyKHzMax: optionalNumber('Highest frequency', 'kHz'),
  eyewear: text('Eyewear', 300),
}).noUnknown();

export const lensBody = object({
  name: text('Name'),
  headId: uuid().label('Head'),
  focalLengthMm: positive('Focal length', 'mm'),
  spotXMm: positive('Spot width (1/e²)', 'mm'),
  spotYMm: positive('Spot height (1/e²)', 'mm'),
  depthOfFocusMm: positive('Depth of focus, ±', 'mm'),
  depthGrowth: within('Spot growth at that depth', 0.005, 1),
}).noUnknown();

export const calibrationBody = object({
  name: text('Name'),
  headId: uuid().label('Head'),
  meteredOn: day('Metered on').required(),
  rows: array()
    .of(object({ percent: within('Percent', 0, 100, '%'), watts: notNegative('Watts', 'W') }).noUnknown())
    .label('Calibration rows')
    .required()
    .min(2, 'A calibration needs at least two rows.')
    .test('rises', risingTable('The calibration', 'percent', 'watts') as never),
}).noUnknown();

export const compoundBody = object({
  name: text('Name'),
  form: oneOf('Form', COMPOUND_FORMS),
  colour: text('Colour', 60),
  statedBeams: someOf('Beams its maker names', WAVELENGTH_CLASSES),
  statedFamilies: someOf('Materials its maker names', SUBSTRATE_FAMILIES),
  containsPtfe: yes('Holds PTFE'),
  solventBased: yes('Solvent-based'),
  handling: oneOf('Dry coat', COAT_HANDLINGS),
  bandLowUm: positive('Dry film from', 'µm'),
  bandHighUm: positive('Dry film to', 'µm').test(
    'rises',
    'The coat band must rise: its thick end lies below its thin end.',
    (value, { parent }) => !(value <= parent.bandLowUm),
  ),
  coats: whole('Coats', 1, 10),
  distanceMinMm: positive('Distance from', 'mm'),
  distanceMaxMm: positive('Distance to', 'mm'),
  shakeS: notNegative('Shake', 's'),
  dryS: positive('Dry by itself', 's'),
  shelfLifeDays: optionalNumber('A dry coat keeps', 'days'),
  volumeSolids: within('Solids by volume, wet film', 0.001, 1),
  massSolids: within('Solids by mass, as it leaves the container', 0.001, 1),
  dryDensity: positive('Dry density', 'g/cm³'),
  thinnerRatio: notNegative('Thinner per part', 'parts'),
  thinnerDensityRatio: positive('Thinner ÷ compound density'),
  cleaning: text('Cleaning', 300),
  hazards: note('Hazards'),
  sizes: array()
    .of(
      object({
        label: text('Size', 40),
        netG: positive('Net contents', 'g'),
        priceMinor: whole('Price', 0, 100_000_000),
      }).noUnknown(),
    )
    .label('Container sizes')
    .required()
    .min(1, 'Name at least one container size with its price.'),
}).noUnknown();

export const containerBody = object({
  name: text('Name'),
  compoundId: uuid().label('Compound'),
  lot: text('Lot', 60),
  openedOn: day('Opened on').nullable().defined().default(null),
  expiresOn: day('Use by').nullable().defined().default(null),
  tareG: positive('Empty container', 'g'),
  netG: positive('Net contents', 'g'),
  priceMinor: whole('Price', 0, 100_000_000),
}).noUnknown();

export const substrateBody = object({
  name: text('Name'),
  family: oneOf('Family', SUBSTRATE_FAMILIES),
  layer: oneOf('Surface layer', SURFACE_LAYERS),
  finish: text('Finish', 100),
  thicknessMm: positive('Thickness', 'mm'),
  conductivity: positive('Thermal conductivity', 'W/(mm·K)'),
  diffusivity: positive('Thermal diffusivity', 'mm²/s'),
  thermalSource: text('Source of the thermal values', 200),
  curvature: note('Curvature', 100),
}).noUnknown();

/** The schema of each kind's body. */
export const STORE_BODIES = {
  machine: machineBody,
  head: headBody,
  lens: lensBody,
  calibration: calibrationBody,
  compound: compoundBody,
  container: containerBody,
  substrate: substrateBody,
} as const;

export type MachineBody = InferType<typeof machineBody>;
export type HeadBody = InferType<typeof headBody>;
export type LensBody = InferType<typeof lensBody>;
export type CalibrationBody = InferType<typeof calibrationBody>;
export type CompoundBody = InferType<typeof compoundBody>;
export type ContainerBody = InferType<typeof containerBody>;
export type SubstrateBody = InferType<typeof substrateBody>;

export interface StoreBodyOf {
  machine: MachineBody;
  head: HeadBody;
  lens: LensBody;
  calibration: CalibrationBody;
  compound: CompoundBody;
  container: ContainerBody;
  substrate: SubstrateBody;
}

/** A store item with the body of its newest revision. */
export interface StoreItem<K extends StoreKind = StoreKind> {
  readonly id: string;
  readonly kind: K;
  readonly version: number;
  readonly retired: boolean;
  readonly revisionId: string;
  readonly revision: number;
  readonly body: StoreBodyOf[K];
  readonly changedAt: string;
  readonly changedBy: string;
}

/** References from one kind to another, by field. */
export const STORE_LINKS: Partial<Record<StoreKind, { field: string; kind: StoreKind }>> = {
  head: { field: 'machineId', kind: 'machine' },
  lens: { field: 'headId', kind: 'head' },
  calibration: { field: 'headId', kind: 'head' },
  container: { field: 'compoundId', kind: 'compound' },
};
