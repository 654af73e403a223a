import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeFigure, decisive, type Figure } from '../evidence/index.js';
import {
  combineFilms,
  containersToReady,
  filmChange,
  filmFromComb,
  filmTrend,
  judgeFilm,
  judgeInspection,
  keepUntil,
  learnStroke,
  mixFor,
  storedState,
  ROOM_SAMPLES,
  roomEffect,
  straightLine,
  strokesFor,
  USUAL_STROKE,
  type VisualInspection,
} from './index.js';

const BAND = { lowUm: 8, highUm: 12 };
const film = (value: number, low: number, high: number, grade: 'measured' | 'usual' = 'measured'): Figure =>
  makeFigure({ formula: 'x', value, unit: 'µm', interval: { low, high, level: 0.9 }, inputs: [decisive('x', grade)] });

describe('wet-film comb (ISO 2808: the film lies between the last wetted tooth and the next)', () => {
  it('75 and 100 µm at 30 % solids dry to 22.5 to 30 µm', () => {
    const read = filmFromComb({ wettedUm: 75, dryToothUm: 100 }, { volumeSolids: 0.3, thinnerRatio: 0 });
    expect(read.value).toBeCloseTo(26.25, 9);
    expect(read.interval).toEqual({ low: 22.5, high: 30, level: 0.9 });
    expect(read.grade).toBe('stated');
  });

  it('three wet mils lie in the middle of a comb of 70 and 80 µm: 76.2 dries to 22.86', () => {
    const read = filmFromComb({ wettedUm: 70, dryToothUm: 80 }, { volumeSolids: 0.3, thinnerRatio: 0 });
    expect(read.interval!.low).toBeLessThan(22.86);
    expect(read.interval!.high).toBeGreaterThan(22.86);
  });

  it('refuses teeth the wrong way round, and a negative one', () => {
    const mix = { volumeSolids: 0.3, thinnerRatio: 0 };
    expect(() => filmFromComb({ wettedUm: 100, dryToothUm: 75 }, mix)).toThrow(/higher one/);
    expect(() => filmFromComb({ wettedUm: -5, dryToothUm: 75 }, mix)).toThrow(/negative/);
    expect(filmFromComb({ wettedUm: 0, dryToothUm: 25 }, mix).interval!.low).toBeGreaterThan(0);
  });
});

describe('looks (common practice, no source)', () => {
  const even: VisualInspection = { showing: 'none', runs: 'none', lumps: 'none', lamp: null };
  const verdict = (looks: VisualInspection) =>
    judgeFilm({ value: judgeInspection(looks, BAND).film.value }, BAND).verdict;

  it('a coat that hides the metal without running is right; patches are thin, many runs are thick', () => {
    expect(verdict(even)).toBe('right');
    expect(verdict({ ...even, showing: 'patches' })).toBe('thin');
    expect(verdict({ ...even, runs: 'many' })).toBe('thick');
  });

  it('on glass the coat is laid until no lamp shines through', () => {
    expect(verdict({ ...even, lamp: 'no light' })).toBe('right');
    expect(verdict({ ...even, lamp: 'shines through' })).toBe('thin');
    expect(judgeInspection({ ...even, lamp: 'shines through' }, BAND).findings).toContain('lamp shines through');
  });

  it('ground showing beside runs is uneven, and the film spans both', () => {
    const { film: spanned, findings } = judgeInspection({ ...even, showing: 'patches', runs: 'many' }, BAND);
    expect(findings).toContain('thin beside runs');
    expect(spanned.interval!.low).toBeLessThan(BAND.lowUm);
    expect(spanned.interval!.high).toBeGreaterThan(BAND.highUm);
    expect(spanned.grade).toBe('usual');
  });
});

describe('readings of one film together', () => {
  it('two equally sure ones meet in the middle (of the logarithm), surer than either', () => {
    const { film: both, contradictions } = combineFilms([
      { label: 'weighing', film: film(9, 8, 10.125) },
      { label: 'comb', film: film(11, 9.778, 12.375) },
    ]);
    expect(both.value).toBeCloseTo(Math.sqrt(9 * 11), 2);
    expect(both.interval!.high / both.interval!.low).toBeLessThan(10.125 / 8);
    expect(contradictions).toEqual([]);
  });

  it('names readings that cannot both be true, and lets a vague one decide nothing', () => {
    const { film: both, contradictions } = combineFilms([
      { label: 'weighing', film: film(9, 8.5, 9.5) },
      { label: 'comb', film: film(20, 18, 22) },
    ]);
    expect(contradictions).toEqual([['weighing', 'comb']]);
    expect(both.value).toBeGreaterThan(9);
    const vague = combineFilms([
      { label: 'weighing', film: film(9, 8.5, 9.5) },
      { label: 'inspection', film: film(10, 4, 19, 'usual') },
    ]);
    expect(vague.film.grade).toBe('measured');
    expect(vague.film.value).toBeCloseTo(9, 0);
  });

  it('stays between its readings and forgets none', () => {
    const one = fc.tuple(fc.double({ min: 1, max: 80, noNaN: true }), fc.double({ min: 1.05, max: 3, noNaN: true }));
    fc.assert(
      fc.property(fc.array(one, { minLength: 1, maxLength: 5 }), (list) => {
        const readings = list.map(([value, ratio], i) => ({
          label: `r${i}`,
          film: film(value, value / ratio, value * ratio),
        }));
        const value = combineFilms(readings).film.value;
        const values = list.map(([v]) => v);
        expect(value).toBeGreaterThanOrEqual(Math.min(...values) * (1 - 1e-9));
        expect(value).toBeLessThanOrEqual(Math.max(...values) * (1 + 1e-9));
      }),
    );
    expect(() => combineFilms([])).toThrow(/No reading/);
  });

  it('lets a spot differ from the mean of the batch by what a hand does', () => {
    const weighed = { label: 'weighing', film: film(9, 8.6, 9.4) };
    const comb = { label: 'comb', film: film(10.6, 10.2, 11) };
    expect(combineFilms([weighed, comb]).contradictions).toHaveLength(1);
    expect(combineFilms([weighed, { ...comb, spot: true }]).contradictions).toEqual([]);
    expect(combineFilms([weighed, { ...comb, spot: true }]).film.value).toBeLessThan(9.3);
  });
});

describe('the change that brings a film into its band', () => {
  const hand = { strokes: 3, distanceMm: 200, distanceMinMm: 150, distanceMaxMm: 300 };
  it('three strokes of 15 µm become two', () => {
    expect(filmChange(15, BAND, hand)).toEqual({ factor: 2 / 3, strokes: { now: 3, then: 2 }, distanceMm: 300 });
  });
  it('says nothing inside the band, and no strokes where whole ones cannot', () => {
    expect(filmChange(10, BAND, hand)).toBeNull();
    expect(filmChange(13, BAND, { ...hand, strokes: 1 })!.strokes).toBeNull();
    expect(filmChange(13, BAND, { ...hand, strokes: null, distanceMm: null })).toMatchObject({
      strokes: null,
      distanceMm: null,
    });
  });
  it('whatever strokes it names lie in the band', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 60, noNaN: true }), fc.integer({ min: 1, max: 30 }), (um, strokes) => {
        const change = filmChange(um, BAND, { ...hand, strokes });
        if (!change?.strokes) return;
        const then = (um * change.strokes.then) / strokes;
        expect(then).toBeGreaterThanOrEqual(BAND.lowUm);
        expect(then).toBeLessThanOrEqual(BAND.highUm);
      }),
    );
  });
});

/** NIST StRD linear regression, Norris: x (reference) and y (instrument). Data and certified values from memory. */
const NORRIS =
  '0.2 0.1 337.4 338.8 118.2 118.1 884.6 888.0 10.1 9.2 226.5 228.1 666.3 668.5 996.3 998.5 448.6 449.1 777.0 778.9 558.2 559.2 0.4 0.3 0.6 0.1 775.5 778.1 666.9 668.8 338.0 339.3 447.5 448.9 11.6 10.8 556.0 557.7 228.1 228.3 995.8 998.0 887.6 888.8 120.2 119.6 0.3 0.3 0.3 0.6 556.8 557.6 339.1 339.3 887.2 888.0 999.0 998.5 779.0 778.9 11.1 10.2 118.3 117.6 229.2 228.9 669.1 668.4 448.9 449.2 0.5 0.2'
    .split(' ')
    .map(Number);

describe('trend', () => {
  it('fits NIST StRD Norris to its certified values', () => {
    const points = Array.from({ length: 36 }, (_, i) => ({ x: NORRIS[2 * i]!, y: NORRIS[2 * i + 1]! }));
    const line = straightLine(points);
    expect(line.intercept).toBeCloseTo(-0.262323073774029, 9);
    expect(line.slope).toBeCloseTo(1.00211681802045, 11);
    expect(line.interceptError).toBeCloseTo(0.232818234301152, 9);
    expect(line.slopeError).toBeCloseTo(0.429796848199937e-3, 11);
    expect(line.residual).toBeCloseTo(0.884796396144373, 9);
  });

  it('sees a hand that lays thicker from week to week, and calls scatter steady', () => {
    const rising = [9, 9.6, 10.1, 10.9, 11.4, 12.2].map((filmUm, i) => ({ day: 7 * i, filmUm }));
    expect(filmTrend(rising, BAND)).toMatchObject({ verdict: 'rising', inBand: 5, count: 6 });
    const scatter = [9, 11, 9.5, 10.5, 10, 9.8].map((filmUm, i) => ({ day: 7 * i, filmUm }));
    expect(filmTrend(scatter, BAND).verdict).toBe('steady');
    expect(filmTrend(scatter.slice(0, 1), BAND)).toMatchObject({ next: null, drift: null });
    expect(
      filmTrend(
        [...scatter.slice(0, 4)].map(({ filmUm }) => ({ day: 3, filmUm })),
        BAND,
      ).drift,
    ).toBeNull();
    expect(() => filmTrend([], BAND)).toThrow(/weighed/);
    expect(() =>
      straightLine([
        { x: 1, y: 1 },
        { x: 1, y: 2 },
        { x: 1, y: 3 },
      ]),
    ).toThrow(/one moment/);
  });
});

describe('what the room does', () => {
  // Made by its own rule: transfer falls by 2 % a degree, without and with scatter.
  const coats = (count: number, scatter = 0, spread = 12) =>
    Array.from({ length: count }, (_, i) => {
      const room = 14 + (spread * i) / (count - 1);
      return { room, transfer: 0.4 * Math.exp(-0.02 * (room - 14) + scatter * (i % 2 ? 1 : -1)) };
    });

  it('is the slope of the logarithm, with an interval that holds it', () => {
    const exact = roomEffect(coats(ROOM_SAMPLES))!;
    expect(exact.perUnit).toBeCloseTo(-0.02, 9);
    const scattered = roomEffect(coats(10, 0.03))!;
    expect(scattered.low).toBeLessThan(-0.02);
    expect(scattered.high).toBeGreaterThan(-0.02);
    expect(scattered.seen).toBe(true);
    expect(roomEffect(coats(10, 0.6))!.seen).toBe(false);
  });

  it('is not told of few coats, nor of a room that was always the same', () => {
    expect(roomEffect(coats(ROOM_SAMPLES - 1))).toBeNull();
    expect(roomEffect(coats(30, 0.01, 2))).toBeNull();
  });
});

describe('strokes', () => {
  it('learns grams a stroke and plans whole strokes in every coat', () => {
    const known = learnStroke([
      { grams: 2, strokes: 2 },
      { grams: 3.3, strokes: 3 },
    ]);
    expect(known.gramsPerStroke).toBeCloseTo(1.05, 9);
    expect(learnStroke([{ grams: 2, strokes: 2 }])).toEqual(USUAL_STROKE);
    expect(strokesFor(10.8, 1, USUAL_STROKE)).toMatchObject({ perCoat: 12, total: 12 });
    expect(strokesFor(3, 2, USUAL_STROKE)).toMatchObject({ perCoat: 2, total: 4 });
    expect(strokesFor(0.1, 2, USUAL_STROKE).total).toBe(2);
  });
});

describe('what to have ready', () => {
  const can = (id: string, leftG: number, expiresOn: string | null, openedOn: string | null = '2026-01-01') => ({
    ...{ id, name: id, leftG, expiresOn, openedOn },
  });
  const sizes = [
    { label: 'small', netG: 90, priceMinor: 2600 },
    { label: 'large', netG: 420, priceMinor: 6800 },
  ];
  it('empties opened cans first, the soonest date before the rest, and none past its date', () => {
    const plan = containersToReady(
      120,
      [
        can('new', 400, '2027-01-01', null),
        can('late', 100, '2027-06-01'),
        can('soon', 60, '2026-12-01'),
        can('old', 90, '2026-01-31'),
        can('dry', 0, null),
      ],
      sizes,
      '2026-11-25',
    );
    expect(plan.use.map(({ id, takeG }) => [id, takeG])).toEqual([
      ['soon', 60],
      ['late', 60],
    ]);
    expect(plan.passedOver).toEqual([
      { name: 'old', why: 'past its date' },
      { name: 'dry', why: 'empty' },
    ]);
    expect(plan.buy).toBeNull();
  });

  it('closes: what is taken and what is short add up to what is needed', () => {
    const shelf = fc.array(fc.double({ min: 0, max: 500, noNaN: true }), { maxLength: 6 });
    fc.assert(
      fc.property(fc.double({ min: 0, max: 2000, noNaN: true }), shelf, (needed, lefts) => {
        const plan = containersToReady(
          needed,
          lefts.map((g, i) => can(`c${i}`, g, null)),
          sizes,
          '2026-11-25',
        );
        expect(plan.use.reduce((sum, { takeG }) => sum + takeG, 0) + plan.shortG).toBeCloseTo(needed, 6);
        expect(plan.use.every(({ takeG, leftG }) => takeG <= leftG)).toBe(true);
        expect(plan.buy === null).toBe(plan.shortG === 0);
      }),
    );
  });

  it('measures out a mix that keeps its ratio, rounded up to what is at hand', () => {
    // 0.4 × 3.1/0.55 = 2.2545 g/mL; with as much of a thinner 0.35 as dense, 1 mL + 1 mL weigh 3.0436 g.
    const compound = {
      volumeSolids: 0.4,
      massSolids: 0.55,
      dryDensity: 3.1,
      thinnerRatio: 1,
      thinnerDensityRatio: 0.35,
    };
    expect(mixFor(3.0436 * 20, compound)).toMatchObject({ compoundMl: 20, thinnerMl: 20, totalMl: 40 });
    // A tenth over is poured away; more is measured finer: 21 mL, not 25.
    expect(mixFor(3.0436 * 20.2, compound).compoundMl).toBe(21);
    // 6 g cut 1 : 0.1 is a little thinner by the syringe, never as much again as compound.
    const little = mixFor(6, { ...compound, thinnerRatio: 0.1 });
    expect(little.thinnerMl / little.compoundMl).toBeCloseTo(0.1, 2);
    expect(little.thinnerStepMl).toBeLessThanOrEqual(0.5);
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 500, noNaN: true }),
        fc.double({ min: 0.1, max: 3, noNaN: true }),
        (g, r) => {
          const mix = mixFor(g, { ...compound, thinnerRatio: r });
          const density = (0.4 * 3.1) / 0.55;
          expect(density * mix.compoundMl + density * 0.35 * mix.thinnerMl).toBeGreaterThanOrEqual(g - 1e-6);
        },
      ),
    );
  });
});

describe('a stored coat', () => {
  const DAY = 86_400_000;
  it('keeps for its shelf life, and says so before it is over', () => {
    const until = keepUntil(0, 30)!;
    expect(until).toBe(30 * DAY);
    expect(storedState({ storedAtMs: 0, keepUntilMs: until }, 2 * DAY)).toBe('good');
    expect(storedState({ storedAtMs: 0, keepUntilMs: until }, 25 * DAY)).toBe('soon');
    expect(storedState({ storedAtMs: 0, keepUntilMs: until }, 31 * DAY)).toBe('past');
    expect(keepUntil(0, null)).toBeNull();
    expect(storedState({ storedAtMs: 0, keepUntilMs: null }, 999 * DAY)).toBe('no date');
    expect(() => keepUntil(0, 0)).toThrow(/above 0/);
    expect(() => storedState({ storedAtMs: 5, keepUntilMs: 1 }, 9)).toThrow(/before it was stored/);
  });
});
