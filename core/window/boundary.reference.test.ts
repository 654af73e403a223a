import { describe, expect, it } from 'vitest';
import { FINNEY, LAUNCHES } from '../testing/logit-records.js';
import { seededRandom } from '../support/random.js';
import {
  boundaryState,
  NO_STEP,
  logPosterior,
  type BoundaryCells,
  type BoundaryPrior,
  type BoundaryTask,
} from './boundary.js';
import { ordinalLogLikelihood } from './ordered-logit.js';
import { climb, posteriorDraws } from './boundary-posterior.js';

/** Rows of (ln power, the other columns, beyond). */
const cellsOf = (rows: readonly (readonly [number, readonly number[], number])[]): BoundaryCells => ({
  columns: rows[0]![1].length,
  lnPower: Float64Array.from(rows, ([lnPower]) => lnPower),
  x: Float64Array.from(rows.flatMap(([, x]) => x)),
  from: Int8Array.from(rows, ([, , beyond]) => (beyond ? 0 : NO_STEP)),
  to: Int8Array.from(rows, ([, , beyond]) => (beyond ? NO_STEP : 0)),
  steps: { below: 0, above: 0 },
  weight: new Float64Array(rows.length).fill(1),
  misread: new Float64Array(rows.length),
  doubt: new Float64Array(rows.length).fill(1),
});

describe('a boundary without priors is the ordinary logit', () => {
  // Finney 1947, Biometrika 34; Pregibon 1981, Ann. Statist. 9 (values by name in the records).
  it('gives the published estimates on Finney’s records, volume in the place of power', () => {
    const cells = cellsOf(FINNEY.map(([volume, rate, response]) => [Math.log(volume), [1, Math.log(rate)], response]));
    const { theta, converged } = climb([1, 0, 0, 0], { cells, prior: null });
    const k = Math.exp(theta[0]!);
    expect(converged).toBe(true);
    expect(k).toBeCloseTo(5.1793, 3);
    expect(-k * theta[2]!).toBeCloseTo(4.5617, 3);
    expect(-k * theta[1]!).toBeCloseTo(-2.8754, 3);
  });

  it('gives the published estimates on the 23 launches, cold in the place of power', () => {
    const cells = cellsOf(LAUNCHES.map(([temperature, distress]) => [-temperature, [1], distress]));
    const { theta } = climb([-1.5, -65, 0], { cells, prior: null });
    const k = Math.exp(theta[0]!);
    expect(-k).toBeCloseTo(-0.2322, 4);
    expect(-k * theta[1]!).toBeCloseTo(15.0429, 3);
  });
});

/** A made-up row of cells along power, with priors that matter. */
const PRIOR: BoundaryPrior = {
  lnSteepness: { mean: Math.log(12), sd: 0.5 },
  columns: [{ mean: 0.1, sd: 0.4 }],
  misread: { mean: Math.log(0.02 / 0.98), sd: 0.8 },
  lnStep: { mean: 0, sd: 0.8 },
};
const ROW: BoundaryTask = {
  cells: cellsOf(
    [-0.6, -0.45, -0.3, -0.15, 0, 0.1, 0.2, 0.3, 0.45, 0.6].map((x, i) => [x, [1], [0, 0, 1, 0, 0, 1, 0, 1, 1, 1][i]!]),
  ),
  prior: PRIOR,
};

describe('its log posterior', () => {
  const bent: BoundaryTask = {
    cells: cellsOf(
      Array.from({ length: 30 }, (_, i) => {
        const u = ((i * 7) % 13) / 6 - 1;
        return [
          ((i * 5) % 11) / 8 - 0.7,
          [1, u, Math.max(0, u + 0.5), Math.max(0, u), Math.max(0, u - 0.5)],
          (i * 3) % 2,
        ];
      }),
    ),
    prior: { ...PRIOR, columns: [0.1, 0.7, 0, 0, 0].map((mean) => ({ mean, sd: 0.4 })) },
  };

  it('climbs as its gradient says, inside the slopes that are believed and outside', () => {
    for (const slope of [0.6, 1.5, -0.6]) {
      const theta = [2.3, 0.2, slope, 0.3, -0.4, 0.5, -3.4];
      const { value, gradient } = boundaryState(theta, bent);
      expect(value).toBeCloseTo(logPosterior(theta, bent), 9);
      gradient.forEach((rise, a) => {
        const moved = (by: number) => logPosterior(theta.with(a, theta[a]! + by), bent);
        expect((moved(1e-5) - moved(-1e-5)) / 2e-5).toBeCloseTo(rise, 4);
      });
    }
  });
});

describe('steps of a number that was read', () => {
  const cells: BoundaryCells = {
    ...cellsOf([-0.5, -0.3, -0.1, 0, 0.1, 0.3, 0.5].map((x) => [x, [1], 0])),
    from: Int8Array.from([NO_STEP, 0, NO_STEP, 1, 2, 2, 3]),
    to: Int8Array.from([0, 1, 2, 2, 3, NO_STEP, NO_STEP]),
    steps: { below: 2, above: 1 },
    misread: Float64Array.from([0, 0, 0.08, 0, 0, 0.08, 0]),
    doubt: Float64Array.from([1, 0.1, 1, 1, 0.1, 0.1, 1]),
  };
  const theta = [2.4, 0.05, -3, 0.2, -0.3, 0.4];

  it('change the log posterior as its gradient says', () => {
    const task = { cells, prior: PRIOR };
    const { gradient } = boundaryState(theta, task);
    gradient.forEach((rise, a) => {
      const moved = (by: number) => logPosterior(theta.with(a, theta[a]! + by), task);
      expect((moved(1e-5) - moved(-1e-5)) / 2e-5).toBeCloseTo(rise, 4);
    });
  });

  it('are the ordered logit in power, cut where the steps lie', () => {
    const rows = [0, 1, 2, 3].flatMap((category, i) => [{ z: [cells.lnPower[i]!], category }]);
    const all: BoundaryCells = {
      ...cellsOf(rows.map(({ z }) => [z[0]!, [1], 0])),
      from: Int8Array.from([NO_STEP, 0, 1, 2]),
      to: Int8Array.from([0, 1, 2, NO_STEP]),
      steps: { below: 1, above: 1 },
    };
    const k = Math.exp(theta[0]!);
    const level = k * theta[1]!;
    const cuts = [level - Math.exp(0.2), level, level + Math.exp(-0.3)];
    const value = logPosterior([theta[0]!, theta[1]!, 0, 0.2, -0.3], { cells: all, prior: null });
    expect(value).toBeCloseTo(ordinalLogLikelihood([...cuts, k], rows, 4), 9);
  });
});

describe('draws of the posterior', () => {
  /** The same posterior summed over a fine grid: mean and variance of each parameter. */
  function byBruteForce() {
    const sums = { weight: 0, first: [0, 0, 0], second: [0, 0, 0] };
    for (let k = 0.5; k < 4.6; k += 0.08)
      for (let level = -0.7; level < 0.9; level += 0.02)
        for (let misread = -8; misread < 0; misread += 0.2) {
          const weight = Math.exp(logPosterior([k, level, misread], ROW));
          sums.weight += weight;
          [k, level, misread].forEach((value, a) => {
            sums.first[a]! += weight * value;
            sums.second[a]! += weight * value * value;
          });
        }
    const mean = sums.first.map((one) => one / sums.weight);
    return { mean, sd: sums.second.map((one, a) => Math.sqrt(one / sums.weight - mean[a]! ** 2)) };
  }

  it('have the mean and the spread that summing the whole of it gives', () => {
    const wanted = { count: 4000, tries: 8000, random: seededRandom(5) };
    const { values, size, count, effective } = posteriorDraws(ROW, [[2.4, 0.1, -3.9]], wanted);
    const { mean, sd } = byBruteForce();
    const column = (a: number) => Array.from({ length: count }, (_, d) => values[d * size + a]!);
    mean.forEach((wantedMean, a) => {
      const drawn = column(a);
      const own = drawn.reduce((sum, one) => sum + one, 0) / count;
      const spread = Math.sqrt(drawn.reduce((sum, one) => sum + (one - own) ** 2, 0) / count);
      expect(Math.abs(own - wantedMean)).toBeLessThan(0.06 * sd[a]!);
      expect(spread / sd[a]!).toBeCloseTo(1, 1);
    });
    expect(effective).toBeGreaterThan(3000);
  });
});
