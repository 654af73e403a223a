import { describe, expect, it } from 'vitest';
import {
  arealDose,
  heatIndex,
  intervalToMm,
  powerToPercent,
  pulseFigures,
  speedToMmPerS,
  type IntervalUnit,
  type PowerUnit,
  type SpeedUnit,
} from './index.js';

/**
 * Settings usual in the trade (common practice, no source), walked through units, watts and dose as far as their numbers reach.
 * `null` is what cannot be known from the statement. The figures on the right were worked out by hand as noted.
 */
interface Row {
  readonly what: string;
  readonly ratedW?: number;
  readonly topSpeedMmPerS?: number;
  readonly power: readonly [number, PowerUnit];
  readonly speed: readonly [number, SpeedUnit];
  readonly interval?: readonly [number, IntervalUnit];
  readonly passes?: number;
  readonly watts: number | null;
  readonly mmPerS: number | null;
  readonly mm?: number;
  readonly dose?: number;
}

const ROWS: readonly Row[] = [
  {
    what: '40 W CO2, molybdenum film on stainless, slow end',
    ratedW: 40,
    power: [85, '%'],
    speed: [30, 'mm/s'],
    watts: 34,
    mmPerS: 30,
  },
  {
    what: '40 W CO2, molybdenum film on stainless, fast end',
    ratedW: 40,
    power: [95, '%'],
    speed: [40, 'mm/s'],
    watts: 38,
    mmPerS: 40,
  },
  {
    what: '40 W CO2, molybdenum film, paler',
    ratedW: 40,
    power: [55, '%'],
    speed: [150, 'mm/s'],
    watts: 22,
    mmPerS: 150,
  },
  { what: '40 W CO2, metal compounds', ratedW: 40, power: [98, '%'], speed: [175, 'mm/s'], watts: 39.2, mmPerS: 175 },
  { what: '40 W CO2, the fastest hold', ratedW: 40, power: [98, '%'], speed: [300, 'mm/s'], watts: 39.2, mmPerS: 300 },
  // 25.4/340 = 0.074706
  {
    what: 'low-power CO2 on brass, 340 lines/in',
    power: [100, '%'],
    speed: [250, 'mm/s'],
    interval: [340, 'lines/in'],
    watts: null,
    mmPerS: 250,
    mm: 0.074706,
  },
  // 25.4/225 = 0.112889
  {
    what: 'low-power CO2 on brass, 225 lines/in',
    power: [100, '%'],
    speed: [250, 'mm/s'],
    interval: [225, 'lines/in'],
    watts: null,
    mmPerS: 250,
    mm: 0.112889,
  },
  // 10/75 = 0.133333
  {
    what: 'stainless opener blank, 75 lines/cm',
    power: [100, '%'],
    speed: [250, 'mm/s'],
    interval: [75, 'lines/cm'],
    watts: null,
    mmPerS: 250,
    mm: 0.133333,
  },
  { what: '35 W CO2, ceramic', ratedW: 35, power: [50, '%'], speed: [25, '%'], watts: 17.5, mmPerS: null },
  { what: '35 W CO2, glass', ratedW: 35, power: [20, '%'], speed: [10, '%'], watts: 7, mmPerS: null },
  { what: '75 W CO2, stainless', ratedW: 75, power: [90, '%'], speed: [25, '%'], watts: 67.5, mmPerS: null },
  { what: '75 W CO2, glass', ratedW: 75, power: [15, '%'], speed: [50, '%'], watts: 11.25, mmPerS: null },
  { what: '75 W CO2, tile', ratedW: 75, power: [25, '%'], speed: [50, '%'], watts: 18.75, mmPerS: null },
  { what: '50 W CO2, metal compounds', ratedW: 50, power: [100, '%'], speed: [40, '%'], watts: 50, mmPerS: null },
  // half of 20 in/s = 254 mm/s; 0.001 in = 0.0254 mm; 7/(254·0.0254) = 1.085
  {
    what: '10 W fibre, glass compound',
    ratedW: 10,
    topSpeedMmPerS: 508,
    power: [7, 'W'],
    speed: [50, '%'],
    interval: [0.001, 'in'],
    watts: 7,
    mmPerS: 254,
    mm: 0.0254,
    dose: 1.085,
  },
  // 0.33·30 = 9.9; 9.9/(110·0.025) = 3.60
  {
    what: '30 W fibre, black on aluminium',
    ratedW: 30,
    power: [33, '%'],
    speed: [110, 'mm/s'],
    interval: [0.025, 'mm'],
    watts: 9.9,
    mmPerS: 110,
    mm: 0.025,
    dose: 3.6,
  },
  // 0.7·80 = 56; 3·56/(1500·0.042) = 2.667
  {
    what: '80 W fibre, ink on bone, 3 passes',
    ratedW: 80,
    power: [70, '%'],
    speed: [1500, 'mm/s'],
    interval: [0.042, 'mm'],
    passes: 3,
    watts: 56,
    mmPerS: 1500,
    mm: 0.042,
    dose: 2.6667,
  },
  {
    what: '10 W diode, aerosol on stainless',
    ratedW: 10,
    power: [100, '%'],
    speed: [300, 'mm/min'],
    watts: 10,
    mmPerS: 5,
  },
  // 1000/60 = 16.667; 2/(16.667·0.03) = 4.00
  {
    what: '2 W infrared, bare metals, 0.03 mm',
    ratedW: 2,
    power: [100, '%'],
    speed: [1000, 'mm/min'],
    interval: [0.03, 'mm'],
    watts: 2,
    mmPerS: 16.6667,
    mm: 0.03,
    dose: 4,
  },
  // 2/(16.667·0.04) = 3.00
  {
    what: '2 W infrared, bare metals, 0.04 mm',
    ratedW: 2,
    power: [100, '%'],
    speed: [1000, 'mm/min'],
    interval: [0.04, 'mm'],
    watts: 2,
    mmPerS: 16.6667,
    mm: 0.04,
    dose: 3,
  },
  {
    what: '2 W infrared, chrome plate',
    ratedW: 2,
    power: [100, '%'],
    speed: [500, 'mm/min'],
    watts: 2,
    mmPerS: 8.3333,
  },
  { what: '2 W infrared, copper', ratedW: 2, power: [100, '%'], speed: [2000, 'mm/min'], watts: 2, mmPerS: 33.3333 },
  { what: '20 W diode, anodised', ratedW: 20, power: [100, '%'], speed: [4000, 'mm/min'], watts: 20, mmPerS: 66.6667 },
  { what: '10 W diode, anodised', ratedW: 10, power: [100, '%'], speed: [3000, 'mm/min'], watts: 10, mmPerS: 50 },
  { what: 'diode, painted blanks', ratedW: 10, power: [80, '%'], speed: [6000, 'mm/min'], watts: 8, mmPerS: 100 },
  {
    what: 'anodised fills, upper end',
    ratedW: 10,
    power: [100, '%'],
    speed: [10_000, 'mm/min'],
    watts: 10,
    mmPerS: 166.6667,
  },
  {
    what: 'bare stainless, 10 W blue',
    ratedW: 10,
    power: [100, '%'],
    speed: [100, 'mm/min'],
    watts: 10,
    mmPerS: 1.6667,
  },
  {
    what: 'bare stainless, 20 W blue',
    ratedW: 20,
    power: [100, '%'],
    speed: [200, 'mm/min'],
    watts: 20,
    mmPerS: 3.3333,
  },
  { what: 'black acrylic, cut in 3 passes', power: [100, '%'], speed: [5, 'mm/s'], passes: 3, watts: null, mmPerS: 5 },
  { what: 'black acrylic, infrared white', ratedW: 2, power: [100, '%'], speed: [5, 'mm/s'], watts: 2, mmPerS: 5 },
];

describe('usual settings through the core', () => {
  it.each(ROWS)('$what', (row) => {
    const percent = powerToPercent(row.power[0], row.power[1], row.ratedW);
    const watts = percent !== null && row.ratedW ? (percent * row.ratedW) / 100 : null;
    const mmPerS = speedToMmPerS(row.speed[0], row.speed[1], { topSpeedMmPerS: row.topSpeedMmPerS });
    if (row.watts === null) expect(watts).toBeNull();
    else expect(watts).toBeCloseTo(row.watts, 6);
    if (row.mmPerS === null) expect(mmPerS).toBeNull();
    else expect(mmPerS).toBeCloseTo(row.mmPerS, 3);
    if (!row.interval) return;
    const intervalMm = intervalToMm(row.interval[0], row.interval[1]);
    expect(intervalMm).toBeCloseTo(row.mm!, 5);
    if (row.dose === undefined) return;
    expect(arealDose({ powerW: watts!, speedMmPerS: mmPerS!, intervalMm, passes: row.passes ?? 1 })).toBeCloseTo(
      row.dose,
      3,
    );
  });

  it('80 W fibre on bone: 56 W at 500 kHz are 0.112 mJ pulses, 560 W over 200 ns, 3 µm apart', () => {
    const pulse = pulseFigures({ meanPowerW: 56, frequencyKHz: 500, pulseNs: 200, spotMm: 0.08, speedMmPerS: 1500 });
    expect(pulse.pulseEnergyJ * 1000).toBeCloseTo(0.112, 9);
    expect(pulse.peakPowerW).toBeCloseTo(560, 6);
    expect(pulse.spacingMm).toBeCloseTo(0.003, 9);
  });

  it('orders the molybdenum settings by heat index as by darkness, on an assumed 0.16 mm spot', () => {
    const at = (powerW: number, speedMmPerS: number) =>
      heatIndex({ powerW, speedMmPerS, radiusMm: 0.08, conductivity: 0.0162, diffusivity: 4.05 });
    expect(at(38, 40)).toBeGreaterThan(at(22, 150));
    expect(at(34, 30)).toBeGreaterThan(at(22, 150));
  });

  it('speed 750 on brass delivers a third of the line energy of 250', () => {
    expect(speedToMmPerS(750, 'mm/s')! / speedToMmPerS(250, 'mm/s')!).toBe(3);
  });
});
