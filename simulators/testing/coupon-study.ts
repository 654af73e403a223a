import {
  couponGcode,
  insideOf,
  layoutCoupon,
  lightness,
  luminance,
  openCardPicture,
  PLAIN_DESIGN,
  readCoupon,
  seededRandom,
  type CouponDesign,
  type CouponLayout,
  type CouponPictureReading,
  type Point2,
  type RowMotion,
  type Stage,
} from '@unto/core';
import type { BurnSetup } from '@unto/contract';
import { BLANK_PX_MM, BurntBlank, readProgram, runTimes, type BlankPicture, type TimedMove } from '../burn/index.js';
import { decoded } from '../camera/decoded.js';
import { glareAt, photographCoupon, type CouponFault, type Spoilt } from '../camera/coupon-photo.js';

/** A coupon of six powers by seven speeds on brass, as the studies of reading use it. */
export const STUDY_DESIGN: CouponDesign = {
  ...PLAIN_DESIGN,
  code: 'K-031',
  axes: {
    x: { parameter: 'power', spacing: 'linear', from: 50, to: 100, count: 6 },
    y: { parameter: 'speed', spacing: 'log', from: 80, to: 420, count: 7 },
  },
  fixed: { powerPercent: 80, speedMmPerS: 150, intervalMm: 0.06, frequencyKHz: null, pulseNs: null },
  cell: { widthMm: 5, heightMm: 4 },
  gapMm: 1,
  marginMm: 3,
  fill: 'filled',
  lineSpacingMm: 0.5,
  hatchAngleDeg: 0,
  directions: 'two-way',
  labels: { at: 'edges', heightMm: 1.8, powerPercent: 100, speedMmPerS: 60 },
  blank: { widthMm: 70, heightMm: 60 },
};
export const STUDY_LIMITS = {
  bed: { widthMm: 700, heightMm: 500 },
  topSpeedMmPerS: 600,
  firingThresholdPercent: 7,
};
export const STUDY_MOTION: RowMotion = { kind: 'gantry', accelerationMmPerS2: 5000, rapidMmPerS: 600 };

/** The study's brass under the study's head; the key seeds spray and warp. */
export function studySetup(key: string, change: Partial<BurnSetup> = {}): BurnSetup {
  return {
    key,
    blank: STUDY_DESIGN.blank,
    blocks: [{ fromMm: 0, toMm: 300, compound: 'Corvid Film', coats: 1, powder: false }],
    batch: '',
    focusMm: 0,
    family: 'brass',
    layer: 'bare',
    ground: 'light',
    conductivity: 0.121,
    diffusivity: 37.6,
    beam: 'co2',
    ratedW: 55,
    firingThresholdPercent: 7,
    calibration: null,
    radiusMm: 0.0825,
    rayleighMm: 1.67,
    accelerationMmPerS2: 5000,
    rapidMmPerS: 600,
    fullScaleS: 1000,
    ...change,
  };
}

/** Moves of a design's own program. */
export function studyMoves(design: CouponDesign): { layout: CouponLayout; moves: TimedMove[] } {
  const layout = layoutCoupon(design, STUDY_LIMITS);
  const program = couponGcode(layout, { motion: STUDY_MOTION, fullScaleS: 1000, laserOn: 'M3' });
  return { layout, moves: runTimes(readProgram(program), { accelerationMmPerS2: 5000, rapidMmPerS: 600 }) };
}

/** A blank burnt by the study's coupon, as it looks at a stage. */
export function studyBlank(
  seed: number,
  stage: Stage,
  moves: readonly TimedMove[],
  change: Partial<BurnSetup> = {},
): BlankPicture {
  const blank = new BurntBlank(studySetup(`study ${seed}`, change));
  blank.burn(moves);
  return blank.look(stage);
}

export interface StudyShot {
  readonly seed: number;
  readonly blank: BlankPicture;
  readonly fault?: CouponFault;
  readonly spoilt?: readonly Spoilt[];
  readonly size?: { readonly width: number; readonly height: number };
  readonly quarters?: 0 | 1 | 2 | 3;
  /** Hears where the blank’s corners lie, as the camera stood before it was turned. */
  readonly tell?: (corners: readonly Point2[]) => void;
}

/** JPEG of a study's blank. */
export function studyPhoto({ seed, fault = 'plain', ...rest }: StudyShot): Promise<Buffer> {
  return photographCoupon({ fault, random: seededRandom(1000 + seed), quarters: (seed % 4) as 0 | 1 | 2 | 3, ...rest });
}

/** Reads a study's picture as the page does. */
export async function studyReading(file: Buffer, layout: CouponLayout): Promise<CouponPictureReading> {
  return readCoupon(openCardPicture(await decoded(file)), layout);
}

/** L* that the blank truly has inside each cell: of its mean light, as a camera averages it. */
export function trueLightness(blank: BlankPicture, layout: CouponLayout): number[] {
  return layout.cells.map((cell) => {
    const { x0, y0, x1, y1 } = insideOf(layout, cell);
    const sum = [0, 0, 0];
    let count = 0;
    for (let y = Math.ceil(y0 / BLANK_PX_MM); y < y1 / BLANK_PX_MM; y += 1) {
      for (let x = Math.ceil(x0 / BLANK_PX_MM); x < x1 / BLANK_PX_MM; x += 1) {
        for (let k = 0; k < 3; k += 1) sum[k]! += blank.rgb[3 * (y * blank.columns + x) + k]!;
        count += 1;
      }
    }
    return lightness(luminance(sum[0]! / count, sum[1]! / count, sum[2]! / count));
  });
}

/** Cells that a spoilt place covers whole: their middle and all corners of what is read lie well within it. */
export function coveredCells(layout: CouponLayout, spots: readonly Spoilt[], least = 0.03): number[] {
  return layout.cells.flatMap((cell) => {
    const { x0, y0, x1, y1 } = insideOf(layout, cell);
    const corners = [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ] as const;
    return spots.some((spot) => corners.every(([x, y]) => glareAt(spot, x, y) > least)) ? [cell.index] : [];
  });
}
