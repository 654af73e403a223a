import { cardSvg, reflectanceOf, referenceCard, type CardSize } from '@unto/core';
import sharp from 'sharp';

/** A printed card: share of light thrown back, pixel by pixel from its upper left corner. */
export interface CardPaper {
  readonly pxMm: number;
  readonly columns: number;
  readonly rows: number;
  readonly light: Float32Array;
}

export const CARD_PX_MM = 0.1;
const known = new Map<CardSize, Promise<CardPaper>>();

/** The card as its own SVG prints it; drawn once. */
export function cardPaper(size: CardSize): Promise<CardPaper> {
  let paper = known.get(size);
  if (!paper) known.set(size, (paper = printed(size)));
  return paper;
}

async function printed(size: CardSize): Promise<CardPaper> {
  const { widthMm, heightMm } = referenceCard(size);
  const [columns, rows] = [Math.round(widthMm / CARD_PX_MM), Math.round(heightMm / CARD_PX_MM)];
  const svg = Buffer.from(cardSvg(size));
  const { data } = await sharp(svg, { density: 300 })
    .resize(columns, rows, { fit: 'fill' })
    .flatten({ background: '#fff' })
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const table = Float32Array.from({ length: 256 }, (_, byte) => reflectanceOf(byte));
  return { pxMm: CARD_PX_MM, columns, rows, light: Float32Array.from(data, (byte) => table[byte]!) };
}
