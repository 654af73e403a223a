import { requirePositive } from '../support/require.js';
import type { ArtworkShape } from './shapes.js';

/** What a row marks: from, to along it (mm), and the segment each end lies on. Rows follow one another in `start`. */
export interface Spans {
  /** Rows lie at firstMm + k × spacingMm across their direction. */
  readonly firstMm: number;
  readonly spacingMm: number;
  readonly rows: number;
  /** Where each row's spans begin in the arrays below; one more than there are rows. */
  readonly start: Uint32Array;
  readonly from: Float64Array;
  readonly to: Float64Array;
  /** Direction of the segment an end lies on, as the unit part along the row: 0 where it crosses it square. */
  readonly fromLean: Float64Array;
  readonly toLean: Float64Array;
}

interface Segments {
  readonly count: number;
  readonly x0: Float64Array;
  readonly y0: Float64Array;
  readonly x1: Float64Array;
  readonly y1: Float64Array;
  readonly shape: Int32Array;
}

/** Ends nearer than this, mm, are one: pieces that only touch are marked through. */
const TOUCH_MM = 1e-6;

/**
 * The spans that rows of a hatch mark of filled shapes, drawn one over the other; lines are left out.
 * The hatch stands at an angle (degrees, counter-clockwise) about 0, 0: spans are told in its own coordinates, along and across.
 * Rows are centred on the shapes' extent, as many as rowCount says; each counts what it crosses, half open, so that a corner counts once.
 * @throws value.not-positive for the spacing
 */
export function spansOf(shapes: readonly ArtworkShape[], hatch: { spacingMm: number; angleDeg: number }): Spans {
  const spacing = requirePositive('interval', hatch.spacingMm);
  const filled = shapes.filter(({ as }) => as !== 'line');
  const segments = segmentsOf(filled, hatch.angleDeg);
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0; i < segments.count; i += 1) {
    low = Math.min(low, segments.y0[i]!, segments.y1[i]!);
    high = Math.max(high, segments.y0[i]!, segments.y1[i]!);
  }
  const height = high - low;
  if (!(height > 0)) return emptySpans(spacing);
  const rows = Math.max(1, Math.round(height / spacing));
  const first = low + height / 2 - ((rows - 1) / 2) * spacing;
  return sweep(filled, segments, { first, spacing, rows });
}

function emptySpans(spacingMm: number): Spans {
  const none = new Float64Array(0);
  return {
    ...{ firstMm: 0, spacingMm, rows: 0, start: new Uint32Array(1) },
    ...{ from: none, to: none, fromLean: none, toLean: none },
  };
}

function segmentsOf(shapes: readonly ArtworkShape[], angleDeg: number): Segments {
  const turn = (-angleDeg * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const count = shapes.reduce((sum, { rings }) => sum + rings.reduce((n, ring) => n + ring.length / 2, 0), 0);
  const of = () => new Float64Array(count);
  const made = { count, x0: of(), y0: of(), x1: of(), y1: of(), shape: new Int32Array(count) };
  let k = 0;
  shapes.forEach(({ rings }, index) => {
    for (const ring of rings) {
      const corners = ring.length / 2;
      for (let i = 0; i < corners; i += 1, k += 1) {
        const j = i + 1 === corners ? 0 : i + 1;
        const [ax, ay, bx, by] = [ring[2 * i]!, ring[2 * i + 1]!, ring[2 * j]!, ring[2 * j + 1]!];
        made.x0[k] = c * ax - s * ay;
        made.y0[k] = s * ax + c * ay;
        made.x1[k] = c * bx - s * by;
        made.y1[k] = s * bx + c * by;
        made.shape[k] = index;
      }
    }
  });
  return made;
}

interface Rows {
  readonly first: number;
  readonly spacing: number;
  readonly rows: number;
}

/** Rows a segment crosses: first, and one past the last. */
function crossed({ y0, y1 }: Segments, i: number, { first, spacing, rows }: Rows): readonly [number, number] {
  const [low, high] = y0[i]! < y1[i]! ? [y0[i]!, y1[i]!] : [y1[i]!, y0[i]!];
  return [Math.max(0, Math.ceil((low - first) / spacing)), Math.min(rows, Math.ceil((high - first) / spacing))];
}

/** Crossings of every row, sorted along it. */
function crossings(segments: Segments, rows: Rows) {
  const start = new Uint32Array(rows.rows + 1);
  for (let i = 0; i < segments.count; i += 1) {
    const [from, to] = crossed(segments, i, rows);
    for (let row = from; row < to; row += 1) start[row + 1]! += 1;
  }
  for (let row = 0; row < rows.rows; row += 1) start[row + 1]! += start[row]!;
  const next = start.slice();
  const at = new Float64Array(start[rows.rows]!);
  const of = new Int32Array(at.length);
  for (let i = 0; i < segments.count; i += 1) {
    const [from, to] = crossed(segments, i, rows);
    const slope = (segments.x1[i]! - segments.x0[i]!) / (segments.y1[i]! - segments.y0[i]!);
    for (let row = from; row < to; row += 1) {
      const k = next[row]!++;
      at[k] = segments.x0[i]! + (rows.first + row * rows.spacing - segments.y0[i]!) * slope;
      of[k] = i;
    }
  }
  return { start, at, of };
}

/** What covers a place of a row: a count of windings a shape, and which shapes are inside. */
class Cover {
  private readonly turns: Int32Array;
  private readonly inside: number[] = [];
  private readonly layered: boolean;

  constructor(private readonly shapes: readonly ArtworkShape[]) {
    this.turns = new Int32Array(shapes.length);
    this.layered = shapes.some(({ as }) => as === 'left bare');
  }

  cross(shape: number, up: boolean): void {
    const { rule } = this.shapes[shape]!;
    const was = this.isIn(shape, rule);
    this.turns[shape]! += up ? 1 : -1;
    const is = this.isIn(shape, rule);
    if (is === was) return;
    if (is) this.inside.push(shape);
    else this.inside.splice(this.inside.indexOf(shape), 1);
  }

  private isIn(shape: number, rule: ArtworkShape['rule']): boolean {
    return rule === 'nonzero' ? this.turns[shape] !== 0 : this.turns[shape]! % 2 !== 0;
  }

  /** Whether what lies on top here is marked. */
  get marks(): boolean {
    if (!this.layered) return this.inside.length > 0;
    return this.inside.length > 0 && this.shapes[Math.max(...this.inside)]!.as === 'marked';
  }
}

function sweep(shapes: readonly ArtworkShape[], segments: Segments, rows: Rows): Spans {
  const { start, at, of } = crossings(segments, rows);
  const most = at.length / 2 + 1;
  const made = {
    ...{ from: new Float64Array(most), to: new Float64Array(most) },
    ...{ fromLean: new Float64Array(most), toLean: new Float64Array(most) },
  };
  const startOf = new Uint32Array(rows.rows + 1);
  const cover = new Cover(shapes);
  let count = 0;
  for (let row = 0; row < rows.rows; row += 1) {
    const order = rowOrder(at, start[row]!, start[row + 1]!);
    let open = -1;
    for (const k of order) {
      const segment = of[k]!;
      const was = cover.marks;
      cover.cross(segments.shape[segment]!, segments.y1[segment]! > segments.y0[segment]!);
      const is = cover.marks;
      if (!was && is) {
        const touches = count > startOf[row]! && at[k]! - made.to[count - 1]! < TOUCH_MM;
        open = touches ? --count : count;
        if (!touches) [made.from[open], made.fromLean[open]] = [at[k]!, leanOf(segments, segment)];
      } else if (was && !is) {
        [made.to[open], made.toLean[open]] = [at[k]!, leanOf(segments, segment)];
        if (made.to[open]! - made.from[open]! > TOUCH_MM) count += 1;
      }
    }
    startOf[row + 1] = count;
  }
  const cut = (values: Float64Array) => values.slice(0, count);
  return {
    ...{ firstMm: rows.first, spacingMm: rows.spacing, rows: rows.rows, start: startOf },
    ...{ from: cut(made.from), to: cut(made.to), fromLean: cut(made.fromLean), toLean: cut(made.toLean) },
  };
}

/** Indices of a row's crossings along it. */
function rowOrder(at: Float64Array, from: number, to: number): number[] {
  const order: number[] = [];
  for (let k = from; k < to; k += 1) order.push(k);
  return order.sort((a, b) => at[a]! - at[b]!);
}

function leanOf({ x0, x1, y0, y1 }: Segments, i: number): number {
  const [dx, dy] = [x1[i]! - x0[i]!, y1[i]! - y0[i]!];
  // As if every segment went up, so that two that stand side by side lean alike.
  return ((dy < 0 ? -1 : 1) * dx) / Math.hypot(dx, dy);
}
