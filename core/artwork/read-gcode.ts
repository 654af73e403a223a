import { arcChords } from './flatten.js';
import { artworkOf, type Artwork, type ArtworkSaid } from './shapes.js';
import { CoreError } from '../support/core-error.js';

interface Machine {
  x: number;
  y: number;
  perUnit: number;
  absolute: boolean;
  motion: 0 | 1 | 2 | 3;
  power: number;
  lit: boolean;
}

/**
 * What a program of the common RS-274 subset (G0 to G3, G20, G21, G90, G91, M3, M4, M5, S) marks, as lines: moves other than G0 with the beam
 * on. Nothing else in it is followed.
 * @throws artwork.not-a-number, artwork.no-geometry, artwork.too-large; artwork.unreadable for an arc told by its radius
 */
export function gcodeArtwork(text: string, said: ArtworkSaid): Artwork {
  const at: Machine = { x: 0, y: 0, perUnit: 1, absolute: true, motion: 0, power: 0, lit: false };
  const lines: number[][] = [];
  let line: number[] | null = null;
  text.split(/\r?\n/).forEach((raw, index) => {
    const words = wordsOf(raw, index + 1);
    setModes(at, words);
    const [x, y] = [target(at, words.get('X'), at.x), target(at, words.get('Y'), at.y)];
    if (x === at.x && y === at.y && !(at.motion > 1 && (words.has('I') || words.has('J')))) return;
    if (at.motion === 0 || !at.lit || at.power <= 0) line = null;
    else {
      if (!line) lines.push((line = [at.x, at.y]));
      if (at.motion === 1) line.push(x, y);
      else arcTo(at, words, { x, y, line }, index + 1);
    }
    [at.x, at.y] = [x, y];
  });
  const rings = lines.map((corners) => Float64Array.from(corners));
  return artworkOf(rings.length ? [{ as: 'line', rule: 'nonzero', rings, drawnMm: null }] : [], [], said.widthMm);
}

/** The words of a line, comments left out; G and M words under their own name. */
function wordsOf(raw: string, line: number): Map<string, number> {
  const words = new Map<string, number>();
  const code = raw.replace(/\([^)]*\)|;.*$/g, '').toUpperCase();
  for (const [, letter, value] of code.matchAll(/([A-Z])\s*([-+.\dNIF]*)/g)) {
    if (!/^[GMXYIJSR]$/.test(letter!)) continue;
    const number = Number(value);
    if (value === '' || !Number.isFinite(number))
      throw new CoreError('artwork.not-a-number', `Line ${line}: “${letter}${value}” is not a number.`, { line });
    words.set(letter === 'G' || letter === 'M' ? `${letter}${number}` : letter!, number);
  }
  return words;
}

function setModes(at: Machine, words: ReadonlyMap<string, number>): void {
  if (words.has('G20')) at.perUnit = 25.4;
  if (words.has('G21')) at.perUnit = 1;
  if (words.has('G90')) at.absolute = true;
  if (words.has('G91')) at.absolute = false;
  for (const motion of [0, 1, 2, 3] as const) if (words.has(`G${motion}`)) at.motion = motion;
  if (words.has('M3') || words.has('M4')) at.lit = true;
  if (words.has('M5')) at.lit = false;
  at.power = words.get('S') ?? at.power;
}

function target({ absolute, perUnit }: Machine, word: number | undefined, from: number): number {
  if (word === undefined) return from;
  return absolute ? word * perUnit : from + word * perUnit;
}

function arcTo(
  at: Machine,
  words: ReadonlyMap<string, number>,
  to: { x: number; y: number; line: number[] },
  line: number,
): void {
  if (!words.has('I') && !words.has('J'))
    throw new CoreError('artwork.unreadable', `Line ${line}: an arc without its centre (I, J) is not read.`, { line });
  const [x, y] = [at.x + (words.get('I') ?? 0) * at.perUnit, at.y + (words.get('J') ?? 0) * at.perUnit];
  const from = Math.atan2(at.y - y, at.x - x);
  let by = Math.atan2(to.y - y, to.x - x) - from;
  if (at.motion === 2 && by >= -1e-12) by -= 2 * Math.PI;
  if (at.motion === 3 && by <= 1e-12) by += 2 * Math.PI;
  arcChords({ x, y, radius: Math.hypot(at.x - x, at.y - y), from, by }, to.line);
}
