import { commentText, feedWord, powerWord, RelativeMoves, type FiringWords } from '../formats/gcode.js';
import { mmText } from '../formats/xml.js';
import { overscan } from '../time/raster.js';
import type { MarkedAs, ProgramSetting } from './program-setting.js';
import { placed, type ArtworkShape, type Ring } from './shapes.js';
import { spansOf, type Spans } from './spans.js';

/** A piece of a job: where the artwork's 0, 0 comes to lie, turned about it, and what is on it. Number from 1. */
export interface ProgramPiece {
  readonly number: number;
  readonly name: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly turnDeg: number;
  /** The same object on pieces that carry the same. */
  readonly shapes: readonly ArtworkShape[];
  /** What is on this piece alone. */
  readonly own: readonly ArtworkShape[];
}

export interface ProgramOptions extends FiringWords, MarkedAs {
  readonly title: string;
  /** Pieces are laid in one after the other at the same place: it stops (M0) before each but the first. */
  readonly oneByOne: boolean;
}

/**
 * A run of pieces as G-code, in parts: the subset of the coupon's program, mm, origin as the places have it. Each piece is named in a comment
 * before it begins. Rows run up and out beside the marks, the beam dark there and over what is left bare; it is put out before every rapid
 * move. A piece is told in relative moves from its own place, so that pieces alike are worked out once.
 */
export function* programParts(
  pieces: readonly ProgramPiece[],
  setting: ProgramSetting,
  options: ProgramOptions,
): Generator<string> {
  yield `(${commentText(options.title)}, ${pieces.length} pieces)\n(keep the enclosure shut; never leave a running laser)\nG21\nG90\nM5\n`;
  const known = new Map<string, Map<readonly ArtworkShape[], string>>();
  for (const piece of pieces) {
    const turned = String(piece.turnDeg);
    const bodies = known.get(turned) ?? new Map<readonly ArtworkShape[], string>();
    known.set(turned, bodies);
    const bodyOf = (shapes: readonly ArtworkShape[]) =>
      bodyText(placed(shapes, { ...ORIGIN, turnDeg: piece.turnDeg }), setting, options);
    let shared = bodies.get(piece.shapes);
    if (shared === undefined) bodies.set(piece.shapes, (shared = bodyOf(piece.shapes)));
    const start = `S0\nG90\nG0 X${mmText(piece.xMm)} Y${mmText(piece.yMm)}\nG91\n`;
    if (options.oneByOne && piece !== pieces[0]) yield `(lay in piece ${piece.number}, then go on)\nM0\n`;
    const own = piece.own.length ? bodyOf(piece.own) : '';
    yield (
      `(piece ${piece.number}: ${commentText(piece.name)})\nG90\n${options.laserOn} S0\nG1 F${feedWord(setting.speedMmPerS)}\n` +
      [shared, own]
        .filter(Boolean)
        .map((body) => start + body)
        .join('') +
      'G90\nM5\n'
    );
  }
  yield 'M5\nG90\nG0 X0 Y0\n(end)\n';
}

const ORIGIN = { xMm: 0, yMm: 0 };

/** One body: each pass begins where the piece lies and comes back to it. */
function bodyText(shapes: readonly ArtworkShape[], setting: ProgramSetting, options: ProgramOptions): string {
  const s = powerWord(setting.powerPercent, options);
  const moves = new RelativeMoves();
  const lines: string[] = [];
  const filled = shapes.filter(({ as }) => as !== 'line');
  const follow = (rings: readonly Ring[]) => rings.forEach((ring) => followed(ring, s, moves, lines));
  for (let pass = 0; pass < setting.passes; pass += 1) {
    if (options.work !== 'lines' && options.outlineFirst)
      follow(filled.filter(({ as }) => as === 'marked').flatMap(({ rings }) => rings.map(closed)));
    if (options.work !== 'lines') rowsOf(filled, setting, options, { s, moves, lines });
    if (options.work !== 'fill') follow(shapes.filter(({ as }) => as === 'line').flatMap(({ rings }) => rings));
  }
  if (lines.length) lines.push('S0', moves.to('G0', 0, 0));
  return lines.length ? `${lines.join('\n')}\n` : '';
}

function followed(ring: Ring, s: string, moves: RelativeMoves, lines: string[]): void {
  lines.push('S0', moves.to('G0', ring[0]!, ring[1]!));
  for (let i = 2; i < ring.length; i += 2)
    lines.push(moves.to('G1', ring[i]!, ring[i + 1]!) + (i === 2 ? ` S${s}` : ''));
}

function closed(ring: Ring): Ring {
  const last = ring.length - 2;
  if (ring[0] === ring[last] && ring[1] === ring[last + 1]) return ring;
  return Float64Array.from([...ring, ring[0]!, ring[1]!]);
}

interface Out {
  readonly s: string;
  readonly moves: RelativeMoves;
  readonly lines: string[];
}

function rowsOf(shapes: readonly ArtworkShape[], setting: ProgramSetting, { motion }: ProgramOptions, out: Out): void {
  const crossed = setting.angleDeg + (setting.angleDeg > 0 ? -90 : 90);
  const angles = setting.hatches > 1 ? [setting.angleDeg, crossed] : [setting.angleDeg];
  const runUp = overscan(setting.speedMmPerS, motion);
  let back = false;
  for (const angleDeg of angles) {
    const spans = spansOf(shapes, { spacingMm: setting.intervalMm, angleDeg });
    const turn = (angleDeg * Math.PI) / 180;
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    for (let row = 0; row < spans.rows; row += 1) {
      const ends = endsOf(spans, row);
      if (!ends.length) continue;
      const across = spans.firstMm + row * spans.spacingMm;
      const move = (by: 'G0' | 'G1', along: number) => out.moves.to(by, c * along - s * across, s * along + c * across);
      rowText(back ? ends.reverse().map(([from, to]) => [to, from] as const) : ends, runUp, move, out);
      if (setting.directions === 'two-way') back = !back;
    }
  }
}

function endsOf({ start, from, to }: Spans, row: number): (readonly [number, number])[] {
  const ends: (readonly [number, number])[] = [];
  for (let k = start[row]!; k < start[row + 1]!; k += 1) ends.push([from[k]!, to[k]!]);
  return ends;
}

/** A row: run-up, marks with the dark between them at speed, run-out. */
function rowText(
  ends: readonly (readonly [number, number])[],
  runUp: number,
  move: (by: 'G0' | 'G1', along: number) => string,
  { s, lines }: Out,
): void {
  const [begin, end] = [ends[0]![0], ends[ends.length - 1]![1]];
  const way = Math.sign(end - begin);
  lines.push('S0', move('G0', begin - way * runUp));
  for (const [from, to] of ends) {
    if (from !== begin || runUp > 0) lines.push(`${move('G1', from)} S0`);
    lines.push(`${move('G1', to)} S${s}`);
  }
  if (runUp > 0) lines.push(`${move('G1', end + way * runUp)} S0`);
}
