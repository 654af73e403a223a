import { NO_KIND, type HeadBody, type LensBody, type MachineBody } from '@unto/contract';
import type { DemoItem, Refer } from './demo-item.js';

const gantry = (name: string, rest: Partial<MachineBody>): MachineBody => ({
  ...NO_KIND,
  name,
  motion: 'gantry',
  bedWidthMm: 700,
  bedHeightMm: 500,
  topSpeedMmPerS: 600,
  accelerationMmPerS2: 5000,
  jumpDelayS: 0,
  panelPower: '%',
  panelSpeed: '%',
  dialTable: [],
  fullScaleS: 1000,
  laserMinorPerMinute: 25,
  ...rest,
});

export const MACHINES: readonly DemoItem<'machine'>[] = [
  { key: 'long-bench', kind: 'machine', body: gantry('Long bench', {}) },
  {
    key: 'annex',
    kind: 'machine',
    body: gantry('Annex bench', {
      bedWidthMm: 600,
      bedHeightMm: 400,
      topSpeedMmPerS: 400,
      accelerationMmPerS2: 4000,
      panelPower: '0-1000',
      panelSpeed: 'mm/min',
      laserMinorPerMinute: 18,
    }),
  },
  {
    key: 'small-bench',
    kind: 'machine',
    body: gantry('Small bench', {
      bedWidthMm: 390,
      bedHeightMm: 380,
      topSpeedMmPerS: 250,
      accelerationMmPerS2: 2500,
      panelSpeed: 'mm/min',
      panelPower: '0-1000',
      laserMinorPerMinute: 12,
    }),
  },
  {
    key: 'post',
    kind: 'machine',
    body: gantry('Post', {
      motion: 'galvo',
      bedWidthMm: 110,
      bedHeightMm: 110,
      topSpeedMmPerS: 7000,
      accelerationMmPerS2: 100_000,
      jumpDelayS: 0.0004,
      panelSpeed: 'mm/s',
      laserMinorPerMinute: 30,
    }),
  },
];

const NO_PULSE = { ...NO_KIND, pulseNsMin: null, pulseNsMax: null, beamDiameterMm: null };

export function heads(refer: Refer): DemoItem<'head'>[] {
  const head = (
    key: string,
    body: Omit<HeadBody, 'machineId' | keyof typeof NO_PULSE> & Partial<HeadBody>,
    machine: string,
  ): DemoItem<'head'> => ({
    key,
    kind: 'head',
    body: { ...NO_PULSE, ...body, machineId: refer(machine) },
  });
  const pulsed = {
    wavelengthClass: 'near-infrared',
    wavelengthNm: 1064,
    emission: 'pulsed',
    firingThresholdPercent: 0,
  } as const;
  return [
    head(
      'co2',
      {
        name: 'Long bench CO2',
        wavelengthClass: 'co2',
        wavelengthNm: 10_600,
        emission: 'continuous',
        ratedW: 55,
        firingThresholdPercent: 7,
        m2: 1.2,
        beamDiameterMm: 5,
        frequencyKHzMin: null,
        frequencyKHzMax: null,
        eyewear: 'the clear polycarbonate pair marked 10 600 nm',
      },
      'long-bench',
    ),
    head(
      'annex-co2',
      {
        name: 'Annex bench CO2',
        wavelengthClass: 'co2',
        wavelengthNm: 10_600,
        emission: 'continuous',
        ratedW: 38,
        firingThresholdPercent: 8,
        m2: 1.3,
        beamDiameterMm: 4,
        frequencyKHzMin: null,
        frequencyKHzMax: null,
        eyewear: 'the clear polycarbonate pair marked 10 600 nm',
      },
      'annex',
    ),
    head(
      'blue',
      {
        name: 'Small bench blue',
        wavelengthClass: 'blue',
        wavelengthNm: 455,
        emission: 'continuous',
        ratedW: 12,
        firingThresholdPercent: 0,
        m2: 8,
        frequencyKHzMin: null,
        frequencyKHzMax: null,
        eyewear: 'the orange pair marked 455 nm',
      },
      'small-bench',
    ),
    head(
      'infrared',
      {
        name: 'Small bench infrared',
        ...pulsed,
        ratedW: 3,
        m2: 1.3,
        frequencyKHzMin: 15,
        frequencyKHzMax: 60,
        eyewear: 'the green pair marked 1064 nm',
      },
      'small-bench',
    ),
    head(
      'fibre',
      {
        name: 'Post fibre',
        ...pulsed,
        ratedW: 25,
        m2: 1.5,
        frequencyKHzMin: 20,
        frequencyKHzMax: 100,
        pulseNsMin: 100,
        pulseNsMax: 100,
        eyewear: 'the green pair marked 1064 nm',
      },
      'post',
    ),
  ];
}

export function lenses(refer: Refer): DemoItem<'lens'>[] {
  const lens = (
    key: string,
    head: string,
    body: Omit<LensBody, 'headId' | 'spotSource' | keyof typeof NO_KIND> & Partial<LensBody>,
  ): DemoItem<'lens'> => ({
    key,
    kind: 'lens',
    body: { ...NO_KIND, spotSource: 'stated', ...body, headId: refer(head) },
  });
  return [
    lens('lens-38', 'co2', {
      name: '38 mm',
      focalLengthMm: 38.1,
      spotXMm: 0.123,
      spotYMm: 0.123,
      depthOfFocusMm: 0.3,
      depthGrowth: 0.05,
    }),
    lens('annex-50', 'annex-co2', {
      name: 'Annex 50.8 mm',
      focalLengthMm: 50.8,
      spotXMm: 0.22,
      spotYMm: 0.22,
      depthOfFocusMm: 0.9,
      depthGrowth: 0.05,
    }),
    lens('lens-50', 'co2', {
      name: '50.8 mm',
      focalLengthMm: 50.8,
      spotXMm: 0.165,
      spotYMm: 0.165,
      spotSource: 'worked out',
      depthOfFocusMm: 0.53,
      depthGrowth: 0.05,
    }),
    lens('lens-blue', 'blue', {
      name: 'Blue fixed lens',
      focalLengthMm: 30,
      spotXMm: 0.08,
      spotYMm: 0.1,
      depthOfFocusMm: 0.6,
      depthGrowth: 0.05,
    }),
    lens('lens-infrared', 'infrared', {
      name: 'Infrared fixed lens',
      focalLengthMm: 40,
      spotXMm: 0.03,
      spotYMm: 0.03,
      depthOfFocusMm: 0.8,
      depthGrowth: 0.1,
    }),
    lens('lens-163', 'fibre', {
      name: '163 mm',
      focalLengthMm: 163,
      spotXMm: 0.045,
      spotYMm: 0.045,
      depthOfFocusMm: 0.9,
      depthGrowth: 0.1,
    }),
  ];
}
