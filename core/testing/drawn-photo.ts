import sharp from 'sharp';
import { couponSvg, layoutCoupon, PLAIN_DESIGN, type CouponDesign, type CouponLayout } from '../coupon/index.js';
import { linearToSrgb, type Pixels } from '../imaging/index.js';
import { cardSvg, reflectanceOf, referenceCard, type CardSize } from '../target/index.js';

/*
 * Pictures that no part of the product drew: card and coupon as vector drawings, put together, tilted and blurred by the library sharp
 * (librsvg and libvips), with greys of known lightness for cells.
 */
const DESIGN: CouponDesign = {
  ...PLAIN_DESIGN,
  code: 'K-316',
  axes: {
    x: { parameter: 'power', spacing: 'linear', from: 40, to: 100, count: 5 },
    y: { parameter: 'speed', spacing: 'log', from: 80, to: 420, count: 4 },
  },
  fixed: { powerPercent: 80, speedMmPerS: 150, intervalMm: 0.06, frequencyKHz: null, pulseNs: null },
  cell: { widthMm: 6, heightMm: 5 },
  gapMm: 1.2,
  marginMm: 3,
  fill: 'filled',
  lineSpacingMm: 0.5,
  hatchAngleDeg: 0,
  directions: 'two-way',
  labels: { at: 'edges', heightMm: 1.8, powerPercent: 100, speedMmPerS: 60 },
  blank: { widthMm: 60, heightMm: 48 },
};
const LIMITS = { bed: { widthMm: 700, heightMm: 500 }, topSpeedMmPerS: 600, firingThresholdPercent: 7 };
export const layout = layoutCoupon(DESIGN, LIMITS);
const GROUND = 170;
/** A grey of its own for every cell, so that a cell taken for its neighbour shows. */
export const greyOf = (index: number) => 20 + ((index * 67) % 120);

export type Paint = (index: number) => readonly [number, number, number];
export const GREYS: Paint = (index) => [greyOf(index), greyOf(index), greyOf(index)];

function coloured(of: CouponLayout, paint: Paint, ground: number): string {
  return couponSvg(of)
    .replace('fill="none" stroke="#59636A" stroke-width="0.1"/>', `fill="rgb(${ground},${ground},${ground})"/>`)
    .replace('<g id="cells" stroke="#1F262B" stroke-width="0.05">', '<g id="cells">')
    .replace(/<g id="cell-(\d+)"([^>]*)>(<title>.*?<\/title>)<rect/g, (_, n: string, rest: string, title: string) => {
      return `<g id="cell-${n}"${rest}>${title}<rect fill="rgb(${paint(Number(n) - 1).join()})"`;
    })
    .replace('stroke-width="0.15"', 'stroke-width="0.22"')
    .replaceAll('#1F262B', ground < 100 ? '#DDDDDD' : '#1F262B');
}

/** What a camera of the standard's tone makes of what is thrown back, the brightest white below its end. */
const seenOf = (reflectance: number) => 255 * linearToSrgb(Math.min(1, reflectance * LIT));
const LIT = 0.95;
const grey = (reflectance: number) => {
  const byte = Math.round(seenOf(reflectance));
  return { r: byte, g: byte, b: byte };
};

function seen(
  { data, info }: { data: Buffer; info: { width: number; height: number; channels: 1 | 2 | 3 | 4 } },
  reflects: (byte: number) => number,
): Promise<Buffer> {
  const table = Uint8Array.from({ length: 256 }, (_, byte) => Math.round(seenOf(reflects(byte))));
  const out = Buffer.from(data.map((byte, i) => (info.channels === 4 && i % 4 === 3 ? byte : table[byte]!)));
  const { width, height, channels } = info;
  return sharp(out, { raw: { width, height, channels } }).png().toBuffer();
}

/** How a picture is taken. */
export interface PhotoOptions {
  readonly card?: CardSize;
  readonly matrix?: [number, number, number, number];
  readonly paint?: Paint;
  readonly ground?: number;
  /** Share of light that the card throws back where it is printed with a byte, and what lies in its window instead of a coupon. */
  readonly print?: (byte: number) => number;
  readonly sheet?: number;
}

export async function photo(
  turn: number,
  { card = 'A5', matrix = [1, 0.02, -0.03, 1], paint = GREYS, ground = GROUND, print, sheet }: PhotoOptions = {},
): Promise<Pixels> {
  const { widthMm, heightMm } = referenceCard(card);
  const wide = 1700;
  const scale = wide / widthMm;
  const paper = await sharp(Buffer.from(cardSvg(card)), { density: 300 })
    .resize(wide, Math.round(heightMm * scale), { fit: 'fill' })
    .flatten({ background: '#fff' })
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
    .then((raw) => (print ? seen(raw, print) : seen(raw, reflectanceOf)));
  const coupon =
    sheet === undefined
      ? await sharp(Buffer.from(coloured(layout, paint, ground)), { density: 400 })
          .resize(Math.round(60 * scale), Math.round(48 * scale), { fit: 'fill' })
          .rotate(2, { background: '#ffffff00' })
          .raw()
          .toBuffer({ resolveWithObject: true })
          .then((raw) => seen(raw, reflectanceOf))
      : await sharp({ create: { width: 1000, height: 690, channels: 3, background: grey(sheet) } })
          .png()
          .toBuffer();
  const laid = await sharp(paper)
    .composite([
      {
        input: coupon,
        left: Math.round((sheet === undefined ? 0.36 : 0.2) * wide),
        top: Math.round((sheet === undefined ? 0.25 : 0.15) * wide),
      },
    ])
    .png()
    .toBuffer();
  const tilted = await sharp(laid).affine(matrix, { background: '#6b6258', interpolator: 'bicubic' }).png().toBuffer();
  const { data, info } = await sharp(tilted)
    .extend({ top: 70, bottom: 40, left: 50, right: 90, background: '#6b6258' })
    .rotate(turn)
    .blur(0.8)
    .jpeg({ quality: 90 })
    .toBuffer()
    .then((file) => sharp(file).ensureAlpha().raw().toBuffer({ resolveWithObject: true }));
  return {
    width: info.width,
    height: info.height,
    data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length),
  };
}
