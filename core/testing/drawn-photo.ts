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
  /** How the coupon lies on the card: turned by so many degrees, another design, its left and upper edge as shares of the card's width. */
  readonly lie?: number;
  readonly of?: CouponLayout;
  readonly at?: readonly [number, number];
  /** Bend of the lens: a place is moved from the middle by so much of its distance cubed, both in half diagonals. */
  readonly bend?: number;
}

export async function photo(
  turn: number,
  {
    card = 'A5',
    matrix = [1, 0.02, -0.03, 1],
    paint = GREYS,
    ground = GROUND,
    print,
    sheet,
    lie = 2,
    of = layout,
    at = [0.36, 0.25],
    bend = 0,
  }: PhotoOptions = {},
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
      ? await sharp(Buffer.from(coloured(of, paint, ground)), { density: 400 })
          .resize(Math.round(of.design.blank.widthMm * scale), Math.round(of.design.blank.heightMm * scale), {
            fit: 'fill',
          })
          .rotate(lie, { background: '#ffffff00' })
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
        left: Math.round((sheet === undefined ? at[0] : 0.2) * wide),
        top: Math.round((sheet === undefined ? at[1] : 0.15) * wide),
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
  const bytes = new Uint8ClampedArray(data.buffer, data.byteOffset, data.length);
  return bent({ width: info.width, height: info.height, data: bytes }, bend);
}

/** A picture through a lens that bends: straight lines bow outwards for a negative bend (barrel). Bilinear. */
function bent({ width, height, data }: Pixels, bend: number): Pixels {
  if (bend === 0) return { width, height, data };
  const out = new Uint8ClampedArray(data.length);
  const [cx, cy, half] = [width / 2, height / 2, Math.hypot(width, height) / 2];
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const [dx, dy] = [(x - cx) / half, (y - cy) / half];
      const pull = 1 / (1 + bend * (dx * dx + dy * dy));
      const [sx, sy] = [cx + dx * half * pull, cy + dy * half * pull];
      const [x0, y0] = [Math.floor(sx), Math.floor(sy)];
      if (x0 < 0 || y0 < 0 || x0 + 1 >= width || y0 + 1 >= height) continue;
      const [fx, fy] = [sx - x0, sy - y0];
      for (let k = 0; k < 4; k += 1) {
        const value = (i: number, j: number) => data[4 * ((y0 + j) * width + x0 + i) + k]!;
        const upper = value(0, 0) * (1 - fx) + value(1, 0) * fx;
        out[4 * (y * width + x) + k] = upper * (1 - fy) + (value(0, 1) * (1 - fx) + value(1, 1) * fx) * fy;
      }
    }
  }
  return { width, height, data: out };
}
