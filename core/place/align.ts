import { CoreError } from '../support/core-error.js';
import { requireFinite } from '../support/require.js';
import type { PlanePoint } from './fit-circle.js';

/** Where a pre-cut piece lies: how its drawing must be turned and moved to fall on it. */
export interface TwoPointAlignment {
  /** Counter-clockwise, degrees, above −180 up to 180. */
  readonly turnDegrees: number;
  /** Where the drawing's zero falls on the machine, mm. */
  readonly zero: PlanePoint;
  /** Distance found less distance drawn, mm: how much longer the piece came out than its drawing. */
  readonly longerMm: number;
  /** A place of the drawing on the machine. */
  readonly toMachine: (point: PlanePoint) => PlanePoint;
}

/**
 * Turns and moves a drawing (never scales it) so that its first point falls on the first point found and its second lies in the
 * direction of the second; what the distances differ by is said, half of it left at each end.
 * @param drawn two marks in the drawing, mm @param found where the machine found them, mm
 * @throws place.points-in-line when either pair is one place; value.not-finite
 * @example drawn (0,0) (100,0), found (10,10) (10,110): turned by 90°, zero at (10,10), 0 mm longer
 */
export function alignTwoPoints(
  drawn: readonly [PlanePoint, PlanePoint],
  found: readonly [PlanePoint, PlanePoint],
): TwoPointAlignment {
  [...drawn, ...found].forEach(({ xMm, yMm }) => [requireFinite('x', xMm), requireFinite('y', yMm)]);
  const length = ([a, b]: readonly [PlanePoint, PlanePoint]) => Math.hypot(b.xMm - a.xMm, b.yMm - a.yMm);
  const [drawnMm, foundMm] = [length(drawn), length(found)];
  if (drawnMm < 1e-6 || foundMm < 1e-6)
    throw new CoreError(
      'place.points-in-line',
      'The two points are one place: take them as far apart as the piece allows.',
    );
  const turn = directionOf(found) - directionOf(drawn);
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const middle = ([a, b]: readonly [PlanePoint, PlanePoint]) => ({
    xMm: (a.xMm + b.xMm) / 2,
    yMm: (a.yMm + b.yMm) / 2,
  });
  const [from, to] = [middle(drawn), middle(found)];
  const toMachine = ({ xMm, yMm }: PlanePoint): PlanePoint => ({
    xMm: to.xMm + cos * (xMm - from.xMm) - sin * (yMm - from.yMm),
    yMm: to.yMm + sin * (xMm - from.xMm) + cos * (yMm - from.yMm),
  });
  return {
    turnDegrees: wrapped((turn * 180) / Math.PI),
    zero: toMachine({ xMm: 0, yMm: 0 }),
    longerMm: foundMm - drawnMm,
    toMachine,
  };
}

function directionOf([a, b]: readonly [PlanePoint, PlanePoint]): number {
  return Math.atan2(b.yMm - a.yMm, b.xMm - a.xMm);
}

function wrapped(degrees: number): number {
  const turned = ((degrees % 360) + 360) % 360;
  return turned > 180 ? turned - 360 : turned;
}
