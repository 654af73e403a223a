import type { Coupon, CreateCouponPicture, DeviceJob } from '@unto/contract';
import type { Stage } from '@unto/core';
import { askOfDevice } from '../devices/ask-of-device.js';
import { createOnce, find, insert, list, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault, ApiError } from '../errors/api-error.js';
import { requireKnownPrint } from '../cards/service.js';
import { isKept } from '../files/service.js';
import { getCoupon } from './view.js';

/** Asks for a picture of a coupon on its card. @throws device-away without a camera */
export async function askCouponPicture(context: Context, couponId: string, stage: Stage): Promise<DeviceJob> {
  await requireBurnt(context, couponId);
  return askOfDevice(context, 'picture', { of: 'coupon', couponId, stage });
}

/** Keeps what a picture told of a coupon's cells; its file is kept already. */
export async function createCouponPicture(
  context: Context,
  couponId: string,
  request: CreateCouponPicture,
): Promise<Coupon> {
  await createOnce(context, 'coupon picture', request, async () => {
    const coupon = await requireBurnt(context, couponId);
    const { id, stage, entries } = request;
    if (!(await isKept(context, entries.fileHash)))
      throw fault('entries.fileHash', 'That picture is not kept here. Bring it again.');
    if (entries.level && !(await isKept(context, entries.level.fileHash)))
      throw fault('entries.level.fileHash', 'The straight picture is not kept here. Bring the picture again.');
    if (entries.cells.length !== coupon.cells || entries.cells.some(({ cell }, i) => cell !== i))
      throw fault('entries.cells', `${coupon.design.code} has ${coupon.cells} cells; the reading has others.`);
    refuseOtherCode(coupon.design.code, entries);
    await requireKnownPrint(context, 'entries.print', { size: entries.card, print: entries.print });
    await refuseSamePicture(context, couponId, request);
    const { fileHash } = entries;
    await insert(context, 'couponPictures', {
      id,
      couponId,
      stage,
      fileHash,
      entries,
      at: context.now,
      byId: context.actor,
    });
  });
  return getCoupon(context, couponId);
}

/** A code that is told whole is this coupon's; of one that is not, somebody has looked at the coupon. Empty where none was burnt. */
function refuseOtherCode(own: string, { code, codeConfirmed }: CreateCouponPicture['entries']): void {
  if (code.includes('?')) {
    if (!codeConfirmed) throw fault('entries.code', `Its code cannot be read: is this ${own}? Look at the coupon.`);
  } else if (code && code !== own) {
    throw fault('entries.code', `This picture shows ${code}, not ${own}. Bring the picture of ${own}.`);
  }
}

/** One picture cannot show a coupon before and after the scrub, nor two coupons. */
async function refuseSamePicture(
  context: Context,
  couponId: string,
  { stage, entries }: CreateCouponPicture,
): Promise<void> {
  const earlier = await list(context, 'couponPictures', { where: { fileHash: entries.fileHash } });
  const other = earlier.find((row) => row.couponId !== couponId);
  if (other) {
    const { design } = await find(context, 'coupons', other.couponId);
    throw fault('entries.fileHash', `This very picture was read for ${design.code} already.`);
  }
  const before = earlier.find((row) => row.stage !== stage);
  if (before)
    throw fault(
      'entries.fileHash',
      `This very picture was kept as ${before.stage}. Take another now that the coupon is ${stage}; it is kept.`,
    );
}

async function requireBurnt(context: Context, couponId: string): Promise<Rows['coupons']> {
  const coupon = await find(context, 'coupons', couponId);
  if (!coupon.burntAt) throw new ApiError('wrong-stage', 'This coupon is not burnt yet: there is nothing to picture.');
  return coupon;
}
