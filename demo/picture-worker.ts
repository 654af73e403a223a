import {
  couponGcode,
  layoutCoupon,
  levelBytes,
  openCardPicture,
  readCoupon,
  seededRandom,
  type CouponDesign,
  type CouponLimits,
  type CouponPictureReading,
  type RowMotion,
  type Stage,
} from '@unto/core';
import type { BurnSetup } from '@unto/contract';
import { DEMO_PRINT } from './card-print.js';
import { BurntBlank, readProgram, runTimes } from '@unto/simulators/burn';
import { decoded, encoded, photographCoupon } from '@unto/simulators/camera';

/** A coupon to be burnt and photographed. */
export interface PictureTask {
  readonly design: CouponDesign;
  readonly limits: CouponLimits;
  readonly motion: RowMotion;
  readonly setup: BurnSetup;
  readonly stages: readonly Stage[];
  readonly seed: number;
}

export interface PictureAnswer {
  readonly jpeg: Uint8Array;
  /** The coupon straight from above. */
  readonly level: { readonly jpeg: Uint8Array; readonly pxMm: number };
  readonly reading: Omit<CouponPictureReading, 'picture'>;
}

/** From design to reading, as at the bench: the coupon's own program is burnt, the blank photographed, the photographs read. */
async function picture({ design, limits, motion, setup, stages, seed }: PictureTask): Promise<PictureAnswer[]> {
  const layout = layoutCoupon(design, limits);
  const program = couponGcode(layout, {
    motion,
    fullScaleS: setup.fullScaleS,
    laserOn: 'M3',
    spotMm: 2 * setup.radiusMm,
  });
  const blank = new BurntBlank(setup);
  blank.burn(runTimes(readProgram(program), setup));
  const random = seededRandom(seed);
  const answers: PictureAnswer[] = [];
  for (const stage of stages) {
    const jpeg = await photographCoupon({ blank: blank.look(stage), fault: 'plain', random });
    const { picture: straight, ...reading } = readCoupon(
      openCardPicture(await decoded(jpeg), { A5: DEMO_PRINT }),
      layout,
    );
    if (!reading.sure) throw new Error(`${design.code}: its corner marks are not to be seen when ${stage}.`);
    answers.push({ jpeg, reading, level: { jpeg: await encoded(levelBytes(straight)), pxMm: straight.pxMm } });
  }
  return answers;
}

process.on('message', ({ name, task }: { name: string; task: PictureTask }) => {
  picture(task).then(
    (answers) => process.send!({ name, answers }),
    (error: unknown) => process.send!({ name, fault: String(error) }),
  );
});
