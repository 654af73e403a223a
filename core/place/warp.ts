import { Matrix, solve } from 'ml-matrix';
import { CoreError } from '../support/core-error.js';
import { requireFinite, requirePositive } from '../support/require.js';
import type { PlanePoint } from './fit-circle.js';

/** The height of a part at a place, mm, up positive. */
export interface HeightReading extends PlanePoint {
  readonly heightMm: number;
}

/** The surface of a part between its height readings. */
export interface WarpSurface {
  /** Least-squares plane: height = at + alongX·x + alongY·y. */
  readonly plane: { readonly at: number; readonly alongX: number; readonly alongY: number };
  /** Height at a place, mm. */
  readonly heightAt: (xMm: number, yMm: number) => number;
}

/** Two readings at one place that differ by more than this contradict each other, mm. */
export const CONTRADICTION_MM = 0.1;
/** Readings closer than this are of one place, mm. */
const SAME_PLACE_MM = 0.5;

/**
 * A surface through height readings: their least-squares plane, and where they leave it a thin-plate spline (the surface of least
 * bending through the residuals). Three readings give their plane. Readings of one place are averaged.
 * Source: Duchon 1977; Wahba, Spline Models for Observational Data, 1990.
 * @throws place.too-few-points for fewer than three places; place.points-in-line; place.contradiction, naming the two readings
 */
export function warpSurface(readings: readonly HeightReading[]): WarpSurface {
  readings.forEach((r) => [requireFinite('x', r.xMm), requireFinite('y', r.yMm), requireFinite('height', r.heightMm)]);
  const points = merged(readings);
  if (points.length < 3)
    throw new CoreError(
      'place.too-few-points',
      `A surface needs heights at three places at least; there are ${points.length}.`,
    );
  const plane = leastPlane(points);
  const onPlane = (x: number, y: number) => plane.at + plane.alongX * x + plane.alongY * y;
  const off = points.map(({ xMm, yMm, heightMm }) => heightMm - onPlane(xMm, yMm));
  if (points.length === 3 || off.every((value) => Math.abs(value) < 1e-9)) return { plane, heightAt: onPlane };
  const spline = thinPlate(points, off);
  return { plane, heightAt: (x, y) => onPlane(x, y) + spline(x, y) };
}

function merged(readings: readonly HeightReading[]): HeightReading[] {
  const groups: { members: number[]; at: HeightReading }[] = [];
  readings.forEach((reading, i) => {
    const group = groups.find(({ at }) => Math.hypot(at.xMm - reading.xMm, at.yMm - reading.yMm) < SAME_PLACE_MM);
    if (!group) groups.push({ members: [i], at: reading });
    else group.members.push(i);
  });
  return groups.map(({ members, at }) => {
    const heights = members.map((i) => readings[i]!.heightMm);
    const [low, high] = [Math.min(...heights), Math.max(...heights)];
    if (high - low > CONTRADICTION_MM) {
      const named = members.map((i) => i + 1).join(' and ');
      throw new CoreError(
        'place.contradiction',
        `Readings ${named} are of one place and differ by ${(high - low).toFixed(2)} mm: read it again.`,
      );
    }
    return { ...at, heightMm: heights.reduce((sum, h) => sum + h, 0) / heights.length };
  });
}

function leastPlane(points: readonly HeightReading[]): WarpSurface['plane'] {
  const n = points.length;
  const mean = (get: (point: HeightReading) => number) => points.reduce((sum, point) => sum + get(point), 0) / n;
  const [mx, my, mh] = [mean(({ xMm }) => xMm), mean(({ yMm }) => yMm), mean(({ heightMm }) => heightMm)];
  let [xx, xy, yy, xh, yh] = [0, 0, 0, 0, 0];
  for (const { xMm, yMm, heightMm } of points) {
    const [x, y, h] = [xMm - mx, yMm - my, heightMm - mh];
    xx += x * x;
    xy += x * y;
    yy += y * y;
    xh += x * h;
    yh += y * h;
  }
  const determinant = xx * yy - xy * xy;
  if (determinant <= 1e-9 * (xx + yy) ** 2)
    throw new CoreError('place.points-in-line', 'The readings lie in a line: take one to the side of it.');
  const alongX = (xh * yy - yh * xy) / determinant;
  const alongY = (yh * xx - xh * xy) / determinant;
  return { at: mh - alongX * mx - alongY * my, alongX, alongY };
}

/** Interpolating thin-plate spline U(r) = r² ln r with its own affine part. */
function thinPlate(points: readonly HeightReading[], values: readonly number[]): (x: number, y: number) => number {
  const n = points.length;
  const bend = (r2: number) => (r2 > 0 ? 0.5 * r2 * Math.log(r2) : 0);
  const squared = (a: PlanePoint, x: number, y: number) => (a.xMm - x) ** 2 + (a.yMm - y) ** 2;
  const system = Matrix.zeros(n + 3, n + 3);
  points.forEach((p, i) => {
    points.forEach((q, j) => system.set(i, j, bend(squared(p, q.xMm, q.yMm))));
    [1, p.xMm, p.yMm].forEach((value, k) => {
      system.set(i, n + k, value);
      system.set(n + k, i, value);
    });
  });
  const solution = solve(system, Matrix.columnVector([...values, 0, 0, 0]), true).to1DArray();
  return (x, y) => {
    let sum = solution[n]! + solution[n + 1]! * x + solution[n + 2]! * y;
    for (let i = 0; i < n; i += 1) sum += solution[i]! * bend(squared(points[i]!, x, y));
    return sum;
  };
}

/** A rectangle of artwork on the part, mm. */
export interface ArtworkBox {
  readonly xMm: number;
  readonly yMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** What one focus height reaches of the artwork. */
export interface FocusStep {
  readonly focusMm: number;
  /** Share of the artwork that this step marks. */
  readonly share: number;
}

/** What to do about a part that is not flat. */
export const FLATNESS_ADVICE = ['accept', 'refocus', 'steps', 'clamp'] as const;
export type FlatnessAdvice = (typeof FLATNESS_ADVICE)[number];

export interface FlatnessPlan {
  /** Heights over the artwork on a grid, row by row from the bottom, mm. */
  readonly grid: { readonly columns: number; readonly rows: number; readonly heights: Float64Array };
  readonly lowMm: number;
  readonly highMm: number;
  /** Share of the artwork within the depth of focus with the focus where it is set. */
  readonly inFocus: number;
  /** The one focus height that reaches most, and what it reaches. */
  readonly best: FocusStep;
  /** The fewest steps of focus that reach everything. */
  readonly steps: readonly FocusStep[];
  readonly advice: FlatnessAdvice;
}

const COLUMNS = 48;
/** From this share on the rest comes out pale where nobody looks. */
const ENOUGH = 0.98;
/** More steps than this are not worth their seams: clamp the part, lay it anew, or take another. */
const MOST_STEPS = 4;

/**
 * How much of the artwork is in focus on a surface, which one focus height reaches most, and into how few focus steps the job splits.
 * @param depthMm half depth of focus, ± mm @param focusMm height the focus is set to, in the readings' own zero
 * @throws value.not-positive
 */
export function planFlatness(
  surface: WarpSurface,
  artwork: ArtworkBox,
  focus: { focusMm: number; depthMm: number },
): FlatnessPlan {
  const depth = requirePositive('depth of focus', focus.depthMm);
  requirePositive('width', artwork.widthMm);
  const columns = COLUMNS;
  const rows = Math.max(
    4,
    Math.min(COLUMNS, Math.round((COLUMNS * requirePositive('height', artwork.heightMm)) / artwork.widthMm)),
  );
  const heights = new Float64Array(columns * rows);
  for (let j = 0; j < rows; j += 1)
    for (let i = 0; i < columns; i += 1)
      heights[j * columns + i] = surface.heightAt(
        artwork.xMm + ((i + 0.5) / columns) * artwork.widthMm,
        artwork.yMm + ((j + 0.5) / rows) * artwork.heightMm,
      );
  const sorted = Float64Array.from(heights).sort();
  const within = (low: number, high: number) => (countTo(sorted, high) - countTo(sorted, low - 1e-12)) / sorted.length;
  const inFocus = within(focus.focusMm - depth, focus.focusMm + depth);
  const best = bestFocus(sorted, depth);
  const steps = focusSteps(sorted, depth);
  const advice: FlatnessAdvice =
    inFocus >= ENOUGH ? 'accept' : best.share >= ENOUGH ? 'refocus' : steps.length <= MOST_STEPS ? 'steps' : 'clamp';
  return {
    grid: { columns, rows, heights },
    lowMm: sorted[0]!,
    highMm: sorted.at(-1)!,
    inFocus,
    best,
    steps,
    advice,
  };
}

/** How many of the sorted values are at most a limit. */
function countTo(sorted: Float64Array, limit: number): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle]! <= limit) low = middle + 1;
    else high = middle;
  }
  return low;
}

function bestFocus(sorted: Float64Array, depth: number): FocusStep {
  let best = { focusMm: sorted[0]! + depth, share: 0 };
  let end = 0;
  for (let begin = 0; begin < sorted.length; begin += 1) {
    while (end < sorted.length && sorted[end]! <= sorted[begin]! + 2 * depth + 1e-12) end += 1;
    const share = (end - begin) / sorted.length;
    // In the middle of what it reaches, not at the end of its own reach.
    if (share > best.share) best = { focusMm: (sorted[begin]! + sorted[end - 1]!) / 2, share };
  }
  return best;
}

/** Greedy from the lowest: the fewest intervals of twice the depth that cover all heights. */
function focusSteps(sorted: Float64Array, depth: number): FocusStep[] {
  const steps: FocusStep[] = [];
  for (let begin = 0; begin < sorted.length;) {
    let end = begin;
    while (end < sorted.length && sorted[end]! <= sorted[begin]! + 2 * depth + 1e-12) end += 1;
    steps.push({ focusMm: (sorted[begin]! + sorted[end - 1]!) / 2, share: (end - begin) / sorted.length });
    begin = end;
  }
  return steps;
}
