import svgpath from 'svgpath';
import { CoreError } from '../support/core-error.js';
import { cubicChords, quadraticChords } from './flatten.js';
import type { Ring } from './shapes.js';
import type { SvgNode } from './svg-tree.js';

/** a, b, c, d, e, f of SVG: x′ = a·x + c·y + e, y′ = b·x + d·y + f. */
export type Matrix = readonly [number, number, number, number, number, number];

export const UNMOVED: Matrix = [1, 0, 0, 1, 0, 0];

/** First b, then a. */
export function times(a: Matrix, b: Matrix): Matrix {
  return [
    a[0] * b[0] + a[2] * b[1],
    a[1] * b[0] + a[3] * b[1],
    a[0] * b[2] + a[2] * b[3],
    a[1] * b[2] + a[3] * b[3],
    a[0] * b[4] + a[2] * b[5] + a[4],
    a[1] * b[4] + a[3] * b[5] + a[5],
  ];
}

/** The matrix of a transform attribute, read off where it puts three points. */
export function transformOf(text: string | undefined): Matrix {
  if (!text) return UNMOVED;
  const at: number[] = [];
  svgpath('M0 0L1 0L0 1')
    .transform(text)
    .iterate(([, x, y]) => void at.push(x as number, y as number));
  const [e, f, x1, y1, x2, y2] = at as [number, number, number, number, number, number];
  return [x1 - e, y1 - f, x2 - e, y2 - f, e, f];
}

/** By how much a matrix enlarges, as the root of its area. */
export function scaleOf([a, b, c, d]: Matrix): number {
  return Math.sqrt(Math.abs(a * d - b * c));
}

/** Units of a length and how many of a pixel (1/96 in) each is. Source: CSS Values 3. */
const PX_PER_UNIT: Readonly<Record<string, number>> = {
  ...{ '': 1, px: 1, in: 96, mm: 96 / 25.4, cm: 960 / 25.4, q: 24 / 25.4, pt: 4 / 3, pc: 16 },
};
export const MM_PER_PX = 25.4 / 96;

/** A length in pixels; null for one that is not told (missing, or a share of something). @throws artwork.not-a-number */
export function lengthPx(text: string | undefined): number | null {
  if (text === undefined || text.trim() === '' || text.includes('%') || text.trim() === 'auto') return null;
  const [, value, unit] = /^\s*([-+.\deE]+?)\s*([a-zA-Z]*)\s*$/.exec(text) ?? [];
  const perUnit = PX_PER_UNIT[(unit ?? '').toLowerCase()];
  const number = Number(value);
  if (perUnit === undefined || !Number.isFinite(number))
    throw new CoreError('artwork.not-a-number', `“${text}” is no length.`);
  return number * perUnit;
}

/** The path an element draws, in its own coordinates; null for one that draws none. @throws artwork.not-a-number */
export function pathOf({ name, attributes }: SvgNode): string | null {
  const n = (key: string) => lengthPx(attributes[key]) ?? 0;
  switch (name) {
    case 'path':
      return attributes['d'] ?? '';
    case 'rect':
      return rectPath(n('x'), n('y'), n('width'), n('height'), attributes);
    case 'circle':
      return ellipsePath(n('cx'), n('cy'), n('r'), n('r'));
    case 'ellipse':
      return ellipsePath(n('cx'), n('cy'), n('rx'), n('ry'));
    case 'line':
      return `M${n('x1')} ${n('y1')}L${n('x2')} ${n('y2')}`;
    case 'polyline':
    case 'polygon': {
      const points = (attributes['points'] ?? '').trim();
      return points ? `M${points}${name === 'polygon' ? 'Z' : ''}` : '';
    }
    default:
      return null;
  }
}

function rectPath(x: number, y: number, w: number, h: number, attributes: SvgNode['attributes']): string {
  if (!(w > 0) || !(h > 0)) return '';
  const [saidX, saidY] = [lengthPx(attributes['rx']), lengthPx(attributes['ry'])];
  const rx = Math.min(w / 2, Math.max(0, saidX ?? saidY ?? 0));
  const ry = Math.min(h / 2, Math.max(0, saidY ?? saidX ?? 0));
  if (!rx || !ry) return `M${x} ${y}H${x + w}V${y + h}H${x}Z`;
  const arc = (dx: number, dy: number) => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
  return (
    `M${x + rx} ${y}H${x + w - rx}${arc(rx, ry)}V${y + h - ry}${arc(-rx, ry)}` +
    `H${x + rx}${arc(-rx, -ry)}V${y + ry}${arc(rx, -ry)}Z`
  );
}

function ellipsePath(x: number, y: number, rx: number, ry: number): string {
  if (!(rx > 0) || !(ry > 0)) return '';
  return `M${x - rx} ${y}a${rx} ${ry} 0 1 0 ${2 * rx} 0a${rx} ${ry} 0 1 0 ${-2 * rx} 0Z`;
}

/**
 * Rings of a path under a matrix that brings it to mm, curves cut into chords, a closed one ending where it began.
 * @throws artwork.not-a-number for a path that cannot be read
 */
export function ringsOf(path: string, matrix: Matrix): Ring[] {
  if (!path) return [];
  const read = svgpath(path);
  const fault = (read as unknown as { err: string }).err;
  if (fault) throw new CoreError('artwork.not-a-number', `A path cannot be read: ${fault.replace(/^SvgPath: /, '')}.`);
  const rings: number[][] = [];
  let ring: number[] = [];
  read
    .abs()
    .unshort()
    .unarc()
    .matrix([...matrix])
    .abs()
    .iterate((segment, _, x, y) => {
      const [letter, ...at] = segment as [string, ...number[]];
      if (letter === 'M') rings.push((ring = [...at]));
      else if (letter === 'Z') {
        const [x0, y0] = ring as [number, number];
        if (ring[ring.length - 2] !== x0 || ring[ring.length - 1] !== y0) ring.push(x0, y0);
        // What goes on without a move begins where the ring did.
        rings.push((ring = [x0, y0]));
      } else if (letter === 'C') cubicChords([x, y, ...at], ring);
      else if (letter === 'Q') quadraticChords([x, y, ...at], ring);
      else if (letter === 'H') ring.push(at[0]!, y);
      else if (letter === 'V') ring.push(x, at[0]!);
      else ring.push(...at);
    });
  return rings.filter((corners) => corners.length >= 4).map((corners) => Float64Array.from(corners));
}
