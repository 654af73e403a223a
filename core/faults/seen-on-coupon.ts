import type { Outcome } from '../coupon/outcomes.js';
import type { Fault, FaultSpot } from './symptoms.js';

/** A cell as it was read, what its window let expect of it, and where on the coupon it lies (shares from the upper left). */
export interface ExpectedCell extends FaultSpot {
  readonly outcome: Outcome;
  /** Chance that it holds, by the cells of other coupons, or by this one’s own fit. */
  readonly holds: number;
}

/** A fault that a reading proposes, with its reason; where it is pale where that can be said. */
export interface ProposedFault {
  readonly fault: Fault;
  readonly spot: FaultSpot | null;
  readonly words: string;
}

/** From so many standard errors a side of a coupon is told to be paler than its window lets expect. */
const SIDE_Z = 3;
const LEAST_CELLS = 8;

/**
 * What the cells of a coupon say is wrong with it beyond its settings: lost towards a side or a corner more than their settings explain (score
 * test of a logistic slope: Cox & Hinkley, Theoretical Statistics, 1974), nothing held, or all overdone. Somebody decides.
 */
export function seenOnCoupon(cells: readonly ExpectedCell[]): ProposedFault[] {
  if (cells.length < LEAST_CELLS) return [];
  const lost = cells.filter(({ outcome }) => outcome === 'under').length;
  const over = cells.filter(({ outcome }) => outcome === 'over').length;
  if (lost === cells.length)
    return [{ fault: 'washed off whole', spot: null, words: `none of ${cells.length} cells held` }];
  if (over > 0.6 * cells.length)
    return [{ fault: 'halo or brown', spot: null, words: `${over} of ${cells.length} cells are overdone` }];
  const [across, down] = [slopeZ(cells, ({ x }) => x - 0.5), slopeZ(cells, ({ y }) => y - 0.5)];
  const sides = [Math.abs(across) > SIDE_Z, Math.abs(down) > SIDE_Z];
  if (!sides[0] && !sides[1]) return [];
  const [x, y] = [sides[0] ? (across > 0 ? 0.1 : 0.9) : 0.5, sides[1] ? (down > 0 ? 0.1 : 0.9) : 0.5];
  const where = [sides[1] && (y < 0.5 ? 'upper' : 'lower'), sides[0] && (x < 0.5 ? 'left' : 'right')]
    .filter(Boolean)
    .join(' ');
  const corner = sides[0] && sides[1];
  return [
    {
      fault: corner ? 'faint in one corner' : 'pale along one edge',
      spot: { x, y },
      words: `more cells are lost towards its ${where} ${corner ? 'corner' : 'edge'} than their settings explain`,
    },
  ];
}

/** Score of “holds” on a place, centred on what is expected, in standard errors. */
function slopeZ(cells: readonly ExpectedCell[], at: (cell: ExpectedCell) => number): number {
  const counted = cells.filter(({ outcome }) => outcome !== 'over');
  const weight = counted.map(({ holds }) => Math.max(1e-3, holds * (1 - holds)));
  const all = weight.reduce((sum, w) => sum + w, 0);
  const middle = counted.reduce((sum, cell, i) => sum + weight[i]! * at(cell), 0) / all;
  const score = counted.reduce(
    (sum, cell) => sum + (at(cell) - middle) * ((cell.outcome === 'holds' ? 1 : 0) - cell.holds),
    0,
  );
  const variance = counted.reduce((sum, cell, i) => sum + weight[i]! * (at(cell) - middle) ** 2, 0);
  return variance > 0 ? score / Math.sqrt(variance) : 0;
}
