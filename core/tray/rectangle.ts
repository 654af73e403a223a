import { convexCorners } from '../support/convex-corners.js';

/** A rectangle about its middle: its sides, and how the first of them lies, degrees counter-clockwise in [0, 90). */
export interface Rectangle {
  readonly x: number;
  readonly y: number;
  readonly along: number;
  readonly across: number;
  readonly turnDeg: number;
}

type Place = readonly [x: number, y: number];

/** The rectangle of least area about some places: one of its sides lies on one of their hull's. Source: Freeman & Shapira 1975. */
export function tightestRectangle(places: readonly Place[]): Rectangle {
  const hull = convexCorners(places);
  let best: Rectangle | null = null;
  hull.forEach((from, i) => {
    const to = hull[(i + 1) % hull.length]!;
    const turn = Math.atan2(to[1] - from[1], to[0] - from[0]);
    const found = boxAt(hull, turn - (Math.PI / 2) * Math.floor(turn / (Math.PI / 2)));
    if (!best || found.along * found.across < best.along * best.across) best = found;
  });
  return best!;
}

function boxAt(hull: readonly Place[], turn: number): Rectangle {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const [u, v] = [hull.map(([x, y]) => c * x + s * y), hull.map(([x, y]) => c * y - s * x)];
  const [u0, u1, v0, v1] = [Math.min(...u), Math.max(...u), Math.min(...v), Math.max(...v)];
  const [mu, mv] = [(u0 + u1) / 2, (v0 + v1) / 2];
  return { x: c * mu - s * mv, y: s * mu + c * mv, along: u1 - u0, across: v1 - v0, turnDeg: (180 * turn) / Math.PI };
}
