import { literal, Op, UniqueConstraintError, type WhereOptions } from 'sequelize';
import { BURN_BROKEN_OFF, BURN_LIVE, type ControllerAction, type SettleBurn, type Burn as Seen } from '@unto/contract';
import { find, insert, list, NEWEST_FIRST, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault, ApiError } from '../errors/api-error.js';
import { partsFound } from './burn-state.js';
import type { BurnOf, BurnSubject } from './subject.js';

type Burn = Rows['burns'];

/** Whoever presses is beside the head so long: a program is not sent later than that. By the database's clock, as leases are. */
const SOON = literal(`now() + interval '10 seconds'`) as unknown as Date;

/**
 * Keeps that a program is to be sent to the controller. A worker sends it once this is committed; nothing is asked of a device here, nor below.
 * @param parts those it is of; null for all @throws wrong-stage while the head has another; device-away without a controller
 */
export async function queueBurn(
  context: Context,
  { id, of, laserOn, parts }: { id: string; of: BurnOf; laserOn: Burn['laserOn']; parts: readonly number[] | null },
): Promise<void> {
  await requireFreeHead(context, null);
  await heldAlone(() =>
    insert(context, 'burns', {
      ...{ id, couponId: null, markingId: null, ...of, parts },
      ...{ attempt: 1, state: 'queued', laserOn, heard: false, elapsedS: 0, totalS: 0 },
      ...{ cellsDone: [], cellsBefore: [], cellsCut: [], cell: null, message: '', fault: '' },
      ...{ startedAt: context.now, seenAt: context.now, endedAt: null, byId: context.actor },
      sendBefore: SOON,
    }),
  );
  await context.jobs!.add('burn', { burnId: id }, context.transaction, id);
}

/** Notes what somebody asks of a run: whoever holds it passes it on at once, and says so where the controller does not answer. */
export async function askOfBurn(context: Context, id: string, action: ControllerAction): Promise<Burn> {
  const burn = await find(context, 'burns', id, { lock: true });
  if (!BURN_LIVE.includes(burn.state)) throw new ApiError('wrong-stage', 'This run has ended already.');
  await change(context, burn, { asked: action, askedAt: context.now, askedById: context.actor, fault: '' });
  context.transaction?.afterCommit(() => context.jobs?.nudge('burn'));
  return burn;
}

/** A run that broke off, as somebody found it: nothing, some or all parts are burnt; or the parts still missing are sent. */
export async function settleBurn(
  context: Context,
  subject: BurnSubject,
  id: string,
  { as, seen }: SettleBurn,
): Promise<Burn> {
  const burn = await find(context, 'burns', id, { lock: true });
  if (!BURN_BROKEN_OFF.includes(burn.state)) throw new ApiError('wrong-stage', 'This run did not break off.');
  if (as === 'nothing') {
    if (burn.cellsDone.length)
      throw new ApiError(
        'wrong-stage',
        `The controller told of ${burn.cellsDone.length} burnt whole: take it as partly done.`,
      );
    await subject.unfired(context, await settled(context, burn, { state: 'nothing' }));
    return burn;
  }
  const order = await subject.order(context, burn);
  const found = partsSeen(burn, order, as === 'whole' ? order.length : seen);
  if (as === 'resume') await sendRest(context, subject, { burn, found, order });
  else await take(context, subject, { burn, found, order });
  return burn;
}

/** Refuses while a run of it is under way or not settled. @throws wrong-stage */
export async function requireNoBurn(context: Context, of: BurnOf): Promise<void> {
  const [burn] = await list(context, 'burns', { where: { ...of, state: [...BURN_LIVE, ...BURN_BROKEN_OFF] } });
  if (burn) throw new ApiError('wrong-stage', 'It was sent to the head already: let it end, or settle that run first.');
}

/** @throws device-away */
export function requireController({ tied }: Context): void {
  if (!tied.controller)
    throw new ApiError(
      'device-away',
      'No controller is tied to this server. Take the program to the head by hand, and say when it is burnt.',
    );
}

/** The newest run of something as the client sees it. */
export async function newestBurn(context: Context, of: BurnOf): Promise<Seen | null> {
  const [row] = await list(context, 'burns', { where: of as WhereOptions, order: NEWEST_FIRST, limit: 1 });
  if (!row) return null;
  const { id, state, elapsedS, totalS, cellsDone, cellsCut, cell, message, asked, fault: why, byId } = row;
  const { startedAt, seenAt, endedAt, parts } = row;
  return {
    ...{ id, state, elapsedS, totalS, cellsDone, cellsCut, cell, message, asked, fault: why, parts },
    startedAt: startedAt.toISOString(),
    seenAt: seenAt.toISOString(),
    endedAt: endedAt?.toISOString() ?? null,
    by: byId,
  };
}

interface Settling {
  readonly burn: Burn;
  readonly found: Pick<Burn, 'cellsDone' | 'cellsCut'>;
  readonly order: readonly number[];
}

/** What the controller told, and what somebody saw where it could not tell. @throws ApiError at `seen` for a number that cannot be */
function partsSeen(burn: Burn, parts: readonly number[], seen: number | null): Settling['found'] {
  if (burn.state === 'stopped') return burn;
  const order = parts.filter((part) => !burn.cellsBefore.includes(part) && !burn.cellsCut.includes(part));
  const known = burn.cellsDone.filter((part) => order.includes(part)).length;
  if (seen === null) throw fault('seen', 'Look at the machine and count what is burnt whole.');
  if (seen > parts.length) throw fault('seen', `Only ${order.length} were to be burnt.`);
  if (seen < known) throw fault('seen', `The controller told of ${known} burnt whole: count again.`);
  return partsFound(burn, order, seen);
}

async function take(context: Context, subject: BurnSubject, { burn, found, order }: Settling): Promise<void> {
  const whole = order.every((part) => found.cellsDone.includes(part) && !found.cellsCut.includes(part));
  const after = await settled(context, burn, { ...found, state: whole ? 'done' : 'partly' });
  await subject.progressed(context, after, burn);
  await subject.taken(context, after);
}

async function sendRest(context: Context, subject: BurnSubject, { burn, found, order }: Settling): Promise<void> {
  await subject.requireReady(context, burn);
  requireController(context);
  await requireFreeHead(context, burn.id);
  const { cellsDone, cellsCut } = found;
  if (order.every((part) => cellsDone.includes(part) || cellsCut.includes(part)))
    throw new ApiError('wrong-stage', 'Nothing is left that was not begun: take it as it is.');
  const again: Partial<Burn> = {
    ...{ state: 'queued', attempt: burn.attempt + 1, cellsDone, cellsCut, cellsBefore: cellsDone, cell: null },
    ...{ heard: false, holder: null, leaseUntil: null, sentAt: null, sendBefore: SOON, asked: null, fault: '' },
    settledById: context.actor,
  };
  await change(context, burn, again);
  await subject.progressed(context, { ...burn, ...again }, burn);
  await context.jobs!.add('burn', { burnId: burn.id }, context.transaction, burn.id);
}

async function settled(context: Context, burn: Burn, values: Partial<Burn>): Promise<Burn> {
  const over = { endedAt: context.now, settledById: context.actor, cell: null, asked: null, message: '', fault: '' };
  await change(context, burn, { ...over, ...values });
  return { ...burn, ...over, ...values };
}

async function change(context: Context, { id }: Burn, values: Partial<Burn>): Promise<void> {
  const where = { id };
  await heldAlone(() => context.models.burns.update(values, { where, transaction: context.transaction ?? null }));
}

/** One head fires one program at a time. @throws wrong-stage */
async function requireFreeHead(context: Context, own: string | null): Promise<void> {
  const where = { state: [...BURN_LIVE], ...(own ? { id: { [Op.ne]: own } } : {}) };
  const [other] = await list(context, 'burns', { where });
  if (!other) return;
  throw new ApiError(
    'wrong-stage',
    `The head has ${(await burntOn(context, other)).name}. Let it end, or settle it there.`,
  );
}

/** What a burn is of, in few words, and where somebody looks after it. */
export async function burntOn(
  context: Context,
  { couponId, markingId }: Burn,
): Promise<{ readonly name: string; readonly to: string }> {
  if (couponId) return { name: (await find(context, 'coupons', couponId)).design.code, to: `/coupons/${couponId}` };
  const { ticketId } = await find(context, 'markings', markingId!);
  const { number } = await find(context, 'tickets', ticketId);
  return { name: `ticket ${number}`, to: `/tickets/${ticketId}/mark` };
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
