import { Matrix, solve } from 'ml-matrix';
import { CoreError } from '../support/core-error.js';
import { SRGB_TO_LINEAR } from '../imaging/colour.js';
import type { Pixels } from '../imaging/picture.js';
import { evaluateCurve, monotoneCurve, type MonotoneCurve } from '../units/monotone-cubic.js';
import { GREY_STEPS, type CardBox } from './card.js';
import { printedReflectance, type CardPrint } from './card-print.js';
import { cardToPicture, type CardPose } from './find-card.js';
import { mean, median, robustSpread } from '../statistics/index.js';

/** How light falls on the card, and what the camera makes of it. */
export interface CardLight {
  /** Coefficients of ln light over 1, x, y, x², xy, y², places in half widths and heights from the card’s middle. */
  readonly fall: readonly number[];
  /** Linear light of the white paper in the card's middle, by channel. */
  readonly paper: readonly [number, number, number];
  /** For each channel: linear light over the paper's at that place → share of light thrown back, over 0 to TONE_TOP in equal steps. */
  readonly tone: readonly [Float32Array, Float32Array, Float32Array];
  /** Brightest over darkest place of the window. */
  readonly unevenness: number;
}

export const TONE_STEPS = 8192;
export const TONE_TOP = 1.6;
/** Fewer white fields than this share leave the light unknown. */
const LEAST_WHITES = 0.4;
/** A byte at or above this may be cut off. */
export const BURNT_OUT = 252;
/** Grey steps of both rows that differ by more than this share are covered or glare. */
const STEPS_AGREE = 0.25;
/**
 * Bare paper near a grey step that is brighter or darker than the light's fall-off by more than this share, and by so many times the
 * paper's own spread, tells of glare or shadow over the step. A dark step is put off by far less light than the paper.
 */
const STRAY = { nearMm: 13, share: 0.012, sure: 3 } as const;

/**
 * Light and tone from the card: fall-off by a quadratic through the bare paper (fields that stand out are left out), then each
 * channel's curve through the grey steps, which takes the colour of the light off too.
 * @param print what paper and grey steps of this card throw back
 * @throws reading.no-light when the paper is burnt out, covered, or the grey steps do not rise
 */
export function readCardLight(pixels: Pixels, pose: CardPose, print: CardPrint): CardLight {
  const about = readPaper(pixels, pose);
  const { fall, paper } = about;
  return { fall, paper, tone: toneCurves(pixels, pose, about, print), unevenness: unevenness(fall, pose) };
}

/** Light as the bare paper of the card tells it. @throws reading.no-light as readCardLight */
export function readPaper(pixels: Pixels, pose: CardPose): PaperLight {
  const { card } = pose;
  const whites = card.whites.map((box) => ({ box, ...readField(pixels, pose, box) })).filter(({ count }) => count > 0);
  if (whites.filter(({ burnt }) => burnt > 0.3).length > whites.length / 3)
    throw new CoreError(
      'reading.no-light',
      'The white of the card is burnt out: take the picture darker, or without the flash. This one was kept.',
    );
  const usable = whites.filter(({ burnt, mean }) => burnt <= 0.3 && mean[1] > 0.02);
  const { fall, used } = fitFall(pose, usable);
  if (used.length < LEAST_WHITES * card.whites.length)
    throw new CoreError(
      'reading.no-light',
      'Too little of the white card can be seen to judge the light by: uncover it. The picture was kept.',
    );
  refuseHardLight(pose, usable, fall);
  const paper = [0, 1, 2].map((k) => median(used.map(({ box, mean }) => mean[k]! / lightAt(fall, pose, middle(box)))));
  return { fall, paper: paper as [number, number, number], whites: usable };
}

/**
 * Bare paper well away from the coupon that is off the smooth fall of light by more than this share, in so many fields and such a share
 * of them, lies under a hard shadow, in broad glare, or under something: no curve through the paper tells the light there.
 */
const HARD = { off: 0.045, fields: 3, share: 0.15, awayMm: 12 } as const;

function refuseHardLight(pose: CardPose, fields: readonly Field[], fall: readonly number[]): void {
  const { window } = pose.card;
  const told = fields.map(({ box, mean }) => {
    const place = middle(box);
    return { x: place.x, off: Math.log(mean[1] / lightAt(fall, pose, place)) };
  });
  const level = median(told.map(({ off }) => off));
  const away = told.filter(({ x }) => x < window.xMm - HARD.awayMm || x > window.xMm + window.widthMm + HARD.awayMm);
  const isHard = (some: typeof told) => {
    const hard = some.filter(({ off }) => Math.abs(off - level) > HARD.off).length;
    return hard >= Math.max(HARD.fields, HARD.share * some.length);
  };
  if (!isHard(away) && !isHard(told)) return;
  throw new CoreError(
    'reading.no-light',
    'A hard shadow or broad glare lies over the card, or something lies on it: take the picture in even light. This one was kept.',
  );
}

/** Light at a place of the card, as a multiple of that in its middle. */
export function lightAt(
  fall: readonly number[],
  { card }: Pick<CardPose, 'card'>,
  place: { x: number; y: number },
): number {
  const u = (2 * place.x) / card.widthMm - 1;
  const v = (2 * place.y) / card.heightMm - 1;
  return Math.exp(fall[0]! + fall[1]! * u + fall[2]! * v + fall[3]! * u * u + fall[4]! * u * v + fall[5]! * v * v);
}

function termsAt(card: CardPose['card'], { x, y }: { x: number; y: number }): number[] {
  const [u, v] = [(2 * x) / card.widthMm - 1, (2 * y) / card.heightMm - 1];
  return [1, u, v, u * u, u * v, v * v];
}

interface Field {
  readonly box: CardBox;
  readonly mean: readonly [number, number, number];
  readonly burnt: number;
  readonly count: number;
}

const ACROSS = 9;

/** Mean linear light of the inner part of a field, the outer quarter of its samples left out, and the share burnt out. */
export function readField(pixels: Pixels, pose: CardPose, box: CardBox): Omit<Field, 'box'> {
  const found: [number, number, number][] = [];
  let burnt = 0;
  for (let i = 0; i < ACROSS * ACROSS; i += 1) {
    const place = {
      x: box.xMm + box.widthMm * (0.15 + (0.7 * ((i % ACROSS) + 0.5)) / ACROSS),
      y: box.yMm + box.heightMm * (0.15 + (0.7 * (Math.floor(i / ACROSS) + 0.5)) / ACROSS),
    };
    const at = cardToPicture(pose, place);
    const [px, py] = [Math.round(at.x), Math.round(at.y)];
    if (px < 0 || py < 0 || px >= pixels.width || py >= pixels.height) continue;
    const k = 4 * (py * pixels.width + px);
    const [r, g, b] = [pixels.data[k]!, pixels.data[k + 1]!, pixels.data[k + 2]!];
    if (Math.max(r, g, b) >= BURNT_OUT) burnt += 1;
    found.push([SRGB_TO_LINEAR[r]!, SRGB_TO_LINEAR[g]!, SRGB_TO_LINEAR[b]!]);
  }
  found.sort((a, b) => a[1] - b[1]);
  const kept = found.slice(Math.floor(found.length / 8), Math.ceil((found.length * 7) / 8));
  const mean = [0, 1, 2].map((c) => kept.reduce((sum, rgb) => sum + rgb[c]!, 0) / (kept.length || 1));
  return { mean: mean as [number, number, number], burnt: burnt / (found.length || 1), count: found.length };
}

/** Least squares on ln light, three times over without what lies far off. */
function fitFall(pose: CardPose, fields: readonly Field[]): { fall: number[]; used: readonly Field[] } {
  let used = fields;
  let fall = [0, 0, 0, 0, 0, 0];
  for (let round = 0; round < 4 && used.length >= 8; round += 1) {
    const terms = new Matrix(used.map(({ box }) => termsAt(pose.card, middle(box))));
    const logs = Matrix.columnVector(used.map(({ mean }) => Math.log(mean[1])));
    fall = solve(terms, logs, true).to1DArray();
    const off = fields.map(({ box, mean }) => Math.log(mean[1] / lightAt(fall, pose, middle(box))));
    const limit = Math.max(0.02, 3 * robustSpread(off));
    used = fields.filter((_, i) => Math.abs(off[i]!) <= limit);
  }
  // The level goes into the tone curves: light is a multiple of that in the middle.
  return { fall: [0, ...fall.slice(1)], used };
}

/** Light as the bare paper tells it: its fall-off, the paper's own linear light, and the fields it was read from. */
export interface PaperLight extends Pick<CardLight, 'fall' | 'paper'> {
  readonly whites: readonly Field[];
}

function toneCurves(pixels: Pixels, pose: CardPose, about: PaperLight, print: CardPrint): CardLight['tone'] {
  const taken = [...readSteps(pixels, pose, about)].map(([srgb, rgb]) => ({
    reflectance: printedReflectance(print, srgb),
    rgb: [...rgb],
  }));
  taken.push({ reflectance: print.paper, rgb: [1, 1, 1] });
  taken.sort((a, b) => a.reflectance - b.reflectance);
  const rising = taken.every(({ rgb }, i) => i === 0 || rgb.every((value, k) => value > taken[i - 1]!.rgb[k]! + 1e-4));
  const darkest = printedReflectance(print, Math.min(...GREY_STEPS));
  if (taken.length < 4 || !rising || taken[0]!.reflectance > darkest)
    throw new CoreError(
      'reading.no-light',
      'The grey steps of the card are covered, in glare, in shadow, or printed without contrast. The picture was kept.',
    );
  const tone = [0, 1, 2].map((k) => table(taken.map(({ reflectance, rgb }) => ({ x: rgb[k]!, y: reflectance }))));
  return tone as [Float32Array, Float32Array, Float32Array];
}

/** Linear light of each grey step over the paper's, by channel: both rows averaged, those left out that glare, shadow or a cover put off. */
export function readSteps(pixels: Pixels, pose: CardPose, about: PaperLight): Map<number, readonly number[]> {
  const { fall, paper } = about;
  const rows = new Map<number, (readonly number[])[]>();
  const inStray = strayLight(pose, about);
  for (const grey of pose.card.greys) {
    const { mean, burnt, count } = readField(pixels, pose, grey);
    if (count === 0 || burnt > 0.3 || inStray(grey)) continue;
    const light = lightAt(fall, pose, middle(grey));
    rows.set(grey.srgb, [...(rows.get(grey.srgb) ?? []), mean.map((value, k) => value / light / paper[k]!)]);
  }
  const steps = new Map<number, readonly number[]>();
  for (const [srgb, [one, other = one]] of rows) {
    if (Math.abs(one![1]! - other![1]!) > STEPS_AGREE * Math.max(one![1]!, other![1]!) + 0.004) continue;
    steps.set(
      srgb,
      one!.map((value, k) => (value + other![k]!) / 2),
    );
  }
  return steps;
}

/** Tells the fields of the card that lie in glare or in a shadow, by the bare paper near them. */
function strayLight(pose: CardPose, { fall, paper, whites }: PaperLight): (box: CardBox) => boolean {
  const places = whites.map(({ box, mean }) => {
    const { x, y } = middle(box);
    return { x, y, off: Math.log(mean[1] / (paper[1]! * lightAt(fall, pose, { x, y }))) };
  });
  const spread = robustSpread(places.map(({ off }) => off));
  return (box) => {
    const at = middle(box);
    const near = places.filter(({ x, y }) => Math.hypot(x - at.x, y - at.y) < STRAY.nearMm);
    if (!near.length) return false;
    const limit = Math.max(STRAY.share, (STRAY.sure * spread) / Math.sqrt(near.length));
    return Math.abs(mean(near.map(({ off }) => off))) > limit;
  };
}

/** A curve through measured and known light in cube roots, where both are about evenly spaced; straight beyond its ends. */
function table(points: readonly { x: number; y: number }[]): Float32Array {
  const curve = monotoneCurve(points.map(({ x, y }) => ({ x: Math.cbrt(x), y: Math.cbrt(y) })));
  const out = new Float32Array(TONE_STEPS);
  for (let i = 0; i < TONE_STEPS; i += 1) {
    const x = Math.cbrt((i / (TONE_STEPS - 1)) * TONE_TOP);
    out[i] = Math.max(0, beyond(curve, x)) ** 3;
  }
  return out;
}

/** Below the darkest step light falls towards none, by stray light in the lens faster than in proportion, but by no more than so much. */
const STEEPEST = 1.5;

function beyond(curve: MonotoneCurve, x: number): number {
  const { points } = curve;
  const last = points.length - 1;
  const [a, b] = x < points[0]!.x ? [points[0]!, points[1]!] : [points[last - 1]!, points[last]!];
  if (x >= points[0]!.x && x <= points[last]!.x) return evaluateCurve(curve, x);
  const slope = (b.y - a.y) / (b.x - a.x);
  if (x > b.x) return b.y + slope * (x - b.x);
  return a.y + Math.min(slope, (STEEPEST * a.y) / a.x) * (x - a.x);
}

function unevenness(fall: readonly number[], pose: CardPose): number {
  const { window } = pose.card;
  const values = Array.from({ length: 25 }, (_, i) =>
    lightAt(fall, pose, {
      x: window.xMm + (window.widthMm * (i % 5)) / 4,
      y: window.yMm + (window.heightMm * Math.floor(i / 5)) / 4,
    }),
  );
  return Math.max(...values) / Math.min(...values);
}

/** Middle of a box, mm. */
export function middle({ xMm, yMm, widthMm, heightMm }: CardBox): { x: number; y: number } {
  return { x: xMm + widthMm / 2, y: yMm + heightMm / 2 };
}
