import type { Fault } from '../faults/symptoms.js';
import { median } from '../statistics/index.js';
import type { MarkReading } from './read-marked-piece.js';
import type { TrayPiece } from './read-tray.js';

/** What a mark of a recipe is expected to read, L*: nine of ten between low and high. */
export interface ExpectedContrast {
  readonly mean: number;
  readonly low: number;
  readonly high: number;
}

/** What a picture tells of a piece, in the words of the faults that are looked for; somebody decides. */
export const TRAY_FINDINGS = [
  'washed off whole',
  'pale all over',
  'faint in one corner',
  'pale along one edge',
  'patchy',
  'faint strokes',
  'halo or brown',
  'residue left',
  'out of place',
] as const satisfies readonly Fault[];
export type TrayFindingKind = (typeof TRAY_FINDINGS)[number];

export interface TrayFinding {
  readonly kind: TrayFindingKind;
  readonly words: string;
  /** Where on the mark, as shares of it from its upper left; null for all of it. */
  readonly spot: { readonly x: number; readonly y: number } | null;
}

/** Limits of what a picture is let pass, all common practice: shares of a contrast, L*, mm. */
export const TRAY_LIMITS = {
  lost: 0.35,
  /** Below what is expected by more than so many standard deviations of the reading. */
  sure: 2,
  part: 0.8,
  partL: 4,
  evenness: 0.8,
  coverage: 0.9,
  halo: 0.15,
  haloL: 5,
  strokes: 0.6,
  residue: 0.06,
  placeMm: 1.2,
} as const;

/** Where the parts of a mark lie, from its lower left: as said, and as shares from the upper left. */
const PART_WORDS = [
  ['lower left corner', 1 / 6, 5 / 6],
  ['lower edge', 1 / 2, 5 / 6],
  ['lower right corner', 5 / 6, 5 / 6],
  ['left edge', 1 / 6, 1 / 2],
  ['middle', 1 / 2, 1 / 2],
  ['right edge', 5 / 6, 1 / 2],
  ['upper left corner', 1 / 6, 1 / 6],
  ['upper edge', 1 / 2, 1 / 6],
  ['upper right corner', 5 / 6, 1 / 6],
] as const;

const CORNERS: readonly number[] = [0, 2, 6, 8];
const MIDDLE = 4;

/**
 * What of the pieces of a tray is not as its recipe lets expect, piece by piece.
 * @param expected by the recipe's window; null where none tells, and the pieces are held against each other
 * @param sign 1 for marks darker than their ground, −1 for lighter ones
 */
export function trayFindings(
  pieces: readonly TrayPiece[],
  expected: ExpectedContrast | null,
  sign: 1 | -1,
): TrayFinding[][] {
  const read = pieces.flatMap(({ reading }) => (reading ? [sign * reading.contrast] : []));
  const usual = expected ?? { mean: median(read, 0), low: 0.85 * median(read, 0), high: Infinity };
  return pieces.map(({ reading, offset }) => {
    if (!reading) return [];
    const whole = lostOrPale(sign * reading.contrast, reading.sd, usual, expected !== null);
    if (whole?.kind === 'washed off whole') return [whole];
    const parts = faintParts(reading, sign);
    return [...(whole && !parts.length ? [whole] : []), ...parts, ...ofTheRest(reading, sign), ...place(offset)];
  });
}

function lostOrPale(contrast: number, sd: number, usual: ExpectedContrast, told: boolean): TrayFinding | null {
  const says = `reads ${contrast.toFixed(0)} L*`;
  const against = told
    ? `expected ${usual.mean.toFixed(0)}, ${usual.low.toFixed(0)} to ${usual.high.toFixed(0)}`
    : `the others read ${usual.mean.toFixed(0)}`;
  if (contrast < TRAY_LIMITS.lost * usual.mean)
    return { kind: 'washed off whole', words: `${says}; ${against}`, spot: null };
  if (contrast < usual.low - TRAY_LIMITS.sure * sd)
    return { kind: 'pale all over', words: `${says}; ${against}`, spot: null };
  return null;
}

/** Parts of a mark that are paler than the rest of it: a corner, or the three of one edge. */
function faintParts({ parts }: MarkReading, sign: 1 | -1): TrayFinding[] {
  const told = parts.flatMap((part) => (part === null ? [] : [sign * part]));
  if (told.length < 4) return [];
  const usual = median(told);
  const isFaint = (part: number | null | undefined) =>
    part !== null &&
    part !== undefined &&
    sign * part < TRAY_LIMITS.part * usual &&
    usual - sign * part > TRAY_LIMITS.partL;
  const faint = parts.flatMap((part, i) => (isFaint(part) ? [i] : []));
  if (!faint.length) return [];
  const worst = faint.reduce((least, i) => (sign * parts[i]! < sign * parts[least]! ? i : least));
  const [name, x, y] = PART_WORDS[worst]!;
  const words = `${name} reads ${(sign * parts[worst]!).toFixed(0)} L*, the rest ${usual.toFixed(0)}`;
  const edge = [
    [0, 1, 2],
    [6, 7, 8],
    [0, 3, 6],
    [2, 5, 8],
  ].find((three) => three.includes(worst) && three.every((i) => parts[i] === null || faint.includes(i)));
  const alone = CORNERS.includes(worst) ? 'faint in one corner' : worst === MIDDLE ? 'patchy' : 'pale along one edge';
  return [{ kind: edge ? 'pale along one edge' : alone, words, spot: { x, y } }];
}

function ofTheRest(reading: MarkReading, sign: 1 | -1): TrayFinding[] {
  const { contrast, strokes, evenness, coverage, halo, residue } = reading;
  const found: TrayFinding[] = [];
  const percent = (share: number) => `${(100 * share).toFixed(0)} %`;
  if (evenness < TRAY_LIMITS.evenness || coverage < TRAY_LIMITS.coverage)
    found.push({
      kind: 'patchy',
      words: `evenness ${evenness.toFixed(2)}, ${percent(coverage)} of the mark came out`,
      spot: null,
    });
  if (strokes !== null && sign * strokes < TRAY_LIMITS.strokes * sign * contrast)
    found.push({
      kind: 'faint strokes',
      words: `single strokes read ${(sign * strokes).toFixed(0)} L*, fills ${(sign * contrast).toFixed(0)}: follow them slower, or fill them`,
      spot: null,
    });
  if (halo > Math.max(TRAY_LIMITS.haloL, TRAY_LIMITS.halo * sign * contrast))
    found.push({ kind: 'halo or brown', words: `the ground beside it is ${halo.toFixed(0)} L* darker`, spot: null });
  if (residue > TRAY_LIMITS.residue)
    found.push({ kind: 'residue left', words: `${percent(residue)} of the bare ground is not bare`, spot: null });
  return found;
}

function place(offset: TrayPiece['offset']): TrayFinding[] {
  if (!offset) return [];
  const off = Math.hypot(offset.dxMm, offset.dyMm);
  if (off <= TRAY_LIMITS.placeMm) return [];
  return [{ kind: 'out of place', words: `it lies ${off.toFixed(1)} mm beside its place`, spot: null }];
}
