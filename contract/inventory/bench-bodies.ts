import { array } from 'yup';
import { monotoneCurve, POWER_UNITS, SPEED_UNITS, WAVELENGTH_CLASSES } from '@unto/core';
import {
  day,
  notNegative,
  oneOf,
  optionalNumber,
  positive,
  share,
  shape,
  text,
  uuid,
  within,
} from '../fields/index.js';
import { ofKind } from './of-kind.js';

/** Where a lens's spot comes from: metered here, read off a data sheet, or worked out from beam, wavelength and focal length. */
export const SPOT_SOURCES = ['measured', 'stated', 'worked out'] as const;

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

export const machineBody = ofKind({
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
    .of(shape({ dial: positive('Dial'), mmPerS: positive('Speed', 'mm/s') }))
    .label('Dial table')
    .defined()
    .default([])
    .max(100, 'A dial has at most 100 rows.')
    .test('rises', risingTable('dial table', 'dial', 'mmPerS') as never),
  fullScaleS: positive('S at full power'),
  laserMinorPerMinute: notNegative('Laser rate', 'per minute'),
});

export const headBody = ofKind({
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
  pulseNsMin: optionalNumber('Shortest pulse', 'ns'),
  pulseNsMax: optionalNumber('Longest pulse', 'ns'),
  beamDiameterMm: optionalNumber('Beam into the lens', 'mm'),
  eyewear: text('Eyewear', 300),
});

export const lensBody = ofKind({
  name: text('Name'),
  headId: uuid().label('Head'),
  focalLengthMm: positive('Focal length', 'mm'),
  spotXMm: positive('Spot width (1/e²)', 'mm'),
  spotYMm: positive('Spot height (1/e²)', 'mm'),
  spotSource: oneOf('Spot is', SPOT_SOURCES),
  depthOfFocusMm: positive('Depth of focus, ±', 'mm'),
  depthGrowth: share('Spot growth at that depth', 0.005, 1),
});

export const calibrationBody = shape({
  name: text('Name'),
  headId: uuid().label('Head'),
  meteredOn: day('Metered on').required(),
  rows: array()
    .of(shape({ percent: within('Percent', 0, 100, '%'), watts: notNegative('Watts', 'W') }))
    .label('Calibration rows')
    .required()
    .min(2, 'A calibration needs at least two rows.')
    .max(100, 'A calibration has at most 100 rows.')
    .test('rises', risingTable('The calibration', 'percent', 'watts') as never),
});
