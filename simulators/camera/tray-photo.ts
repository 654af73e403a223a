import { fitHomography, project, referenceCard, type Point2, type Random } from '@unto/core';
import sharp from 'sharp';
import { BLANK_PX_MM, type BlankPicture } from '../burn/burnt-blank.js';
import { cardPaper } from './card-paper.js';
import { addGlare, addNoise, BENCH, ENCODED, onBlank, onCard } from './coupon-photo.js';

/** What can be wrong with a picture of a tray. */
export const TRAY_FAULTS = ['plain', 'one is missing', 'two touch', 'glare on one', 'no card'] as const;
export type TrayFault = (typeof TRAY_FAULTS)[number];

/** How washed pieces are photographed beside the card. */
export interface TrayShot {
  /** In the order they lie: row by row from the upper left. */
  readonly blanks: readonly BlankPicture[];
  readonly fault: TrayFault;
  readonly random: Random;
  readonly size?: { readonly width: number; readonly height: number };
  /** What the tray throws back: red, green, blue. */
  readonly tray?: readonly [number, number, number];
  /** Pieces that lie the other way up. */
  readonly turned?: readonly number[];
  /** Hears what lies where on the tray, mm, and where a place of it comes to lie in the picture, px. */
  readonly tell?: (seen: {
    readonly middles: readonly { readonly x: number; readonly y: number; readonly turnDeg: number }[];
    readonly card: { readonly x: number; readonly y: number };
    readonly toPicture: (place: Point2) => Point2;
  }) => void;
}

/** A camera from as near as it may be: so fine a pixel, mm, of so many across. */
const PIXEL = { mm: 0.12, least: 1600, most: 4000 } as const;
const GAP_MM = 7;
const MARGIN_MM = 12;

interface LaidBlank {
  readonly blank: BlankPicture;
  /** Its middle, mm, and how it lies. */
  readonly x: number;
  readonly y: number;
  readonly cos: number;
  readonly sin: number;
}

/** A photograph of pieces on a tray, JPEG: perspective, lens, uneven coloured light over all of it, tone, noise and blur, and a fault. */
export async function photographTray(shot: TrayShot): Promise<Buffer> {
  const { random } = shot;
  const about = (spread: number) => spread * (2 * random() - 1);
  const { laid, tray, card } = layOut(shot);
  const { width, height } = shot.size ?? sizeFor(tray);
  const scale = Math.min(width / tray.widthMm, height / tray.heightMm);
  const lean = 0.02 * width;
  const corner = (x: number, y: number): Point2 => ({
    x: width / 2 + (x - 0.5) * tray.widthMm * scale + about(lean / 2),
    y: height / 2 - (y - 0.5) * tray.heightMm * scale + about(lean / 2),
  });
  const px = [corner(0, 0), corner(1, 0), corner(1, 1), corner(0, 1)];
  const { widthMm: w, heightMm: h } = tray;
  const mm = [
    { x: 0, y: 0 },
    { x: w, y: 0 },
    { x: w, y: h },
    { x: 0, y: h },
  ];
  const toTray = fitHomography(px, mm);
  const looks = {
    ...{ toTray, k1: about(0.03), light: [about(0.2), about(0.2), -0.15 * random(), about(0.05), -0.12 * random()] },
    ...{ cast: [1 + about(0.1), 1, 1 + about(0.12)], exposure: 0.8 + 0.12 * random(), gamma: 1 + about(0.06) },
  };
  shot.tell?.({
    middles: laid.map(({ x, y, cos, sin }) => ({ x, y, turnDeg: (180 * Math.atan2(sin, cos)) / Math.PI })),
    card,
    toPicture: lensed(fitHomography(mm, px), looks.k1, { width, height }),
  });
  const paper = await cardPaper('A5');
  const raw = render({ width, height }, looks, (x, y, rgb) => {
    const one = at(laid, x, y);
    if (one !== null && onLaid(laid[one]!, x, y, rgb)) {
      if (shot.fault === 'glare on one' && one === 1)
        addGlare({ x: laid[one]!.x, y: laid[one]!.y, radiusMm: 14 }, x, y, rgb);
      return;
    }
    const [cx, cy] = [x - card.x, y - card.y];
    if (shot.fault !== 'no card' && cx >= 0 && cy >= 0 && cx < card.widthMm && cy < card.heightMm)
      return onCard(paper, cx, cy, 'plain', rgb);
    const ground = shot.tray ?? BENCH;
    for (let k = 0; k < 3; k += 1) rgb[k] = ground[k]!;
  });
  const soft = await sharp(raw, { raw: { width, height, channels: 3 } })
    .blur(0.6 + 0.4 * random())
    .raw()
    .toBuffer();
  addNoise(soft, random);
  return sharp(soft, { raw: { width, height, channels: 3 } })
    .jpeg({ quality: 92, chromaSubsampling: '4:2:0' })
    .toBuffer();
}

function sizeFor(tray: { readonly widthMm: number; readonly heightMm: number }) {
  const across = Math.max(tray.widthMm, (4 / 3) * tray.heightMm) / PIXEL.mm;
  const width = Math.round(Math.min(PIXEL.most, Math.max(PIXEL.least, across)) / 4) * 4;
  return { width, height: (3 * width) / 4 };
}

/** A place through the picture's geometry and its lens. */
function lensed(h: readonly number[], k1: number, { width, height }: { width: number; height: number }) {
  const [mx, my] = [(width - 1) / 2, (height - 1) / 2];
  return (place: Point2): Point2 => {
    const { x, y } = project(h, place);
    const bend = 1 + (k1 * ((x - mx) ** 2 + (y - my) ** 2)) / (mx * mx + my * my);
    return { x: mx + (x - mx) * bend, y: my + (y - my) * bend };
  };
}

/** Pieces in rows beside the card, none quite straight. */
function layOut({ blanks, fault, random, turned = [] }: TrayShot) {
  const about = (spread: number) => spread * (2 * random() - 1);
  const card = referenceCard('A5');
  const [w, h] = [blanks[0]!.columns * BLANK_PX_MM, blanks[0]!.rows * BLANK_PX_MM];
  const columns = columnsFor(blanks.length, { w, h }, card);
  const rows = Math.ceil(blanks.length / columns);
  const heightMm = Math.max(card.heightMm, rows * (h + GAP_MM)) + 2 * MARGIN_MM;
  const widthMm = card.widthMm + columns * (w + GAP_MM) + 3 * MARGIN_MM;
  const laid = blanks.flatMap((blank, i): LaidBlank[] => {
    if (fault === 'one is missing' && i === blanks.length - 1) return [];
    const column = i % columns;
    const touches = fault === 'two touch' && i === 1;
    const turn = touches ? 0 : about(0.05) + (turned.includes(i) ? Math.PI : 0);
    // Over the rim of the first: beside it, or below where there is one column.
    const [dx, dy] = touches ? (column ? [-GAP_MM - 2.5, 0] : [0, GAP_MM + 2.5]) : [about(1.5), about(1.5)];
    return [
      {
        blank,
        x: card.widthMm + 2 * MARGIN_MM + column * (w + GAP_MM) + w / 2 + dx,
        y: heightMm - MARGIN_MM - Math.floor(i / columns) * (h + GAP_MM) - h / 2 + dy,
        ...{ cos: Math.cos(turn), sin: Math.sin(turn) },
      },
    ];
  });
  return {
    laid,
    tray: { widthMm, heightMm },
    card: { ...card, x: MARGIN_MM, y: heightMm - MARGIN_MM - card.heightMm },
  };
}

/** As many columns as bring the whole nearest to a picture's shape. */
function columnsFor(
  count: number,
  { w, h }: { w: number; h: number },
  card: { widthMm: number; heightMm: number },
): number {
  const shape = (columns: number) => {
    const [wide, high] = [
      card.widthMm + columns * (w + GAP_MM),
      Math.max(card.heightMm, Math.ceil(count / columns) * (h + GAP_MM)),
    ];
    return Math.abs(Math.log(wide / high / (4 / 3)));
  };
  return Array.from({ length: count }, (_, i) => i + 1).reduce(
    (best, one) => (shape(one) < shape(best) ? one : best),
    1,
  );
}

/** Which piece lies about a place; null for none. */
function at(laid: readonly LaidBlank[], x: number, y: number): number | null {
  for (let i = 0; i < laid.length; i += 1) {
    const { blank, x: mx, y: my } = laid[i]!;
    const reach = (Math.hypot(blank.columns, blank.rows) * BLANK_PX_MM) / 2;
    if (Math.abs(x - mx) < reach && Math.abs(y - my) < reach && isOn(laid[i]!, x, y)) return i;
  }
  return null;
}

function ownPlace({ blank, x, y, cos, sin }: LaidBlank, px: number, py: number): readonly [number, number] {
  const [dx, dy] = [px - x, py - y];
  return [
    cos * dx + sin * dy + (blank.columns * BLANK_PX_MM) / 2,
    cos * dy - sin * dx + (blank.rows * BLANK_PX_MM) / 2,
  ];
}

function isOn(one: LaidBlank, x: number, y: number): boolean {
  const [u, v] = ownPlace(one, x, y);
  return u >= 0 && v >= 0 && u < one.blank.columns * BLANK_PX_MM && v < one.blank.rows * BLANK_PX_MM;
}

function onLaid(one: LaidBlank, x: number, y: number, rgb: Float64Array): boolean {
  const [u, v] = ownPlace(one, x, y);
  return onBlank(one.blank, u, v, rgb);
}

interface TrayLooks {
  readonly toTray: readonly number[];
  readonly k1: number;
  readonly light: readonly number[];
  readonly cast: readonly number[];
  readonly exposure: number;
  readonly gamma: number;
}

function render(
  { width, height }: { readonly width: number; readonly height: number },
  { toTray: t, k1, light, cast, exposure, gamma }: TrayLooks,
  lightOf: (x: number, y: number, rgb: Float64Array) => void,
): Buffer {
  const out = Buffer.alloc(width * height * 3);
  const [mx, my] = [(width - 1) / 2, (height - 1) / 2];
  const bend = k1 / (mx * mx + my * my);
  const tone = Uint8Array.from({ length: 4096 }, (_, i) => ENCODED[Math.round(4095 * (i / 4095) ** gamma)]!);
  const rgb = new Float64Array(3);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const [dx, dy] = [x - mx, y - my];
      const r2 = bend * (dx * dx + dy * dy);
      const back = 1 - r2 + 3 * r2 * r2;
      const [ux, uy] = [mx + dx * back, my + dy * back];
      const w = 1 / (t[6]! * ux + t[7]! * uy + t[8]!);
      lightOf((t[0]! * ux + t[1]! * uy + t[2]!) * w, (t[3]! * ux + t[4]! * uy + t[5]!) * w, rgb);
      const [u, v] = [dx / mx, dy / my];
      const lit =
        exposure * (1 + light[0]! * u + light[1]! * v + light[2]! * u * u + light[3]! * u * v + light[4]! * v * v);
      const k = 3 * (y * width + x);
      for (let c = 0; c < 3; c += 1) {
        const value = (rgb[c]! * lit * cast[c]! * 4095) | 0;
        out[k + c] = tone[value > 4095 ? 4095 : value < 0 ? 0 : value]!;
      }
    }
  return out;
}
