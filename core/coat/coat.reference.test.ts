import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  compoundForJob,
  compoundPrice,
  dryFilm,
  filmFromPartMass,
  filmFromWeighing,
  judgeFilm,
  massApplied,
  learnTransfer,
  planCoat,
  remainingPieces,
  spreadingRate,
  thinnedMassSolids,
  transferEfficiency,
  USUAL_TRANSFERS,
  wetFilmFor,
} from './index.js';

const SQUARE_FEET_PER_M2 = 1 / 0.3048 ** 2;
const LITRES_PER_US_GALLON = 3.785411784;

describe('films and spreading', () => {
  it('three wet mils spread 13.12 m²/L', () => {
    expect(spreadingRate(76.2)).toBeCloseTo(13.123, 3);
  });

  it('one gallon at one mil covers 1604 ft² (constant of the paint industry)', () => {
    expect(spreadingRate(25.4) * SQUARE_FEET_PER_M2 * LITRES_PER_US_GALLON).toBeCloseTo(1604.2, 0);
  });

  it('dries to wet × solids, thinner counted, and back', () => {
    expect(dryFilm(76.2, { volumeSolids: 0.3, thinnerRatio: 0 })).toBeCloseTo(22.86, 9);
    expect(dryFilm(60, { volumeSolids: 0.4, thinnerRatio: 1 })).toBeCloseTo(12, 9);
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 200, noNaN: true }),
        fc.double({ min: 0.05, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        (wet, volumeSolids, thinnerRatio) => {
          expect(wetFilmFor(dryFilm(wet, { volumeSolids, thinnerRatio }), { volumeSolids, thinnerRatio })).toBeCloseTo(
            wet,
            6,
          );
        },
      ),
    );
  });

  it('10 µm of 2 g/cm³ on 100 cm² weigh 0.2 g', () => {
    expect(filmFromPartMass(0.2, 10_000, 2)).toBeCloseTo(10, 9);
  });
});

describe('mass for a job', () => {
  const job = {
    areaMm2: 10_000,
    dryFilmUm: 10,
    dryDensity: 2,
    transfer: 0.5,
    massSolids: 0.2,
    thinnerRatio: 0,
    thinnerDensityRatio: 1,
  };

  it('100 cm² at 10 µm, half reaching the part, 20 % solids: 0.2/(0.5·0.2) = 2 g', () => {
    expect(compoundForJob(job)).toBeCloseTo(2, 9);
  });

  it('thinned 1:1 by a thinner of equal density takes twice the mass of mix', () => {
    expect(thinnedMassSolids(0.2, 1, 1)).toBeCloseTo(0.1, 12);
    expect(compoundForJob({ ...job, thinnerRatio: 1 })).toBeCloseTo(4, 9);
  });

  it('closes: the mass planned lays the film planned', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 60, noNaN: true }),
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        (dryFilmUm, transfer) => {
          const mass = compoundForJob({ ...job, dryFilmUm, transfer });
          expect(filmFromPartMass(mass * transfer * job.massSolids, job.areaMm2, job.dryDensity)).toBeCloseTo(
            dryFilmUm,
            6,
          );
        },
      ),
    );
  });

  it('the price per area falls among the usual 1 to 7 cents a square inch (common practice, no source)', () => {
    // A metal film of 10 µm, 3.6 g/cm³, 12 % solids, 37 % reaching the part, 420 g for 45.00.
    const grams = compoundForJob({
      areaMm2: 645.16,
      dryFilmUm: 10,
      dryDensity: 3.6,
      transfer: 0.37,
      massSolids: 0.12,
      thinnerRatio: 0,
      thinnerDensityRatio: 1,
    });
    const cents = compoundPrice(grams, { priceMinor: 4500, netG: 420 });
    expect(cents).toBeGreaterThan(1);
    expect(cents).toBeLessThan(7);
  });

  it('plans wet, dry, mass and prices with their grades', () => {
    const plan = planCoat(
      {
        band: { lowUm: 8, highUm: 12 },
        volumeSolids: 0.25,
        massSolids: 0.2,
        dryDensity: 2,
        thinnerRatio: 0,
        thinnerDensityRatio: 1,
        container: { priceMinor: 5000, netG: 100 },
      },
      {
        areaPerPieceMm2: 1000,
        pieces: 10,
        transfer: { value: 0.5, low: 0.4, high: 0.6, grade: 'measured', weighings: 4 },
      },
    );
    expect(plan.dry.value).toBe(10);
    expect(plan.wet.value).toBeCloseTo(40, 9);
    expect(plan.mass.value).toBeCloseTo(2, 9);
    expect(plan.mass.interval!.low).toBeLessThan(2);
    expect(plan.mass.interval!.high).toBeGreaterThan(2);
    expect(plan.pricePerPiece.value).toBeCloseTo(0.1, 9);
    expect(plan.pricePerCm2.value).toBeCloseTo(0.01, 9);
    expect(plan.mass.grade).toBe('stated');
  });
});

describe('weighing', () => {
  const coat = {
    areaMm2: 10_000,
    dryDensity: 2,
    massSolids: 0.2,
    transfer: { value: 0.5, low: 0.4, high: 0.6, grade: 'measured', weighings: 5 },
  } as const;

  it('turns what left the container into a film with its interval', () => {
    const film = filmFromWeighing({ beforeG: 102, afterG: 100, tareG: 50 }, coat);
    expect(film.value).toBeCloseTo(10, 9);
    expect(film.interval!.low).toBeCloseTo(8, 9);
    expect(film.interval!.high).toBeCloseTo(12, 9);
    expect(film.grade).toBe('measured');
  });

  it('is only usual as long as nobody weighed parts', () => {
    expect(filmFromWeighing({ beforeG: 102, afterG: 100 }, { ...coat, transfer: USUAL_TRANSFERS.aerosol }).grade).toBe(
      'usual',
    );
  });

  it('refuses weights the wrong way round, negative, or below the empty container', () => {
    expect(() => massApplied({ beforeG: 100, afterG: 102 })).toThrow(/weighs more after/);
    expect(() => massApplied({ beforeG: 100, afterG: -1 })).toThrow(/cannot be negative/);
    expect(() => massApplied({ beforeG: 100, afterG: 40, tareG: 50 })).toThrow(/less than the empty container/);
    expect(() => filmFromWeighing({ beforeG: 100, afterG: 100 }, coat)).toThrow(/above 0/);
  });

  it('learns a share with the interval of Student’s t', () => {
    const known = learnTransfer([0.36, 0.38, 0.37, 0.35], USUAL_TRANSFERS.gun);
    expect(known.value).toBeCloseTo(0.365, 9);
    // s = 0.01291, t(3, 95 %) = 2.353, reach = 2.353·s·√1.25 = 0.0340 (standard tables).
    expect(known.high - known.value).toBeCloseTo(0.034, 3);
    expect(learnTransfer([0.4], USUAL_TRANSFERS.gun)).toEqual(USUAL_TRANSFERS.gun);
  });

  it('refuses more on the part than left the container', () => {
    expect(transferEfficiency(0.5, 5, 0.2)).toBeCloseTo(0.5, 9);
    expect(() => transferEfficiency(2, 5, 0.2)).toThrow(/between 0 and 1/);
  });
});

describe('verdict on a film', () => {
  const band = { lowUm: 8, highUm: 12 };

  it('says thin, right or thick, and what the interval leaves open', () => {
    expect(judgeFilm({ value: 7 }, band).verdict).toBe('thin');
    expect(judgeFilm({ value: 9.4 }, band).verdict).toBe('right');
    expect(judgeFilm({ value: 15 }, band).verdict).toBe('thick');
    expect(judgeFilm({ value: 9, low: 7, high: 13 }, band).possible).toEqual(['thin', 'right', 'thick']);
  });

  it('refuses a reversed band', () => {
    expect(() => judgeFilm({ value: 9 }, { lowUm: 12, highUm: 8 })).toThrow(/must rise/);
  });

  it('counts pieces left, never below 0', () => {
    expect(remainingPieces({ nowG: 110, tareG: 100 }, 3)).toBe(3);
    expect(remainingPieces({ nowG: 90, tareG: 100 }, 3)).toBe(0);
  });
});
