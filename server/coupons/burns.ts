import { literal, Op, UniqueConstraintError } from 'sequelize';
import { burnOrder } from '@unto/core';
import {
  BURN_BROKEN_OFF,
  BURN_LIVE,
  type ControllerAction,
  type Coupon,
  type SettleBurn,
  type StartBurn,
} from '@unto/contract';
import { createOnce, find, insert, list, requireVersion, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault, ApiError } from '../errors/api-error.js';
import { requireFitted } from '../place/fittings.js';
import { refuseWetCoat } from '../timers/wet-coat.js';
import { cellsFound } from './burn-state.js';
import { changeCoupon } from './change.js';
import { firedAs, freezeFiring } from './firing.js';
import { couponOnEquipment } from './setup.js';
import { getCoupon } from './view.js';

type Burn = Rows['burns'];

/** Whoever presses is beside the head so long: a program is not sent later than that. By the database's clock, as leases are. */
const SOON = literal(`now() + interval '10 seconds'`) as unknown as Date;

/**
 * Keeps that a coupon is to be sent to the controller, with what is in force as it is fired. A worker sends it once this is committed;
 * nothing is asked of a device here, nor below.
 */
export async function startBurn(context: Context, couponId: string, request: StartBurn): Promise<Coupon> {
  await createOnce(context, 'burn', request, async () => {
    const coupon = await find(context, 'coupons', couponId, { lock: true });
    requireVersion(coupon.version, request.version, await getCoupon(context, couponId));
    if (coupon.burntAt)
      throw new ApiError('wrong-stage', 'This coupon is burnt already: copy its design to a new one.');
    await requireNoBurn(context, couponId);
    await requireFitted(context, coupon);
    if (coupon.ticketId) await refuseWetCoat(context, coupon.ticketId);
    requireController(context);
    const { equipment } = await couponOnEquipment(context, coupon);
    if (equipment.machine.motion !== 'gantry')
      throw new ApiError(
        'wrong-stage',
        'This head takes no G-code: bring it the SVG or DXF, and say when it is burnt.',
      );
    const { air, extraction, laserOn } = request;
    const powerMode = laserOn === 'M3' ? 'constant' : 'scaled';
    await changeCoupon(context, couponId, await freezeFiring(context, coupon, { air, extraction, powerMode }));
    await requireFreeHead(context, couponId);
    await heldAlone(() =>
      insert(context, 'burns', {
        ...{ id: request.id, couponId, attempt: 1, state: 'queued', laserOn, heard: false, elapsedS: 0, totalS: 0 },
        ...{ cellsDone: [], cellsBefore: [], cellsCut: [], cell: null, message: '', fault: '' },
        ...{ startedAt: context.now, seenAt: context.now, endedAt: null, byId: context.actor },
        sendBefore: SOON,
      }),
    );
    await context.jobs!.add('burn', { burnId: request.id }, context.transaction, request.id);
  });
  return getCoupon(context, couponId);
}

/** Notes what somebody asks of a run: whoever holds it passes it on at once, and says so where the controller does not answer. */
export async function actOnBurn(context: Context, id: string, action: ControllerAction): Promise<Coupon> {
  const burn = await find(context, 'burns', id, { lock: true });
  if (!BURN_LIVE.includes(burn.state)) throw new ApiError('wrong-stage', 'This run has ended already.');
  await change(context, burn, { asked: action, askedAt: context.now, askedById: context.actor, fault: '' });
  context.transaction?.afterCommit(() => context.jobs?.nudge('burn'));
  return getCoupon(context, burn.couponId);
}

/** A run that broke off, as somebody found it: nothing, some or all cells are burnt; or the cells still missing are sent. */
export async function settleBurn(context: Context, id: string, { as, seen }: SettleBurn): Promise<Coupon> {
  const burn = await find(context, 'burns', id, { lock: true });
  if (!BURN_BROKEN_OFF.includes(burn.state)) throw new ApiError('wrong-stage', 'This run did not break off.');
  const coupon = await find(context, 'coupons', burn.couponId, { lock: true });
  const cells = await cellsOf(context, coupon);
  if (as === 'nothing') {
    if (burn.cellsDone.length)
      throw new ApiError(
        'wrong-stage',
        `The controller told of ${burn.cellsDone.length} cells burnt whole: take it as partly done.`,
      );
    await settle(context, burn, { state: 'nothing' });
    await changeCoupon(context, coupon.id, { firing: null, version: coupon.version + 1 });
  } else {
    const found = foundCells(burn, cells, as === 'whole' ? cells.length : seen);
    if (as === 'resume') await sendRest(context, coupon, { burn, found, cells });
    else await take(context, coupon, { burn, found, cells });
  }
  return getCoupon(context, coupon.id);
}

/** Refuses while a run of the coupon is under way or not settled. @throws wrong-stage */
export async function requireNoBurn(context: Context, couponId: string): Promise<void> {
  const [burn] = await list(context, 'burns', { where: { couponId, state: [...BURN_LIVE, ...BURN_BROKEN_OFF] } });
  if (burn) throw new ApiError('wrong-stage', 'This coupon was sent already: settle that run first.');
}

/** What stands burnt once the coupon is taken as it is; null for every cell. */
export function burntCellsOf({ cellsDone, cellsCut }: Found, cells: readonly number[]): number[] | null {
  const burnt = cellsDone.filter((cell) => !cellsCut.includes(cell));
  return cells.every((cell) => burnt.includes(cell)) ? null : burnt;
}

type Found = Pick<Burn, 'cellsDone' | 'cellsCut'>;
interface Settling {
  readonly burn: Burn;
  readonly found: Found;
  readonly cells: readonly number[];
}

/** Every cell of a coupon that is burnt, in the order it is. */
export async function cellsOf(context: Context, coupon: Rows['coupons']): Promise<number[]> {
  const { layout } = await couponOnEquipment(context, coupon);
  return burnOrder(layout).map(({ index }) => index);
}

/** What the controller told, and what somebody saw where it could not tell. @throws ApiError at `seen` for a number that cannot be */
function foundCells(burn: Burn, cells: readonly number[], seen: number | null): Found {
  if (burn.state === 'stopped') return burn;
  const order = cells.filter((cell) => !burn.cellsBefore.includes(cell) && !burn.cellsCut.includes(cell));
  const known = burn.cellsDone.filter((cell) => order.includes(cell)).length;
  if (seen === null) throw fault('seen', 'Look at the machine and count the cells that are burnt whole.');
  if (seen > cells.length) throw fault('seen', `Only ${order.length} cells were to be burnt.`);
  if (seen < known) throw fault('seen', `The controller told of ${known} cells burnt whole: count again.`);
  return cellsFound(burn, order, seen);
}

async function take(context: Context, coupon: Rows['coupons'], { burn, found, cells }: Settling): Promise<void> {
  const burntCells = burntCellsOf(found, cells);
  if (burntCells?.length === 0)
    throw new ApiError(
      'wrong-stage',
      'No cell was burnt whole: burn the others, or rinse it and begin with a new blank.',
    );
  await settle(context, burn, { ...found, state: burntCells ? 'partly' : 'done' });
  const firing = firedAs(coupon.firing, burn);
  await changeCoupon(context, coupon.id, { burntAt: context.now, burntCells, firing, version: coupon.version + 1 });
}

async function sendRest(context: Context, coupon: Rows['coupons'], { burn, found, cells }: Settling): Promise<void> {
  await requireFitted(context, coupon);
  requireController(context);
  await requireFreeHead(context, coupon.id);
  const { cellsDone, cellsCut } = found;
  if (cells.every((cell) => cellsDone.includes(cell) || cellsCut.includes(cell)))
    throw new ApiError('wrong-stage', 'No cell is left that was not begun: take it as it is.');
  await change(context, burn, {
    ...{ state: 'queued', attempt: burn.attempt + 1, cellsDone, cellsCut, cellsBefore: cellsDone, cell: null },
    ...{ heard: false, holder: null, leaseUntil: null, sentAt: null, sendBefore: SOON, asked: null, fault: '' },
    settledById: context.actor,
  });
  await context.jobs!.add('burn', { burnId: burn.id }, context.transaction, burn.id);
}

async function settle(context: Context, burn: Burn, values: Partial<Burn>): Promise<void> {
  const settled = { endedAt: context.now, settledById: context.actor, cell: null, asked: null, message: '', fault: '' };
  await change(context, burn, { ...settled, ...values });
}

async function change(context: Context, { id }: Burn, values: Partial<Burn>): Promise<void> {
  const where = { id };
  await heldAlone(() => context.models.burns.update(values, { where, transaction: context.transaction ?? null }));
}

/** One head fires one program at a time. @throws wrong-stage naming what it has */
async function requireFreeHead(context: Context, couponId: string): Promise<void> {
  const [other] = await list(context, 'burns', { where: { state: [...BURN_LIVE], couponId: { [Op.ne]: couponId } } });
  if (!other) return;
  const { design } = await find(context, 'coupons', other.couponId);
  throw new ApiError('wrong-stage', `The head has ${design.code}. Let it end, or settle it there.`);
}

/** The database holds to that where two ask in the same moment. */
async function heldAlone(write: () => Promise<unknown>): Promise<void> {
  try {
    await write();
  } catch (error) {
    if (!(error instanceof UniqueConstraintError)) throw error;
    throw new ApiError('wrong-stage', 'The head was given another program in this moment. Look there first.');
  }
}

function requireController({ tied }: Context): void {
  if (!tied.controller)
    throw new ApiError(
      'device-away',
      'No controller is tied to this server. Take the G-code or SVG to the head by hand, and say when it is burnt.',
    );
}
