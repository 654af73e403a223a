import sharp from 'sharp';
import { fitHomography, linearToSrgb, standardNormal, type Point2, type Random } from '@unto/core';
import type { CameraScene, CoatScene, CouponScene, TrayScene } from '@unto/contract';
import { coatFilm, type CoatFault, type FilmTruth } from '../ground-truth/coat-film.js';
import type { BlankPicture } from '../burn/burnt-blank.js';
import { photographCoupon, type CouponFault } from './coupon-photo.js';
import { photographTray, type TrayFault } from './tray-photo.js';

/** Film is drawn from a grid this fine, mm. */
const GRID_MM = 0.25;
/** Linear light to an 8-bit sRGB value, by table. */
const ENCODED = Uint8Array.from({ length: 4096 }, (_, i) => Math.round(255 * linearToSrgb(i / 4095)));
/** The bare twin beside the part, mm. */
const TWIN = { gapMm: 8, widthMm: 16 } as const;
const TINT = [1.03, 1, 0.93] as const;

/** A bench camera that looks at a coated part and a bare twin beside it, a little from the side, in uneven light. */
export class SimulatedCamera {
  scene: CoatFault = 'even';
  coupon: CouponFault = 'plain';
  tray: TrayFault = 'plain';
  private lies: CameraScene | null = null;
  /** Corners of the blank in the newest picture of a coupon. */
  outline: readonly Point2[] = [];

  constructor(
    private readonly random: Random,
    private readonly size = { width: 1600, height: 1200 },
  ) {}

  /** Lays something before it. */
  place(scene: CameraScene): void {
    this.lies = scene;
  }

  /** One picture, JPEG; `blankOf` shows what lies on the card. @throws when the camera is unplugged */
  async take(lies: {
    readonly blankOf: (scene: CouponScene) => BlankPicture;
    readonly blanksOf: (scene: TrayScene) => readonly BlankPicture[];
    readonly filmOf: (batch: string) => number;
  }): Promise<Buffer> {
    const asked = this.lies;
    if (!asked) throw new Error('Nothing lies before the camera.');
    if (asked.kind === 'tray')
      return photographTray({ blanks: lies.blanksOf(asked), fault: this.tray, random: this.random });
    if (asked.kind === 'coupon')
      return photographCoupon({
        blank: lies.blankOf(asked),
        fault: this.coupon,
        random: this.random,
        tell: (corners) => (this.outline = corners),
      });
    const { width, height } = this.size;
    return sharp(this.render(asked, lies.filmOf(asked.batch)), { raw: { width, height, channels: 3 } })
      .blur(0.8)
      .jpeg({ quality: 90 })
      .toBuffer();
  }

  private render(asked: CoatScene, laid: number): Buffer {
    const { width, height } = this.size;
    const film = coatFilm(this.scene, asked, this.random);
    const surface = surfaceLight(asked, (u, v) => laid * film(u, v));
    const back = fitHomography(...this.placed(asked));
    const light = { x: width * (0.3 + 0.4 * this.random()), y: height * 0.3 };
    const diagonal2 = width ** 2 + height ** 2;
    const grain = Float32Array.from({ length: 8192 }, () => 1 + 0.012 * standardNormal(this.random));
    const out = Buffer.alloc(width * height * 3);
    for (let y = 0; y < height; y += 1) {
      for (let x = 0; x < width; x += 1) {
        const w = back[6]! * x + back[7]! * y + back[8]!;
        const mmX = (back[0]! * x + back[1]! * y + back[2]!) / w;
        const mmY = (back[3]! * x + back[4]! * y + back[5]!) / w;
        const away = ((x - light.x) ** 2 + (y - light.y) ** 2) / diagonal2;
        const noise = grain[(Math.imul(y * width + x, 2_654_435_761) >>> 7) & 8191]!;
        const lit = surface(mmX, mmY) * (1 - 0.35 * away) * noise;
        for (let k = 0; k < 3; k += 1)
          out[3 * (y * width + x) + k] = ENCODED[Math.min(4095, Math.max(0, Math.round(4095 * lit * TINT[k]!)))]!;
      }
    }
    return out;
  }

  /** Corners of the coat in the picture, and on the part. */
  private placed({ widthMm, heightMm }: CoatScene): [Point2[], Point2[]] {
    const { width, height } = this.size;
    const scale = Math.min((0.6 * width) / (widthMm + TWIN.gapMm + TWIN.widthMm), (0.62 * height) / heightMm);
    const [w, h] = [widthMm * scale, heightMm * scale];
    const [left, low] = [0.14 * width, height / 2 + h / 2];
    const lean = 0.04 * this.random() - 0.02;
    const at = (x: number, y: number) => ({ x: x + lean * (height - y), y });
    const picture = [
      at(left, low),
      at(left + w * 1.01, low - 0.015 * w),
      at(left + w * 0.985, low - h * 0.98),
      at(left + w * 0.02, low - h),
    ];
    const mm = [
      { x: 0, y: 0 },
      { x: widthMm, y: 0 },
      { x: widthMm, y: heightMm },
      { x: 0, y: heightMm },
    ];
    return [picture, mm];
  }
}

/** Linear luminance at a place of the bench, mm from the coat's lower left corner: coat, bare twin, or the bench itself. */
function surfaceLight(asked: CoatScene, film: FilmTruth): (xMm: number, yMm: number) => number {
  const { widthMm, heightMm } = asked;
  const ground = asked.ground === 'dark' ? 0.04 : asked.ground === 'clear' ? 0.32 : 0.5;
  const full = asked.ground === 'dark' ? 0.5 : 0.1;
  const [columns, rows] = [Math.ceil(widthMm / GRID_MM), Math.ceil(heightMm / GRID_MM)];
  const coat = Float32Array.from({ length: columns * rows }, (_, i) => {
    const hidden = 1 - Math.exp(-1.9 * film(((i % columns) + 0.5) / columns, (Math.floor(i / columns) + 0.5) / rows));
    return ground + (full - ground) * hidden;
  });
  const twin = widthMm + TWIN.gapMm;
  return (x, y) => {
    if (y < 0 || y >= heightMm || x < 0) return BENCH;
    if (x < widthMm)
      return coat[
        Math.min(rows - 1, Math.floor(y / GRID_MM)) * columns + Math.min(columns - 1, Math.floor(x / GRID_MM))
      ]!;
    return x >= twin && x < twin + TWIN.widthMm ? ground : BENCH;
  };
}

const BENCH = 0.8;
