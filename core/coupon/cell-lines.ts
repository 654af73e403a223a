import type { CouponDesign } from './design.js';
import { hatchLines, type HatchLine } from './hatch.js';
import type { CouponCell } from './layout.js';

/** What of a setting shapes a cell's lines. */
export type LineShape = Pick<CouponCell, 'intervalMm' | 'angleDeg' | 'hatches'>;

/**
 * The lines of one pass over a cell in marking order, mm from its lower left corner: its hatch, hatched again at a right angle where
 * it is crossed; separate lines; or the piece of the artwork, cut off at the cell's edges.
 */
export function cellLines(design: CouponDesign, shape: LineShape): HatchLine[] {
  if (design.fill === 'artwork') return artworkLines(design);
  const intervalMm = design.fill === 'filled' ? shape.intervalMm : design.lineSpacingMm;
  const { directions } = design;
  const one = hatchLines(design.cell, { intervalMm, angleDeg: shape.angleDeg, directions });
  if (shape.hatches < 2) return one;
  const across = shape.angleDeg > 0 ? shape.angleDeg - 90 : shape.angleDeg + 90;
  return [...one, ...hatchLines(design.cell, { intervalMm, angleDeg: across, directions })];
}

/** Cells with the same key have the same lines at the same speed. */
export function lineKey({ intervalMm, angleDeg, hatches, speedMmPerS }: LineShape & { speedMmPerS: number }): string {
  return `${intervalMm}|${angleDeg}|${hatches}|${speedMmPerS}`;
}

function artworkLines({ artwork, cell }: CouponDesign): HatchLine[] {
  return (artwork?.strokes ?? []).flatMap((stroke) =>
    stroke.slice(1).flatMap(([x1, y1], i) => {
      const [x0, y0] = stroke[i]!;
      const line = clipped({ x0, y0, x1, y1 }, cell);
      return line ? [line] : [];
    }),
  );
}

/** The part of a line inside a rectangle. Source: Liang & Barsky 1984. */
function clipped(line: HatchLine, { widthMm, heightMm }: CouponDesign['cell']): HatchLine | null {
  const [dx, dy] = [line.x1 - line.x0, line.y1 - line.y0];
  let [from, to] = [0, 1];
  for (const [p, q] of [
    [-dx, line.x0],
    [dx, widthMm - line.x0],
    [-dy, line.y0],
    [dy, heightMm - line.y0],
  ] as const) {
    if (p === 0 && q < 0) return null;
    if (p === 0) continue;
    if (p < 0) from = Math.max(from, q / p);
    else to = Math.min(to, q / p);
  }
  if (to - from < 1e-9) return null;
  const at = (t: number) => [line.x0 + dx * t, line.y0 + dy * t] as const;
  const [[x0, y0], [x1, y1]] = [at(from), at(to)];
  return { x0, y0, x1, y1 };
}
