import { parseString, toPolylines } from 'dxf';
import { CoreError } from '../support/core-error.js';
import { artworkOf, type Artwork, type ArtworkSaid, type ArtworkShape, type Ring } from './shapes.js';

/** Millimetres of the units a drawing may name. Source: DXF reference, $INSUNITS. */
const MM_PER_UNIT: Readonly<Record<number, number>> = { 1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000, 13: 0.001, 14: 100 };
/** What is drawn as strokes; anything else in a drawing is left out and said. */
const DRAWN = ['LINE', 'LWPOLYLINE', 'POLYLINE', 'CIRCLE', 'ARC', 'ELLIPSE', 'SPLINE', 'INSERT'];
/** Ends of strokes nearer than this are joined, mm. */
const JOIN_MM = 0.01;

/**
 * What a DXF draws, blocks put in their places: lines, polylines with bulges, circles, arcs, ellipses and splines, by the package dxf, which
 * cuts curves at 5°: within a thousandth of their radius. Strokes that meet end to end are joined; closed ones are filled or followed as said.
 * @throws artwork.no-units where neither the drawing nor anybody says in what it is drawn; artwork.unreadable, artwork.no-geometry,
 *   artwork.not-a-number
 */
export function dxfArtwork(text: string, said: ArtworkSaid): Artwork {
  const { parsed, strokes } = read(text);
  const named = MM_PER_UNIT[parsed.header.insUnits ?? 0];
  const unit = said.unit ? { mm: 1, in: 25.4 }[said.unit] : named;
  if (!strokes.length)
    throw new CoreError('artwork.no-geometry', `Nothing in this drawing can be marked. ${leftOut(parsed)}`);
  if (unit === undefined)
    throw new CoreError('artwork.no-units', 'This drawing does not say its unit: is it in millimetres or inches?', {
      path: 'unit',
    });
  const joined = joinStrokes(strokes.map((stroke) => stroke.map((at) => at * unit)));
  const closed = joined.filter(isClosed);
  const filled = said.closed === 'filled' && closed.length > 0;
  const lines = filled ? joined.filter((ring) => !isClosed(ring)) : joined;
  const shapes: ArtworkShape[] = [
    ...(filled ? [{ as: 'marked' as const, rule: 'evenodd' as const, rings: closed, drawnMm: null }] : []),
    ...(lines.length ? [{ as: 'line' as const, rule: 'nonzero' as const, rings: lines, drawnMm: null }] : []),
  ];
  return artworkOf(shapes, [leftOut(parsed)].filter(Boolean), said.widthMm);
}

type Parsed = ReturnType<typeof parseString>;

function read(text: string): { parsed: Parsed; strokes: Ring[] } {
  try {
    const parsed = parseString(text);
    const { polylines } = toPolylines(parsed);
    const strokes = polylines.filter(({ vertices }) => vertices.length > 1);
    return { parsed, strokes: strokes.map(({ vertices }) => Float64Array.from(vertices.flat())) };
  } catch {
    throw new CoreError('artwork.unreadable', 'This drawing is damaged, or not a DXF of text.');
  }
}

function leftOut({ entities }: Parsed): string {
  const counts = new Map<string, number>();
  for (const { type } of entities) if (!DRAWN.includes(type)) counts.set(type, (counts.get(type) ?? 0) + 1);
  if (!counts.size) return '';
  return `Left out: ${[...counts].map(([type, count]) => `${count} × ${type}`).join(', ')}.`;
}

function isClosed(ring: Ring): boolean {
  const last = ring.length - 2;
  return ring.length >= 8 && Math.hypot(ring[0]! - ring[last]!, ring[1]! - ring[last + 1]!) <= JOIN_MM;
}

/** Joins strokes whose ends meet, whichever way round they were drawn. */
function joinStrokes(strokes: readonly Ring[]): Ring[] {
  const done: Ring[] = strokes.filter(isClosed);
  const open = new Set(strokes.filter((stroke) => !isClosed(stroke)));
  const ends = new Map<string, Set<Ring>>();
  const cells = (x: number, y: number) =>
    [-1, 0, 1].flatMap((i) => [-1, 0, 1].map((j) => `${Math.round(x / JOIN_MM) + i} ${Math.round(y / JOIN_MM) + j}`));
  const home = (x: number, y: number) => `${Math.round(x / JOIN_MM)} ${Math.round(y / JOIN_MM)}`;
  const endsOf = (ring: Ring) => [home(ring[0]!, ring[1]!), home(ring[ring.length - 2]!, ring[ring.length - 1]!)];
  for (const ring of open) for (const key of endsOf(ring)) ends.set(key, (ends.get(key) ?? new Set()).add(ring));
  for (const ring of strokes) {
    if (!open.delete(ring)) continue;
    const corners = [...ring];
    for (;;) {
      const [x, y] = corners.slice(-2) as [number, number];
      const next = cells(x, y)
        .flatMap((key) => [...(ends.get(key) ?? [])])
        .find((other) => open.has(other) && nearEnd(other, x, y) !== null);
      if (!next) break;
      open.delete(next);
      corners.push(...turned(next, nearEnd(next, x, y) === 'last').slice(2));
    }
    done.push(Float64Array.from(corners));
  }
  return done;
}

function nearEnd(ring: Ring, x: number, y: number): 'first' | 'last' | null {
  const last = ring.length - 2;
  if (Math.hypot(ring[0]! - x, ring[1]! - y) <= JOIN_MM) return 'first';
  return Math.hypot(ring[last]! - x, ring[last + 1]! - y) <= JOIN_MM ? 'last' : null;
}

function turned(ring: Ring, back: boolean): number[] {
  if (!back) return [...ring];
  return Array.from({ length: ring.length / 2 }, (_, i) => [
    ring[ring.length - 2 - 2 * i]!,
    ring[ring.length - 1 - 2 * i]!,
  ]).flat();
}
