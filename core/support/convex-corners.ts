/**
 * Of places those at the corners of the convex polygon about them, by their first two parts, counter-clockwise; fewer than three as they are.
 * Source: Andrew 1979 (monotone chain).
 */
export function convexCorners<T extends readonly number[]>(places: readonly T[]): T[] {
  const sorted = [...places].sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!);
  return [...new Set([...chain(sorted), ...chain([...sorted].reverse())])];
}

function chain<T extends readonly number[]>(places: readonly T[]): T[] {
  const kept: T[] = [];
  for (const place of places) {
    while (kept.length > 1 && turn(kept.at(-2)!, kept.at(-1)!, place) <= 0) kept.pop();
    kept.push(place);
  }
  return kept;
}

const turn = (a: readonly number[], b: readonly number[], c: readonly number[]) =>
  (b[0]! - a[0]!) * (c[1]! - a[1]!) - (b[1]! - a[1]!) * (c[0]! - a[0]!);
