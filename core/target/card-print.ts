import { lightness, srgbToLinear } from '../imaging/colour.js';
import { CoreError } from '../support/core-error.js';
import { evaluateCurve, monotoneCurve } from '../units/monotone-cubic.js';
import { GREY_STEPS, reflectanceOf, type CardSize } from './card.js';

/** How it is known what a card's print throws back: taken as usual, read from a photograph beside a known white, or measured. */
export const PRINT_BASES = ['typical', 'photographed', 'measured'] as const;
export type PrintBasis = (typeof PRINT_BASES)[number];

/** What the print of a card throws back, shares of light (CIE Y of 1). */
export interface CardPrint {
  readonly basis: PrintBasis;
  readonly paper: number;
  /** Grey steps, the lightest first. */
  readonly steps: readonly number[];
}

/** What is known of the cards of a shop. */
export type CardPrints = { readonly [Size in CardSize]?: CardPrint | undefined };

/** Office paper and print as they mostly are. Common practice, no source. */
export const TYPICAL_PRINT: CardPrint = {
  basis: 'typical',
  paper: reflectanceOf(255),
  steps: GREY_STEPS.map(reflectanceOf),
};

/** Steps closer together than this tell nothing apart, share of light. */
const APART = 0.004;

/** @throws card.print at `paper` or `steps.N` for values that no print has, or that do not fall from paper to the darkest step */
export function requireCardPrint({ paper, steps }: Omit<CardPrint, 'basis'>): void {
  const refuse = (path: string, message: string) => {
    throw new CoreError('card.print', message, { path });
  };
  if (!(paper >= 0.5 && paper <= 1))
    refuse('paper', 'Paper throws back between 50 and 100 % of the light (L* 76 to 100).');
  if (steps.length !== GREY_STEPS.length) refuse('steps', `The card has ${GREY_STEPS.length} grey steps.`);
  [paper, ...steps].forEach((value, i, all) => {
    if (i === 0) return;
    if (!(value > 0)) refuse(`steps.${i - 1}`, 'A print throws back more than nothing.');
    if (!(value < all[i - 1]! - APART))
      refuse(`steps.${i - 1}`, `Step ${i} must be darker than ${i === 1 ? 'the paper' : `step ${i - 1}`}.`);
  });
}

/** What a print throws back where it was printed with an 8-bit sRGB grey of the card: a step, or 255 for the paper. */
export function printedReflectance({ paper, steps }: CardPrint, srgb: number): number {
  return srgb === 255 ? paper : steps[GREY_STEPS.indexOf(srgb as (typeof GREY_STEPS)[number])]!;
}

/** Papers, blacks and dot gains that office printers come to. Common practice, no source. */
const USUAL = { papers: [0.8, 0.86, 0.9], blacks: [0.015, 0.025, 0.055], gains: [0, 0.1, 0.2] } as const;
/** A camera's tone may differ from the standard's by such exponents, and a meter by so much lightness, L*. Common practice, no source. */
const CAMERA_TONE = [0.93, 1, 1.07] as const;
const METER_OFF_L = [-1, 1] as const;

/** Prints that could as well lie behind what is known of a card. */
export function plausiblePrints(print: CardPrint): CardPrint[] {
  const { basis, paper, steps } = print;
  if (basis === 'photographed')
    return CAMERA_TONE.map((gamma) => ({ basis, paper, steps: steps.map((step) => paper * (step / paper) ** gamma) }));
  if (basis === 'measured')
    return METER_OFF_L.flatMap((light) => METER_OFF_L.map((dark) => metered(print, light, dark)));
  return USUAL.papers.flatMap((white) =>
    USUAL.blacks.flatMap((black) =>
      USUAL.gains.map((gain) => ({
        basis,
        paper: white,
        steps: GREY_STEPS.map((srgb) => gained(srgb, white, black, gain)),
      })),
    ),
  );
}

/** A print that a meter shows too light or too dark by so much lightness, from the paper down to the darkest step. */
function metered({ basis, paper, steps }: CardPrint, light: number, dark: number): CardPrint {
  const [top, foot] = [lightness(paper), lightness(steps.at(-1)!)];
  const off = (l: number) => reflectanceAt(l + dark + ((light - dark) * (l - foot)) / (top - foot));
  return { basis, paper: Math.min(1, off(top)), steps: steps.map((step) => off(lightness(step))) };
}

/**
 * A step of a print whose dots come out larger by `gain` at half cover (a parabola over the cover), Murray–Davies.
 * Source: A. Murray, "Monochrome reproduction in photoengraving", J. Franklin Inst. 221 (1936).
 */
function gained(srgb: number, white: number, black: number, gain: number): number {
  const cover = 1 - srgbToLinear(srgb / 255);
  const larger = Math.min(1, cover + 4 * gain * cover * (1 - cover));
  return white + (black - white) * larger;
}

/** CIE 15: share of light of a lightness L*. */
export function reflectanceAt(l: number): number {
  const f = (l + 16) / 116;
  return Math.max(1e-4, l > 8 ? f ** 3 : l / (24389 / 27));
}

/** What is read by one print, read by another: both curves run through the same steps, in cube roots. */
function otherwise(from: CardPrint, to: CardPrint): (l: number) => number {
  const read = [...to.steps, to.paper];
  const rows = [...from.steps, from.paper]
    .map((value, i) => ({ x: Math.cbrt(value), y: Math.cbrt(read[i]!) }))
    .sort((a, b) => a.x - b.x);
  const curve = monotoneCurve(rows);
  const [first, last] = [rows[0]!, rows.at(-1)!];
  return (l) => {
    const x = Math.cbrt(reflectanceAt(l));
    const y = x <= first.x ? first.y * (x / first.x) : x >= last.x ? last.y * (x / last.x) : evaluateCurve(curve, x);
    return lightness(y ** 3);
  };
}

/** The lowest and the highest that a contrast may be, whichever print of those plausible the card has. */
export interface ContrastRange {
  readonly low: number;
  readonly high: number;
}

/**
 * Range of contrasts (bare ground less mark, L*) that were read with a print.
 * @returns one function for many cells of a picture
 */
export function contrastRanges(print: CardPrint): (bareLightness: number, markLightness: number) => ContrastRange {
  const readings = plausiblePrints(print).map((other) => ({
    read: otherwise(print, other),
    darkest: lightness(Math.min(...other.steps)),
  }));
  const darkest = lightness(Math.min(...print.steps));
  return (bare, mark) => {
    // How light goes on below the darkest step, no card tells: a mark may be anything down from there.
    const contrasts = readings.flatMap((other) =>
      mark < darkest
        ? [other.read(bare) - other.read(mark), other.read(bare) - other.darkest]
        : [other.read(bare) - other.read(mark)],
    );
    return { low: Math.min(...contrasts, bare - mark), high: Math.max(...contrasts, bare - mark) };
  };
}
