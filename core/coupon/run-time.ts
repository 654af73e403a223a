import { jumpTime, moveTime, overscan, type RowMotion } from '../time/raster.js';
import { burnOrder } from './burn-order.js';
import { cellLines, lineKey } from './cell-lines.js';
import { markStrokes } from './mark-strokes.js';
import type { Point } from '../lettering/label-strokes.js';
import type { CouponCell, CouponLayout } from './layout.js';

/** Two strokes in line run into each other without a stop where their directions differ by less than this, as a cosine (2°). */
const STRAIGHT = Math.cos((2 * Math.PI) / 180);

/** The lines of one pass over a cell: how long they take from the cell's corner on, and where they end off that corner. */
interface CellRun {
  readonly seconds: number;
  readonly end: Point;
}

/**
 * Seconds to run a coupon as its program runs it: labels, corner marks and QR, every cell's rows with run-up and the step to the next
 * row, and all moves between them, from one end to the other.
 * @param spotMm width of the spot, for the rows of a QR symbol
 */
export function couponRunTime(layout: CouponLayout, motion: RowMotion, spotMm?: number): number {
  const jump = jumpTime(motion);
  let at: Point = [0, 0];
  let seconds = 0;
  const go = (to: Point) => {
    seconds += jump(distance(at, to));
    at = to;
  };
  for (const stroke of markStrokes(layout, spotMm)) {
    go(stroke[0]!);
    seconds += strokeTime(stroke, layout.design.labels.speedMmPerS, motion);
    at = stroke.at(-1)!;
  }
  const known = new Map<string, CellRun>();
  for (const cell of burnOrder(layout)) {
    const key = lineKey(cell);
    if (!known.has(key)) known.set(key, cellRun(cell, layout, motion));
    const { seconds: once, end } = known.get(key)!;
    for (let pass = 0; pass < cell.passes; pass += 1) {
      go([cell.xMm, cell.yMm]);
      seconds += once;
      at = [cell.xMm + end[0], cell.yMm + end[1]];
    }
  }
  go([0, 0]);
  return seconds;
}

function cellRun(cell: CouponCell, { design }: CouponLayout, motion: RowMotion): CellRun {
  const jump = jumpTime(motion);
  const runUp = overscan(cell.speedMmPerS, motion);
  let at: Point = [0, 0];
  let seconds = 0;
  for (const { x0, y0, x1, y1 } of cellLines(design, cell)) {
    const length = Math.hypot(x1 - x0, y1 - y0);
    const [ux, uy] = [(x1 - x0) / length, (y1 - y0) / length];
    seconds += jump(distance(at, [x0 - ux * runUp, y0 - uy * runUp]));
    // Run-up, line and run-out lie in one line: up to speed, along, and to rest.
    seconds +=
      motion.kind === 'gantry'
        ? moveTime(length + 2 * runUp, cell.speedMmPerS, motion.accelerationMmPerS2)
        : length / cell.speedMmPerS;
    at = [x1 + ux * runUp, y1 + uy * runUp];
  }
  return { seconds, end: at };
}

/** A stroke at a speed: pieces in line without a stop between them, all others from rest to rest. */
function strokeTime(stroke: readonly Point[], speedMmPerS: number, motion: RowMotion): number {
  if (motion.kind === 'galvo') {
    const corners = Math.max(0, stroke.length - 2);
    const length = stroke.slice(1).reduce((sum, point, i) => sum + distance(stroke[i]!, point), 0);
    return length / speedMmPerS + corners * motion.delayS;
  }
  const runs: number[] = [];
  stroke.slice(1).forEach((point, i) => {
    const length = distance(stroke[i]!, point);
    if (i > 0 && straightOn(stroke[i - 1]!, stroke[i]!, point)) runs[runs.length - 1]! += length;
    else runs.push(length);
  });
  return runs.reduce((sum, length) => sum + moveTime(length, speedMmPerS, motion.accelerationMmPerS2), 0);
}

function straightOn(a: Point, b: Point, c: Point): boolean {
  const dot = (b[0] - a[0]) * (c[0] - b[0]) + (b[1] - a[1]) * (c[1] - b[1]);
  return dot > STRAIGHT * distance(a, b) * distance(b, c);
}

function distance(a: Point, b: Point): number {
  return Math.hypot(b[0] - a[0], b[1] - a[1]);
}
