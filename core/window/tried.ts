import { samePart } from '../setting/same-setting.js';
import { convexCorners } from '../support/convex-corners.js';
import type { WindowFit } from './window-fit.js';
import { insideHull } from './hull.js';
import { boxEnds, type ToleranceBox } from './promise.js';
import { TERM_SHAPES, type WindowPoint } from './window-terms.js';

/**
 * Whether a point, with the whole of its tolerance box, lies inside what the scrubbed cells tried: the hull of the cells of its own
 * line interval. What holds at 0.05 mm and at 0.08 mm says nothing sure of 0.06 mm.
 */
export function triedPlaces(fit: WindowFit, tolerance: ToleranceBox): (point: WindowPoint) => boolean {
  const { up, down } = boxEnds(tolerance);
  const place = (point: WindowPoint, lnPower: number) => [
    lnPower,
    Math.log(point.speedMmPerS),
    Math.log(point.passes * (point.hatches ?? 1)),
    ...fit.form.terms.map(({ term }) => TERM_SHAPES[term].read(point[term] ?? Number.NaN)),
  ];
  const hulls = new Map<number, number[][]>();
  return (point) => {
    let hull = hulls.get(point.intervalMm);
    if (!hull) {
      hull = fit.cells
        .filter(({ intervalMm }) => samePart('intervalMm', intervalMm, point.intervalMm))
        .map((cell) => place(cell, Math.log(cell.powerW)));
      hull = corners(hull);
      hulls.set(point.intervalMm, hull);
    }
    const lnPower = Math.log(point.powerW);
    return [down, up].every((end) => insideHull(place(point, lnPower + end), hull));
  };
}

/**
 * Of places those that matter to their hull: among all that agree but for the first two parts (power and speed), the corners of the
 * convex polygon about these.
 */
function corners(places: readonly number[][]): number[][] {
  const alike = new Map<string, number[][]>();
  for (const place of places) {
    const key = place.slice(2).join(' ');
    const group = alike.get(key);
    if (group) group.push(place);
    else alike.set(key, [place]);
  }
  return [...alike.values()].flatMap((group) => convexCorners(group));
}
