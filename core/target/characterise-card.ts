import { luminance } from '../imaging/colour.js';
import type { Pixels } from '../imaging/picture.js';
import { median } from '../statistics/index.js';
import { CoreError } from '../support/core-error.js';
import { GREY_STEPS, type CardBox, type CardSize } from './card.js';
import { lightAt, middle, readField, readPaper, readSteps } from './card-light.js';
import { requireCardPrint, type CardPrint } from './card-print.js';
import { findCard } from './find-card.js';

/** A card as a photograph tells it. */
export interface CharacterisedCard {
  readonly size: CardSize;
  readonly print: CardPrint;
  /** How far the white sheet's light is off its middle value at the worst place, as a share of it. */
  readonly unevenness: number;
}

/** The sheet covers so much of the window each way, in its middle; it is read in so many fields of so many mm. */
const SHEET = { covers: 0.45, across: 6, sideMm: 5 } as const;
/** A sheet whose light varies by more than this share is none, or lies in glare. */
const MOST_UNEVEN = 0.03;

/**
 * What a card's paper and grey steps throw back, from a photograph with a sheet of known white in the middle of its window. The camera's
 * tone is taken as the standard has it (IEC 61966-2-1): a white tells the level, not the camera's curve.
 * @param white share of light that the sheet throws back, 0.5 to 1
 * @throws reading.* as for any picture of a card; card.no-white; card.print where what is read cannot be a print
 */
export function characteriseCard(pixels: Pixels, white: number): CharacterisedCard {
  const pose = findCard(pixels);
  const about = readPaper(pixels, pose);
  const paperLight = luminance(...about.paper);
  const sheet = sheetFields(pose.card.window).map((box) => {
    const { mean, burnt, count } = readField(pixels, pose, box);
    return { burnt, count, share: luminance(...mean) / paperLight / lightAt(about.fall, pose, middle(box)) };
  });
  if (sheet.some(({ burnt }) => burnt > 0.02))
    throw new CoreError('card.no-white', 'The white sheet is burnt out: take the picture darker. This one was kept.');
  const level = median(sheet.map(({ share }) => share));
  const unevenness = Math.max(...sheet.map(({ share }) => Math.abs(share / level - 1)));
  if (sheet.some(({ count }) => count === 0) || unevenness > MOST_UNEVEN)
    throw new CoreError(
      'card.no-white',
      'No even sheet of white lies in the middle of the card’s window: lay it flat, out of glare and shadow.',
    );
  const paper = white / level;
  const steps = readSteps(pixels, pose, about);
  const read = GREY_STEPS.map((srgb) => steps.get(srgb));
  if (read.some((rgb) => !rgb))
    throw new CoreError(
      'reading.no-light',
      'Not every grey step of the card can be read: uncover them all, out of glare.',
    );
  const print: CardPrint = {
    basis: 'photographed',
    paper,
    steps: read.map((rgb) => (paper * luminance(...scaled(rgb!, about.paper))) / paperLight),
  };
  requireCardPrint(print);
  return { size: pose.card.size, print, unevenness };
}

function scaled(shares: readonly number[], paper: readonly [number, number, number]): [number, number, number] {
  return [shares[0]! * paper[0], shares[1]! * paper[1], shares[2]! * paper[2]];
}

function sheetFields({ xMm, yMm, widthMm, heightMm }: CardBox): CardBox[] {
  const { covers, across, sideMm } = SHEET;
  return Array.from({ length: across * across }, (_, i) => {
    const [u, v] = [(i % across) / (across - 1) - 0.5, Math.floor(i / across) / (across - 1) - 0.5];
    return {
      xMm: xMm + widthMm * (0.5 + covers * u) - sideMm / 2,
      yMm: yMm + heightMm * (0.5 + covers * v) - sideMm / 2,
      widthMm: sideMm,
      heightMm: sideMm,
    };
  });
}
