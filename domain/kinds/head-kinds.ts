import { depthOfFocus, rayleighRange, spotDiameter } from '@unto/core';
import type { ShelfKind, Usual } from './usual.js';

/** A kind of head with the machine it usually stands on and the lenses it is usually sold with. */
export interface HeadKind extends ShelfKind<'head'> {
  readonly machine: Usual<'machine'>;
  readonly lenses: readonly ShelfKind<'lens'>[];
}

/** All values of this file: common practice, no source, but what is worked out from them. */
const RATE = { dialTable: [], fullScaleS: 1000, laserMinorPerMinute: 20 };
const NO_PULSE = { frequencyKHzMin: null, frequencyKHzMax: null, pulseNsMin: null, pulseNsMax: null };
/** Nobody can say what hangs on the hook: only what it must be rated for. */
const eyewearFor = (nm: number) =>
  `a pair rated for ${nm} nm at this power by its own marking (which one is not named yet)`;

interface Bench {
  readonly bedMm: readonly [width: number, height: number];
  readonly topMmPerS: number;
  readonly accelerationMmPerS2: number;
}

const gantry = ({ bedMm, topMmPerS, accelerationMmPerS2 }: Bench, panel: Partial<Usual<'machine'>> = {}) => ({
  motion: 'gantry' as const,
  bedWidthMm: bedMm[0],
  bedHeightMm: bedMm[1],
  topSpeedMmPerS: topMmPerS,
  accelerationMmPerS2,
  jumpDelayS: 0,
  panelPower: '%' as const,
  panelSpeed: 'mm/s' as const,
  ...RATE,
  ...panel,
});

const galvo = (fieldMm: number, topMmPerS: number): Usual<'machine'> => ({
  ...gantry({ bedMm: [fieldMm, fieldMm], topMmPerS, accelerationMmPerS2: 100_000 }),
  motion: 'galvo',
  jumpDelayS: 0.0004,
});

/** Half the depth of focus within which a spot grows by so much, of what beam quality and wavelength make of it. */
const DEPTH_GROWTH = 0.05;

function lensOf(
  head: Pick<Usual<'head'>, 'wavelengthNm' | 'm2'>,
  focalLengthMm: number,
  spot: number | readonly [x: number, y: number],
  spotSource: 'stated' | 'worked out' = 'stated',
): ShelfKind<'lens'> {
  const round = (value: number) => Number(value.toPrecision(3));
  const [x, y] = typeof spot === 'number' ? [spot, spot] : spot;
  const beam = { spotMm: Math.sqrt(x * y), wavelengthMm: head.wavelengthNm / 1e6, m2: head.m2 };
  const depth = depthOfFocus({ rayleighMm: rayleighRange(beam), growth: DEPTH_GROWTH });
  return {
    key: String(focalLengthMm),
    name: `${focalLengthMm} mm`,
    about: `${(focalLengthMm / 25.4).toPrecision(2)} in`,
    body: {
      focalLengthMm,
      spotXMm: round(x),
      spotYMm: round(y),
      spotSource,
      depthOfFocusMm: round(depth),
      depthGrowth: DEPTH_GROWTH,
    },
  };
}

function co2(key: string, watts: string, ratedW: number, beamDiameterMm: number, bench: Bench): HeadKind {
  const body = {
    wavelengthClass: 'co2',
    wavelengthNm: 10_600,
    emission: 'continuous',
    ratedW,
    firingThresholdPercent: 8,
    m2: 1.3,
    ...NO_PULSE,
    beamDiameterMm,
    eyewear: eyewearFor(10_600),
  } as const;
  const lens = (focalLengthMm: number) => {
    const spot = spotDiameter({ wavelengthMm: 0.0106, m2: body.m2, focalLengthMm, beamMm: beamDiameterMm });
    return lensOf(body, focalLengthMm, spot, 'worked out');
  };
  return {
    ...{
      key,
      name: `CO2 panel machine, ${watts} W`,
      about: `glass tube, bed about ${bench.bedMm.join(' × ')} mm`,
      body,
    },
    machine: gantry(bench),
    lenses: [50.8, 38.1, 63.5, 76.2, 101.6].map(lens),
  };
}

function blue(watts: number, spot: readonly [number, number]): HeadKind {
  const body = {
    wavelengthClass: 'blue',
    wavelengthNm: 450,
    emission: 'continuous',
    ratedW: watts,
    firingThresholdPercent: 0,
    m2: 10,
    ...NO_PULSE,
    beamDiameterMm: null,
    eyewear: eyewearFor(450),
  } as const;
  return {
    ...{ key: `blue-${watts}`, name: `Blue diode, ${watts} W`, about: 'open frame or small box', body },
    machine: gantry(
      { bedMm: [400, 400], topMmPerS: 166, accelerationMmPerS2: 1000 },
      { panelPower: '0-1000', panelSpeed: 'mm/min', laserMinorPerMinute: 8 },
    ),
    lenses: [{ ...lensOf(body, 30, spot), name: 'Fixed lens', about: 'as fitted' }],
  };
}

const PULSED = { wavelengthClass: 'near-infrared', wavelengthNm: 1064, emission: 'pulsed' } as const;

function fibre(watts: number, variable: boolean): HeadKind {
  const body = {
    ...PULSED,
    ratedW: watts,
    firingThresholdPercent: 0,
    m2: 1.5,
    frequencyKHzMin: variable ? 1 : 20,
    frequencyKHzMax: variable ? 1000 : 80,
    pulseNsMin: variable ? 2 : 100,
    pulseNsMax: variable ? 500 : 100,
    beamDiameterMm: null,
    eyewear: eyewearFor(1064),
  } as const;
  const lens = (focal: number, fieldMm: number, spot: number) => ({
    ...lensOf(body, focal, spot),
    about: `field ${fieldMm} mm`,
  });
  return {
    key: `fibre-${watts}${variable ? '-variable' : ''}`,
    name: `Pulsed fibre, ${watts} W${variable ? ', variable pulse' : ''}`,
    about: variable ? 'pulse length can be set' : 'one pulse length',
    body,
    machine: galvo(110, 7000),
    lenses: [lens(160, 110, 0.045), lens(254, 175, 0.07), lens(300, 200, 0.085)],
  };
}

const INFRARED = {
  ...PULSED,
  ratedW: 2,
  firingThresholdPercent: 0,
  m2: 1.3,
  frequencyKHzMin: 15,
  frequencyKHzMax: 60,
  pulseNsMin: null,
  pulseNsMax: null,
  beamDiameterMm: null,
  eyewear: eyewearFor(1064),
} as const;

const CONTINUOUS_FIBRE = {
  wavelengthClass: 'near-infrared',
  wavelengthNm: 1070,
  emission: 'continuous',
  ratedW: 10,
  firingThresholdPercent: 5,
  m2: 1.2,
  ...NO_PULSE,
  beamDiameterMm: null,
  eyewear: eyewearFor(1070),
} as const;

const ULTRAVIOLET = {
  wavelengthClass: 'ultraviolet',
  wavelengthNm: 355,
  emission: 'pulsed',
  ratedW: 4,
  firingThresholdPercent: 0,
  m2: 1.3,
  frequencyKHzMin: 20,
  frequencyKHzMax: 150,
  pulseNsMin: null,
  pulseNsMax: null,
  beamDiameterMm: null,
  eyewear: eyewearFor(355),
} as const;

export const HEAD_KINDS: readonly HeadKind[] = [
  co2('co2-40', '35–40', 38, 4, { bedMm: [300, 200], topMmPerS: 400, accelerationMmPerS2: 3000 }),
  co2('co2-55', '50–60', 55, 5, { bedMm: [500, 300], topMmPerS: 500, accelerationMmPerS2: 5000 }),
  co2('co2-80', '75–80', 78, 6, { bedMm: [900, 600], topMmPerS: 800, accelerationMmPerS2: 8000 }),
  co2('co2-100', '100', 100, 7, { bedMm: [1000, 700], topMmPerS: 1000, accelerationMmPerS2: 10_000 }),
  blue(5, [0.08, 0.1]),
  blue(10, [0.08, 0.1]),
  blue(20, [0.08, 0.15]),
  {
    ...{ key: 'infrared-2', name: 'Infrared, diode-pumped, 2 W', about: 'small head, short pulses', body: INFRARED },
    machine: gantry(
      { bedMm: [400, 400], topMmPerS: 166, accelerationMmPerS2: 1000 },
      { panelPower: '0-1000', panelSpeed: 'mm/min', laserMinorPerMinute: 8 },
    ),
    lenses: [{ ...lensOf(INFRARED, 40, 0.03), name: 'Fixed lens', about: 'as fitted' }],
  },
  ...[20, 30, 60, 80].flatMap((watts) => [fibre(watts, false), fibre(watts, true)]),
  {
    key: 'fibre-continuous-10',
    name: 'Continuous fibre, 10 W',
    about: 'gantry, no pulses',
    body: CONTINUOUS_FIBRE,
    machine: gantry({ bedMm: [400, 300], topMmPerS: 508, accelerationMmPerS2: 8000 }, { panelSpeed: '%' }),
    lenses: [lensOf(CONTINUOUS_FIBRE, 50.8, 0.05)],
  },
  {
    ...{ key: 'ultraviolet-4', name: 'Ultraviolet, 3–5 W', about: 'a wavelength class of its own', body: ULTRAVIOLET },
    machine: galvo(110, 5000),
    lenses: [lensOf(ULTRAVIOLET, 160, 0.025)],
  },
];
