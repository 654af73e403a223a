import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { seededRandom, standardNormal } from '../support/random.js';
import { fitSurface, smoothSurface } from './gaussian-process.js';

describe('a smooth surface against closed cases', () => {
  it('of three readings at one place is their mean drawn back to the prior: n/(n + s²) of it (conjugate normal)', () => {
    // Standardised values −1, 0, 1 have mean 0; asked far away, nothing is known but the prior.
    const surface = smoothSurface([[0], [0], [0]], [2, 4, 6], { lengths: [1], noise: 0.5 });
    const here = surface.at([0]);
    expect(here.mean).toBeCloseTo(4, 6);
    // Prior variance 0.5, noise 0.5, three readings: 0.5 − 0.5²·3/(3·0.5 + 0.5) = 0.125 of the values’ own variance 4.
    expect(here.sd ** 2).toBeCloseTo(4 * 0.125, 4);
    const far = surface.at([1e3]);
    expect([far.mean, far.sdOfReading ** 2]).toEqual([expect.closeTo(4, 6), expect.closeTo(4, 4)]);
  });

  it('agrees with the textbook formulas by an independent library (Rasmussen & Williams 2006, eq. 2.23 to 2.30)', () => {
    const random = seededRandom(5);
    const places = Array.from({ length: 12 }, () => [standardNormal(random), standardNormal(random)]);
    const values = places.map(([a, b]) => Math.sin(a!) + 0.5 * b! + 0.1 * standardNormal(random));
    const [lengths, noise] = [[0.8, 1.3], 0.1];
    const surface = smoothSurface(places, values, { lengths, noise });
    const middle = values.reduce((sum, one) => sum + one, 0) / values.length;
    const scale = Math.sqrt(values.reduce((sum, one) => sum + (one - middle) ** 2, 0) / (values.length - 1));
    const y = Matrix.columnVector(values.map((one) => (one - middle) / scale));
    const k = (a: number[], b: number[]) =>
      0.9 * Math.exp(-0.5 * (((a[0]! - b[0]!) / lengths[0]!) ** 2 + ((a[1]! - b[1]!) / lengths[1]!) ** 2));
    const gram = new Matrix(places.map((a, i) => places.map((b, j) => k(a, b) + (i === j ? noise + 1e-9 : 0))));
    const root = new CholeskyDecomposition(gram);
    for (const place of [
      [0, 0],
      [1.2, -0.4],
      [-2, 2.5],
    ]) {
      const near = Matrix.columnVector(places.map((one) => k(one, place)));
      const expected = near.transpose().mmul(root.solve(y)).get(0, 0);
      const variance = 0.9 - near.transpose().mmul(root.solve(near)).get(0, 0);
      const { mean, sd } = surface.at(place);
      expect(mean).toBeCloseTo(middle + scale * expected, 8);
      expect(sd).toBeCloseTo(scale * Math.sqrt(variance), 8);
    }
    const determinant = 2 * root.lowerTriangularMatrix.diagonal().reduce((sum, one) => sum + Math.log(one), 0);
    const evidence = -0.5 * (y.transpose().mmul(root.solve(y)).get(0, 0) + determinant + 12 * Math.log(2 * Math.PI));
    expect(surface.logEvidence).toBeCloseTo(evidence, 8);
  });

  it('holds its intervals: nine of ten readings lie within ± 1.645 of their own spread, on surfaces it was not made from', () => {
    const random = seededRandom(11);
    let [within, of] = [0, 0];
    for (let turn = 0; turn < 20; turn += 1) {
      const truth = (a: number, b: number) =>
        50 / (1 + Math.exp(-3 * (a - 0.6 * b - 0.3 * turn * 0.1))) - 4 * Math.max(0, a - 0.5) ** 2;
      const place = () => [random() * 2 - 1, random() * 2 - 1];
      const places = Array.from({ length: 56 }, place);
      const read = ([a, b]: number[]) => truth(a!, b!) + 2.5 * standardNormal(random);
      const surface = fitSurface(places, places.map(read));
      for (let i = 0; i < 40; i += 1) {
        const asked = place();
        const { mean, sdOfReading } = surface.at(asked);
        within += Math.abs(read(asked) - mean) < 1.645 * sdOfReading ? 1 : 0;
        of += 1;
      }
    }
    expect(within / of).toBeGreaterThan(0.86);
    expect(within / of).toBeLessThan(0.95);
  });

  it('is flat and unsure where nothing is to be seen, and refuses two readings', () => {
    const flat = fitSurface(
      [
        [0, 0],
        [1, 0],
        [0, 1],
        [1, 1],
      ],
      [5, 5, 5, 5],
    );
    expect(flat.at([0.5, 0.5]).mean).toBeCloseTo(5, 9);
    expect(() =>
      fitSurface(
        [
          [0, 0],
          [1, 1],
        ],
        [1, 2],
      ),
    ).toThrow(/Three readings/);
    expect(() => smoothSurface([[0], [1], [2]], [1, Number.NaN, 2], { lengths: [1], noise: 0.1 })).toThrow(/number/);
  });
});
