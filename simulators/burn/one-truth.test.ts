import { beforeAll, describe, expect, it } from 'vitest';
import { couponGcode, layoutCoupon, seededRandom, type CouponDesign, type CouponLayout } from '@unto/core';
import type { BurnSetup } from '@unto/contract';
import { SimulatedScale } from '../scale/scale.js';
import { COAT_FAULTS, coatFilm, coatSpoilt, type FilmTruth } from '../ground-truth/coat-film.js';
import { BENCH_TECHNIQUE, layCoat } from '../ground-truth/spray-technique.js';
import {
  STUDY_DESIGN,
  STUDY_LIMITS,
  STUDY_MOTION,
  studyMoves,
  studySetup,
  trueLightness,
} from '../testing/coupon-study.js';
import { BurntBlank, readProgram, runTimes, type TimedMove } from './index.js';

/** All cells at one setting well inside the window: what differs between them is the coat's doing. */
const ALIKE: CouponDesign = {
  ...STUDY_DESIGN,
  axes: {
    x: { parameter: 'power', spacing: 'list', values: [80, 80.1, 80.2, 80.3, 80.4, 80.5] },
    y: { parameter: 'speed', spacing: 'list', values: [119, 119.2, 119.4, 119.6, 119.8, 120] },
  },
};
let layout: CouponLayout;
let moves: TimedMove[];
beforeAll(() => ({ layout, moves } = studyMoves(ALIKE)));

function lightness(change: { film?: FilmTruth; air?: boolean; setup?: Partial<BurnSetup>; moves?: TimedMove[] } = {}) {
  const blank = new BurntBlank(studySetup('alike', change.setup), change.film);
  blank.burn(change.moves ?? moves, { air: change.air ?? false });
  return trueLightness(blank.look('scrubbed'), layout);
}
const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
const sprayed = (powder: boolean): Partial<BurnSetup> => ({
  blocks: [{ fromMm: 0, toMm: 300, compound: 'Corvid Film', coats: 1, powder }],
});

// Behaviour of coats: common practice, no source.
describe('air over a coat', () => {
  it('carries loose powder away, so that what is burnt last comes out pale; without it nothing drifts', () => {
    const drift = (l: readonly number[]) => mean(l.slice(-6)) - mean(l.slice(0, 6));
    const still = lightness({ setup: sprayed(true) });
    const blown = lightness({ setup: sprayed(true), air: true });
    expect(Math.abs(drift(still))).toBeLessThan(6);
    expect(drift(blown)).toBeGreaterThan(drift(still) + 8);
    expect(blown[0]!).toBeLessThan(blown[35]!);
  });

  it('leaves a film as it is', () => {
    expect(lightness({ setup: sprayed(false), air: true })).toEqual(lightness({ setup: sprayed(false) }));
  });
});

describe('the film under the beam', () => {
  it('too thick keeps the heat from the ground: fewer cells of a coupon hold after the scrub', () => {
    const study = studyMoves(STUDY_DESIGN);
    const held = (film: number) => {
      const blank = new BurntBlank(studySetup('thick'), () => film);
      blank.burn(study.moves);
      return trueLightness(blank.look('scrubbed'), study.layout).filter((l) => l < 45).length;
    };
    expect(held(2.5)).toBeLessThan(held(1) - 3);
  });

  it('too thin gives a pale mark however well it bonds', () => {
    expect(mean(lightness({ film: () => 0.3 }))).toBeGreaterThan(mean(lightness()) + 12);
  });

  it('touched or run shows in the mark where it shows in the picture of the coat', () => {
    const { blank } = layout.design;
    const film = coatSpoilt('touched', blank);
    const [plain, touched] = [lightness(), lightness({ film })];
    const worse = layout.cells.map(({ index, xMm, yMm }) => ({
      film: film((xMm + 2.5) / blank.widthMm, (yMm + 2) / blank.heightMm),
      paler: touched[index]! - plain[index]!,
    }));
    const [bare, clear] = [worse.filter((one) => one.film < 0.6), worse.filter((one) => one.film > 0.97)];
    expect(bare.length).toBeGreaterThan(0);
    expect(clear.length).toBeGreaterThan(10);
    expect(mean(bare.map(({ paler }) => paler))).toBeGreaterThan(12);
    for (const { paler } of clear) expect(Math.abs(paler)).toBeLessThan(2);
  });

  it('is what was weighed: the scale and the mark go by one laid coat', () => {
    const scale = new SimulatedScale(seededRandom(4));
    const scene = { key: 'can', batch: 't', lastKnownG: 300, massToApplyG: 12, massSolids: 0.2 };
    const settled = (key: string, moment: 'before' | 'after', lastKnownG: number) => {
      scale.put({ ...scene, key, moment, lastKnownG });
      return Array.from({ length: 4 }, () => scale.weigh()!).at(-1)!.value;
    };
    expect(scale.filmOf('t')).toBe(1);
    const [canBefore, partBefore] = [settled('can', 'before', 300), settled('parts of t', 'before', 28)];
    const [canAfter, partAfter] = [settled('can', 'after', 300), settled('parts of t', 'after', 28)];
    const dry = partAfter - partBefore;
    expect(dry).toBeGreaterThan(0);
    expect(dry).toBeLessThan((canBefore - canAfter) * scene.massSolids);
    // To the scale's own hundredth of a gram.
    const meant = scene.massToApplyG * scene.massSolids * BENCH_TECHNIQUE.transfer;
    expect(Math.abs(scale.filmOf('t') - dry / meant)).toBeLessThan(0.011 / meant);
  });
});

describe('a hand that lays coats', () => {
  it('closes its mass balance and means what it lays, over many coats', () => {
    const random = seededRandom(9);
    const coats = Array.from({ length: 400 }, () =>
      layCoat(BENCH_TECHNIQUE, { massToApplyG: 10, massSolids: 0.25 }, random),
    );
    for (const { massAppliedG, dryG, film } of coats) {
      expect(dryG).toBeLessThan(massAppliedG * 0.25);
      expect(film * 10 * 0.25 * BENCH_TECHNIQUE.transfer).toBeCloseTo(dryG, 9);
    }
    expect(mean(coats.map(({ film }) => film))).toBeCloseTo(Math.exp(BENCH_TECHNIQUE.biasLn), 1);
  });

  it.each(COAT_FAULTS)('leaves %s as the camera shows it, but for the waves of the spray', (fault) => {
    const size = { widthMm: 60, heightMm: 40 };
    const [seen, alone] = [coatFilm(fault, size, seededRandom(2)), coatSpoilt(fault, size)];
    for (let u = 0.05; u < 1; u += 0.15)
      for (let v = 0.05; v < 1; v += 0.15) expect(Math.abs(seen(u, v) - alone(u, v))).toBeLessThan(0.13);
  });
});

describe('focus', () => {
  const burnt = (focusMm: number) => mean(lightness({ setup: { focusMm } }));

  it('off the surface takes from the mark, the more the further', () => {
    const [here, off, far] = [burnt(0), burnt(1.2), burnt(5)];
    expect(off!).toBeGreaterThan(here! - 0.5);
    expect(far!).toBeGreaterThan(off! + 10);
    expect(burnt(-5)).toBeGreaterThan(here! + 10);
  });

  it('is what somebody was asked to set at a stop, for the cells after it', () => {
    const design: CouponDesign = {
      ...ALIKE,
      axes: { x: ALIKE.axes.x, y: { parameter: 'focus', spacing: 'list', values: [0, 0.5, 1, 1.5, 2, 5] } },
    };
    const focused = layoutCoupon(design, STUDY_LIMITS);
    const program = couponGcode(focused, { motion: STUDY_MOTION, fullScaleS: 1000, laserOn: 'M3' });
    expect(program).toMatch(/\(set focus offset 5 mm, then go on\)\nM0/);
    const timed = runTimes(readProgram(program), { accelerationMmPerS2: 5000, rapidMmPerS: 600 });
    const rows = lightness({ moves: timed });
    const row = (y: number) => mean(focused.cells.filter(({ row: r }) => r === y).map(({ index }) => rows[index]!));
    expect(row(5)).toBeGreaterThan(row(0) + 10);
    expect(row(3)).toBeGreaterThan(row(0) - 0.5);
  });
});
