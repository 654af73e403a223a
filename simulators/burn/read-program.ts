/** A stretch of a program: a straight move, or a stop until somebody says go on. */
export interface Move {
  readonly kind: 'rapid' | 'feed' | 'stop';
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
  /** mm/s; 0 for rapids, which run as fast as the machine can. */
  readonly speedMmPerS: number;
  /** S word while moving; 0 with the beam off. */
  readonly power: number;
  /** M4: power follows the speed. */
  readonly scaled: boolean;
  /** Cell or piece it belongs to, its number less one; −1 for none. */
  readonly cell: number;
  /** What the last comment before a stop says. */
  readonly message: string;
  /** Focus above the surface that a stop asked somebody to set, mm; null as the head was set for the run. */
  readonly focusMm: number | null;
}

/** State of an RS-274 interpreter as far as the subset goes. */
interface Modal {
  x: number;
  y: number;
  absolute: boolean;
  scale: number;
  feed: number;
  s: number;
  on: 'off' | 'M3' | 'M4';
  motion: 0 | 1;
  cell: number;
  comment: string;
  focusMm: number | null;
}

/**
 * Moves of a G-code program: G0 G1 G20 G21 G90 G91 M0 M3 M4 M5 M30 S F X Y, comments in brackets or after a semicolon. G0 never fires.
 * @throws Error naming the line for anything else
 */
export function readProgram(text: string): Move[] {
  const state: Modal = {
    x: 0,
    y: 0,
    absolute: true,
    scale: 1,
    feed: 0,
    s: 0,
    on: 'off',
    motion: 0,
    cell: -1,
    comment: '',
    focusMm: null,
  };
  const moves: Move[] = [];
  text.split(/\r?\n/).forEach((line, i) => {
    const comment = /\(([^)]*)\)/.exec(line)?.[1];
    if (comment !== undefined) noteComment(state, comment);
    const code = line
      .replace(/\([^)]*\)/g, '')
      .replace(/;.*/, '')
      .trim()
      .toUpperCase();
    if (code) runLine(state, code, i + 1, moves);
  });
  return moves;
}

function noteComment(state: Modal, comment: string): void {
  state.comment = comment;
  const cell = /^(?:cell|piece) (\d+)\b/.exec(comment);
  if (cell) state.cell = Number(cell[1]) - 1;
  else if (/^(lay in|label|corner marks|QR|end|coupon)\b/.test(comment)) state.cell = -1;
}

function runLine(state: Modal, code: string, line: number, moves: Move[]): void {
  const words = Array.from(code.matchAll(/([A-Z])\s*([-+]?(?:\d+\.?\d*|\.\d+))/g));
  if (words.map(([word]) => word.replace(/\s/g, '')).join('') !== code.replace(/\s/g, ''))
    throw new Error(`Line ${line}: “${code}” is not understood.`);
  const target: { x?: number; y?: number } = {};
  let stop = false;
  for (const [, letter, digits] of words) {
    const value = Number(digits);
    if (letter === 'G') setG(state, value, line);
    else if (letter === 'M') stop = setM(state, value, line) || stop;
    else if (letter === 'X') target.x = value * state.scale;
    else if (letter === 'Y') target.y = value * state.scale;
    else if (letter === 'F') state.feed = (value * state.scale) / 60;
    else if (letter === 'S') state.s = value;
    else throw new Error(`Line ${line}: no machine here knows the word ${letter}.`);
  }
  if (target.x !== undefined || target.y !== undefined) moves.push(moveTo(state, target, line));
  if (!stop) return;
  moves.push({ ...still(state), kind: 'stop', message: state.comment });
  const focus = /focus offset (-?\d+(?:\.\d+)?) mm/.exec(state.comment)?.[1];
  state.focusMm = focus === undefined ? null : Number(focus);
}

function setG(state: Modal, value: number, line: number): void {
  if (value === 0 || value === 1) state.motion = value;
  else if (value === 20) state.scale = 25.4;
  else if (value === 21) state.scale = 1;
  else if (value === 90) state.absolute = true;
  else if (value === 91) state.absolute = false;
  else throw new Error(`Line ${line}: no machine here knows G${value}.`);
}

/** True for a stop. */
function setM(state: Modal, value: number, line: number): boolean {
  if (value === 0) return true;
  if (value === 3) state.on = 'M3';
  else if (value === 4) state.on = 'M4';
  else if (value === 5) state.on = 'off';
  else if (value !== 30 && value !== 2) throw new Error(`Line ${line}: no machine here knows M${value}.`);
  return false;
}

function still({ x, y, cell, focusMm }: Modal): Move {
  const place = { x0: x, y0: y, x1: x, y1: y };
  return { kind: 'stop', ...place, speedMmPerS: 0, power: 0, scaled: false, cell, message: '', focusMm };
}

function moveTo(state: Modal, target: { x?: number; y?: number }, line: number): Move {
  const base = state.absolute ? { x: 0, y: 0 } : { x: state.x, y: state.y };
  const x1 = target.x === undefined ? state.x : base.x + target.x;
  const y1 = target.y === undefined ? state.y : base.y + target.y;
  const feed = state.motion === 1;
  if (feed && !(state.feed > 0)) throw new Error(`Line ${line}: G1 without a feed.`);
  const move: Move = {
    ...still(state),
    kind: feed ? 'feed' : 'rapid',
    x1,
    y1,
    speedMmPerS: feed ? state.feed : 0,
    power: feed && state.on !== 'off' ? state.s : 0,
    scaled: state.on === 'M4',
  };
  state.x = x1;
  state.y = y1;
  return move;
}
