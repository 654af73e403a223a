import {
  fitHomography,
  linearToSrgb,
  referenceCard,
  standardNormal,
  type CardSize,
  type Point2,
  type Random,
} from '@unto/core';
import sharp, { type Sharp } from 'sharp';
import { BLANK_PX_MM, type BlankPicture } from '../burn/burnt-blank.js';
import { cardPaper, type CardPaper } from './card-paper.js';

/** What can be wrong with a picture of a coupon. */
export const COUPON_FAULTS = [
  'plain',
  'glare on some cells',
  'some cells blurred',
  'a mark covered',
  'a hand over two marks',
  'no card',
  'two cards',
  'upside down',
  'corner marks faint',
  'unplugged',
] as const;
export type CouponFault = (typeof COUPON_FAULTS)[number];

/** A round patch spoilt on purpose, mm on the coupon from its lower left corner. */
export interface Spoilt {
  readonly x: number;
  readonly y: number;
  readonly radiusMm: number;
}

/** How a coupon is photographed. */
export interface CouponShot {
  readonly blank: BlankPicture;
  readonly fault: CouponFault;
  readonly random: Random;
  readonly size?: { readonly width: number; readonly height: number };
  readonly card?: CardSize;
  /** Quarter turns of the camera. */
  readonly quarters?: 0 | 1 | 2 | 3;
  /** Spoilt places where the test chooses them; else one somewhere. */
  readonly spoilt?: readonly Spoilt[];
  /** Hears where the blank's corners lie in the picture, px, from its lower left one counter-clockwise: what a person would see. */
  readonly tell?: (corners: readonly Point2[]) => void;
}

const SIZE = { width: 2048, height: 1536 };
/** Linear light to an 8-bit sRGB value, by table. */
export const ENCODED = Uint8Array.from({ length: 4096 }, (_, i) => Math.round(255 * linearToSrgb(i / 4095)));
export const BENCH = [0.2, 0.17, 0.14] as const;
const NOISE = 16_384;

/** A photograph of a coupon on its card, JPEG: perspective, lens, uneven coloured light, a camera's tone, noise and blur, and a fault. */
export async function photographCoupon(asked: CouponShot): Promise<Buffer> {
  if (asked.fault === 'unplugged') throw new Error('The camera is unplugged.');
  const shot = asked.fault === 'corner marks faint' ? { ...asked, blank: rubbed(asked.blank) } : asked;
  const { width, height } = shot.size ?? SIZE;
  const size = shot.card ?? cardFor(shot.blank);
  const scene = layScene(shot, size, { width, height });
  shot.tell?.(outlineOf(scene, shot.blank));
  const spoilt = shot.spoilt ?? [somewhere(shot)];
  const raw = render(scene, await cardPaper(size), shot, spoilt);
  const turns = ((shot.quarters ?? 0) + (shot.fault === 'upside down' ? 2 : 0)) % 4;
  let picture = sharp(raw, { raw: { width, height, channels: 3 } }).blur(scene.blurPx);
  if (shot.fault === 'some cells blurred') picture = await blurredAt(raw, scene, spoilt);
  const flat = await picture.raw().toBuffer({ resolveWithObject: true });
  const { data, info } = flat;
  addNoise(data, shot.random);
  const channels = { raw: { width: info.width, height: info.height, channels: 3 as const } };
  const whole = shot.fault === 'two cards' ? await twice(data, channels) : sharp(data, channels);
  return whole
    .rotate(turns * 90)
    .jpeg({ quality: 92, chromaSubsampling: '4:2:0' })
    .toBuffer();
}

/** A blank whose rim was rubbed bare by whoever scrubbed it too hard. */
function rubbed(blank: BlankPicture): BlankPicture {
  const rgb = Float32Array.from(blank.rgb);
  const rim = RUBBED_MM / BLANK_PX_MM;
  const { columns, rows } = blank;
  for (let r = 0; r < rows; r += 1) {
    for (let c = 0; c < columns; c += 1) {
      if (c >= rim && r >= rim && c < columns - rim && r < rows - rim) continue;
      // The very edge of a blank is never marked: its texture is laid over the rim.
      const from = 3 * ((r % 8) * columns + (c % 8));
      for (let k = 0; k < 3; k += 1) rgb[3 * (r * columns + c) + k] = blank.rgb[from + k]!;
    }
  }
  return { columns, rows, rgb };
}

const RUBBED_MM = 5;

/** Corners of the blank in the picture. */
function outlineOf({ toPicture: h, k1, coupon, width, height }: Scene, blank: BlankPicture): Point2[] {
  const [w, tall] = [blank.columns * BLANK_PX_MM, blank.rows * BLANK_PX_MM];
  const [mx, my] = [(width - 1) / 2, (height - 1) / 2];
  return [
    [0, 0],
    [w, 0],
    [w, tall],
    [0, tall],
  ].map(([bx, by]) => {
    const x = coupon.x + coupon.cos * bx! - coupon.sin * by!;
    const y = coupon.y + coupon.sin * bx! + coupon.cos * by!;
    const u = h[6]! * x + h[7]! * y + h[8]!;
    const [px, py] = [(h[0]! * x + h[1]! * y + h[2]!) / u - mx, (h[3]! * x + h[4]! * y + h[5]!) / u - my];
    const bend = 1 + (k1 * (px * px + py * py)) / (mx * mx + my * my);
    return { x: mx + px * bend, y: my + py * bend };
  });
}

/** The smaller card where the coupon fits its window. */
function cardFor(blank: BlankPicture): CardSize {
  const { window } = referenceCard('A5');
  const [w, h] = [blank.columns * BLANK_PX_MM, blank.rows * BLANK_PX_MM];
  return w <= window.widthMm - 2 && h <= window.heightMm - 2 ? 'A5' : 'A4';
}

/** Where everything lies, and the light on it. */
interface Scene {
  readonly width: number;
  readonly height: number;
  /** Picture px (distortion taken off) → card mm. */
  readonly toCard: readonly number[];
  /** Card mm → picture px. */
  readonly toPicture: readonly number[];
  readonly k1: number;
  /** Lower left corner of the coupon on the card, mm, and its turn. */
  readonly coupon: { readonly x: number; readonly y: number; readonly cos: number; readonly sin: number };
  readonly card: { readonly widthMm: number; readonly heightMm: number };
  readonly light: readonly number[];
  readonly cast: readonly [number, number, number];
  readonly exposure: number;
  readonly gamma: number;
  readonly blurPx: number;
}

function layScene(shot: CouponShot, size: CardSize, { width, height }: { width: number; height: number }): Scene {
  const { random, blank } = shot;
  const card = referenceCard(size);
  const about = (spread: number) => spread * (2 * random() - 1);
  const fill = Math.min((0.9 * width) / card.widthMm, (0.9 * height) / card.heightMm);
  const turn = about(0.06);
  const corner = (sx: number, sy: number): Point2 => {
    const [dx, dy] = [(sx * card.widthMm * fill) / 2, (-sy * card.heightMm * fill) / 2];
    const lean = 0.03 * width;
    return {
      x: width / 2 + dx * Math.cos(turn) - dy * Math.sin(turn) + about(lean / 2),
      y: height / 2 + dx * Math.sin(turn) + dy * Math.cos(turn) + about(lean / 2),
    };
  };
  const px = [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)];
  const mm = [
    { x: 0, y: 0 },
    { x: card.widthMm, y: 0 },
    { x: card.widthMm, y: card.heightMm },
    { x: 0, y: card.heightMm },
  ];
  const [w, h] = [blank.columns * BLANK_PX_MM, blank.rows * BLANK_PX_MM];
  const tilt = about(0.05);
  const [slackX, slackY] = [(card.window.widthMm - w) / 2 - 1.5, (card.window.heightMm - h) / 2 - 1.5];
  const middle = {
    x: card.window.xMm + card.window.widthMm / 2 + about(Math.max(0, slackX) * 0.7),
    y: card.window.yMm + card.window.heightMm / 2 + about(Math.max(0, slackY) * 0.7),
  };
  const [cos, sin] = [Math.cos(tilt), Math.sin(tilt)];
  return {
    width,
    height,
    toCard: fitHomography(px, mm),
    toPicture: fitHomography(mm, px),
    k1: about(0.035),
    coupon: { x: middle.x - (cos * w) / 2 + (sin * h) / 2, y: middle.y - (sin * w) / 2 - (cos * h) / 2, cos, sin },
    card,
    light: [about(0.16), about(0.16), -0.12 * random(), about(0.05), -0.12 * random()],
    cast: [1 + about(0.12), 1, 1 + about(0.14)],
    exposure: 0.82 + 0.12 * random(),
    gamma: 1 + about(0.07),
    blurPx: 0.55 + 0.4 * random(),
  };
}

/** A place on the grid of cells, for a fault nobody placed. */
function somewhere({ blank, random }: CouponShot): Spoilt {
  return {
    x: blank.columns * BLANK_PX_MM * (0.4 + 0.4 * random()),
    y: blank.rows * BLANK_PX_MM * (0.35 + 0.35 * random()),
    radiusMm: 6.5,
  };
}

function render(scene: Scene, paper: CardPaper, { blank, fault }: CouponShot, spoilt: readonly Spoilt[]): Buffer {
  const { width, height, toCard: t, k1, coupon, light, cast, exposure, gamma } = scene;
  const out = Buffer.alloc(width * height * 3);
  const [mx, my] = [(width - 1) / 2, (height - 1) / 2];
  const bend = k1 / (mx * mx + my * my);
  const tone = Uint8Array.from({ length: 4096 }, (_, i) => ENCODED[Math.round(4095 * (i / 4095) ** gamma)]!);
  const rgb = new Float64Array(3);
  const glare = fault === 'glare on some cells' ? spoilt : [];
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      // The lens bends what falls on the sensor: where a pixel looks is found by undoing it, to first and second order.
      const dx = x - mx;
      const dy = y - my;
      const r2 = bend * (dx * dx + dy * dy);
      const back = 1 - r2 + 3 * r2 * r2;
      const ux = mx + dx * back;
      const uy = my + dy * back;
      const w = 1 / (t[6]! * ux + t[7]! * uy + t[8]!);
      const cx = (t[0]! * ux + t[1]! * uy + t[2]!) * w;
      const cy = (t[3]! * ux + t[4]! * uy + t[5]!) * w;
      const ox = cx - coupon.x;
      const oy = cy - coupon.y;
      const bx = coupon.cos * ox + coupon.sin * oy;
      const by = coupon.cos * oy - coupon.sin * ox;
      if (!onBlank(blank, bx, by, rgb)) onCard(paper, cx, cy, fault, rgb);
      else for (const spot of glare) addGlare(spot, bx, by, rgb);
      const u = (2 * cx) / scene.card.widthMm - 1;
      const v = (2 * cy) / scene.card.heightMm - 1;
      const lit =
        exposure * (1 + light[0]! * u + light[1]! * v + light[2]! * u * u + light[3]! * u * v + light[4]! * v * v);
      const at = 3 * (y * width + x);
      for (let k = 0; k < 3; k += 1) {
        const value = (rgb[k]! * lit * cast[k]! * 4095) | 0;
        out[at + k] = tone[value > 4095 ? 4095 : value < 0 ? 0 : value]!;
      }
    }
  }
  return out;
}

/** Light of the blank at a place of its own, bilinear; false beside it. */
export function onBlank({ columns, rows, rgb }: BlankPicture, x: number, y: number, out: Float64Array): boolean {
  const px = x / BLANK_PX_MM - 0.5;
  const py = y / BLANK_PX_MM - 0.5;
  if (px < -0.5 || py < -0.5 || px > columns - 0.5 || py > rows - 0.5) return false;
  const c = px < 0 ? 0 : px >= columns - 1 ? columns - 2 : px | 0;
  const r = py < 0 ? 0 : py >= rows - 1 ? rows - 2 : py | 0;
  const fx = px - c;
  const fy = py - r;
  const i = 3 * (r * columns + c);
  const j = i + 3 * columns;
  const wd = fx * fy;
  const wb = fx - wd;
  const wc = fy - wd;
  const wa = 1 - fx - wc;
  for (let k = 0; k < 3; k += 1)
    out[k] = rgb[i + k]! * wa + rgb[i + 3 + k]! * wb + rgb[j + k]! * wc + rgb[j + 3 + k]! * wd;
  return true;
}

export function onCard(paper: CardPaper, x: number, y: number, fault: CouponFault, out: Float64Array): void {
  const rows = paper.rows;
  const px = x / paper.pxMm - 0.5;
  const py = rows - y / paper.pxMm - 0.5;
  const inside = px >= 0 && py >= 0 && px < paper.columns - 1 && py < rows - 1;
  const covered =
    (fault === 'a mark covered' && x > 0.86 * paper.columns * paper.pxMm && y > 0.8 * rows * paper.pxMm) ||
    (fault === 'a hand over two marks' && x > 0.86 * paper.columns * paper.pxMm);
  if (!inside || covered || fault === 'no card') {
    for (let k = 0; k < 3; k += 1) out[k] = fault === 'no card' && inside && !covered ? 0.6 : BENCH[k]!;
    return;
  }
  const c = px | 0;
  const r = py | 0;
  const fx = px - c;
  const fy = py - r;
  const i = r * paper.columns + c;
  const { light, columns } = paper;
  const value =
    (light[i]! * (1 - fx) + light[i + 1]! * fx) * (1 - fy) +
    (light[i + columns]! * (1 - fx) + light[i + columns + 1]! * fx) * fy;
  out[0] = value;
  out[1] = value;
  out[2] = value;
}

/** A reflection of a lamp: bright in the middle, gone at its rim. */
export function glareAt({ x, y, radiusMm }: Spoilt, bx: number, by: number): number {
  const r2 = ((bx - x) ** 2 + (by - y) ** 2) / radiusMm ** 2;
  return r2 < 1 ? 0.9 * (1 - r2) ** 1.5 : 0;
}

export function addGlare(spot: Spoilt, bx: number, by: number, rgb: Float64Array): void {
  const veil = glareAt(spot, bx, by);
  if (veil > 0) for (let k = 0; k < 3; k += 1) rgb[k]! += veil;
}

/** The picture with round places out of focus. */
async function blurredAt(raw: Buffer, scene: Scene, spoilt: readonly Spoilt[]): Promise<Sharp> {
  const { width, height, toPicture: h, coupon } = scene;
  const channels = { raw: { width, height, channels: 3 as const } };
  const sharpOnes = await sharp(raw, channels).blur(scene.blurPx).raw().toBuffer();
  const soft = await sharp(raw, channels).blur(6).raw().toBuffer();
  for (const { x, y, radiusMm } of spoilt) {
    const [cx, cy] = [coupon.x + coupon.cos * x - coupon.sin * y, coupon.y + coupon.sin * x + coupon.cos * y];
    const at = (px: number, py: number) => {
      const w = h[6]! * px + h[7]! * py + h[8]!;
      return { x: (h[0]! * px + h[1]! * py + h[2]!) / w, y: (h[3]! * px + h[4]! * py + h[5]!) / w };
    };
    const [middle, rim] = [at(cx, cy), at(cx + radiusMm, cy)];
    const radius = Math.hypot(rim.x - middle.x, rim.y - middle.y);
    for (let py = Math.max(0, Math.floor(middle.y - radius)); py < Math.min(height, middle.y + radius); py += 1)
      for (let px = Math.max(0, Math.floor(middle.x - radius)); px < Math.min(width, middle.x + radius); px += 1)
        if ((px - middle.x) ** 2 + (py - middle.y) ** 2 < radius ** 2)
          for (let k = 0; k < 3; k += 1) sharpOnes[3 * (py * width + px) + k] = soft[3 * (py * width + px) + k]!;
  }
  return sharp(sharpOnes, channels);
}

/** The picture beside itself: somebody left another card on the bench. */
async function twice(data: Buffer, channels: { raw: { width: number; height: number; channels: 3 } }): Promise<Sharp> {
  const { width, height } = channels.raw;
  const half = await sharp(data, channels)
    .resize(width >> 1, height >> 1)
    .png()
    .toBuffer();
  return sharp({ create: { width, height: height >> 1, channels: 3, background: '#33302a' } }).composite([
    { input: half, left: 0, top: 0 },
    { input: half, left: width >> 1, top: 0 },
  ]);
}

/** Noise of a small sensor, a little more where it is dark. */
export function addNoise(data: Buffer, random: Random): void {
  const table = Float32Array.from({ length: NOISE }, () => 1.5 * standardNormal(random));
  // Rounds and clamps as it is written.
  const bytes = new Uint8ClampedArray(data.buffer, data.byteOffset, data.length);
  let state = Math.floor(random() * 2 ** 31) | 1;
  for (let i = 0; i < bytes.length; i += 1) {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    bytes[i] = bytes[i]! + table[(state >>> 9) & (NOISE - 1)]!;
  }
}
