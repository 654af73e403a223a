import { burnOrder } from '@unto/core';
import type { ControllerAction, Coupon, SettleBurn, StartBurn } from '@unto/contract';
import { queueBurn, requireController, requireNoBurn, askOfBurn, settleBurn } from '../burns/burns.js';
import { switchesOf, type BurnSubject } from '../burns/subject.js';
import { createOnce, find, requireVersion, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { ApiError } from '../errors/api-error.js';
import { requireFitted } from '../place/fittings.js';
import { refuseWetCoat } from '../timers/wet-coat.js';
import { changeCoupon } from './change.js';
import { firedAs, freezeFiring } from './firing.js';
import { couponOnEquipment, couponProgram } from './setup.js';
import { getCoupon } from './view.js';

type Burn = Rows['burns'];

/** Keeps that a coupon is to be sent to the controller, with what is in force as it is fired. */
export async function startCouponBurn(context: Context, couponId: string, request: StartBurn): Promise<Coupon> {
  await createOnce(context, 'burn', request, async () => {
    const coupon = await find(context, 'coupons', couponId, { lock: true });
    requireVersion(coupon.version, request.version, await getCoupon(context, couponId));
    if (coupon.burntAt)
      throw new ApiError('wrong-stage', 'This coupon is burnt already: copy its design to a new one.');
    await requireNoBurn(context, { couponId });
    await requireFitted(context, coupon);
    if (coupon.ticketId) await refuseWetCoat(context, coupon.ticketId);
    requireController(context);
    const { equipment } = await couponOnEquipment(context, coupon);
    if (equipment.machine.motion !== 'gantry')
      throw new ApiError(
        'wrong-stage',
        'This head takes no G-code: bring it the SVG or DXF, and say when it is burnt.',
      );
    const { id, air, extraction, laserOn } = request;
    const powerMode = laserOn === 'M3' ? 'constant' : 'scaled';
    await changeCoupon(context, couponId, await freezeFiring(context, coupon, { air, extraction, powerMode }));
    await queueBurn(context, { id, of: { couponId }, laserOn, parts: null });
  });
  return getCoupon(context, couponId);
}

export async function actOnCouponBurn(context: Context, id: string, action: ControllerAction): Promise<Coupon> {
  return getCoupon(context, (await askOfBurn(context, id, action)).couponId!);
}

export async function settleCouponBurn(context: Context, id: string, request: SettleBurn): Promise<Coupon> {
  return getCoupon(context, (await settleBurn(context, couponBurns, id, request)).couponId!);
}

/** What stands burnt once the coupon is taken as it is; null for every cell. */
function burntCellsOf({ cellsDone, cellsCut }: Burn, cells: readonly number[]): number[] | null {
  const burnt = cellsDone.filter((cell) => !cellsCut.includes(cell));
  return cells.every((cell) => burnt.includes(cell)) ? null : burnt;
}

const couponOf = (context: Context, { couponId }: Burn) => find(context, 'coupons', couponId!);

/** Cells of a coupon on the controller. */
export const couponBurns: BurnSubject = {
  async scene(context, burn) {
    const coupon = await couponOf(context, burn);
    const { setup } = await couponOnEquipment(context, coupon);
    return { setup, ...switchesOf(coupon.firing) };
  },
  async order(context, burn) {
    const { layout } = await couponOnEquipment(context, await couponOf(context, burn));
    return burnOrder(layout).map(({ index }) => index);
  },
  async gcode(context, burn, left) {
    const on = await couponOnEquipment(context, await couponOf(context, burn));
    return couponProgram(on, burn.laserOn, left ?? undefined);
  },
  async requireReady(context, burn) {
    await requireFitted(context, await couponOf(context, burn));
  },
  // Its cells are told by the run; what the coupon keeps it keeps when it is over.
  progressed: async () => {},
  async taken(context, burn) {
    const { id, firing, version } = await find(context, 'coupons', burn.couponId!, { lock: true });
    const burntCells = burntCellsOf(burn, await couponBurns.order(context, burn));
    if (burntCells?.length === 0)
      throw new ApiError(
        'wrong-stage',
        'No cell was burnt whole: burn the others, or rinse it and begin with a new blank.',
      );
    const as = { burntAt: context.now, burntCells, firing: firedAs(firing, burn), version: version + 1 };
    await changeCoupon(context, id, as);
  },
  async unfired(context, burn) {
    const { id, version } = await find(context, 'coupons', burn.couponId!, { lock: true });
    await changeCoupon(context, id, { firing: null, version: burn.state === 'nothing' ? version + 1 : version });
  },
};
