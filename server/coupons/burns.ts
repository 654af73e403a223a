import type {
  BurnState,
  Controller,
  ControllerAction,
  ControllerReport,
  Coupon,
  JobState,
  StartBurn,
} from '@unto/contract';
import { createOnce, find, insert, list, requireVersion, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { ApiError } from '../errors/api-error.js';
import { requireFitted } from '../place/fittings.js';
import { refuseWetCoat } from '../timers/wet-coat.js';
import { freezeFiring } from './firing.js';
import { getCoupon } from './view.js';
import { couponOnEquipment, couponProgram } from './setup.js';

/** States in which a controller still has something to do. */
const LIVE: readonly BurnState[] = ['running', 'paused', 'waiting', 'dropped'];

/** Sends a coupon to the controller. Its row stands before the program goes out, so that no run is without a record. */
export async function startBurn(context: Context, couponId: string, request: StartBurn): Promise<Coupon> {
  await createOnce(context, 'burn', request, async () => {
    const coupon = await find(context, 'coupons', couponId, { lock: true });
    requireVersion(coupon.version, request.version, await getCoupon(context, couponId));
    if (coupon.burntAt)
      throw new ApiError('wrong-stage', 'This coupon is burnt already: copy its design to a new one.');
    const [live] = await list(context, 'burns', { where: { couponId, state: [...LIVE, 'stopped'] } });
    if (live) throw new ApiError('wrong-stage', 'This coupon was sent already: settle that run first.');
    await requireFitted(context, coupon);
    if (coupon.ticketId) await refuseWetCoat(context, coupon.ticketId);
    const controller = requireController(context);
    const on = await couponOnEquipment(context, coupon);
    if (on.equipment.machine.motion !== 'gantry')
      throw new ApiError(
        'wrong-stage',
        'This head takes no G-code: bring it the SVG or DXF, and say when it is burnt.',
      );
    await refuseBusy(controller, context);
    const { air, extraction, laserOn } = request;
    const powerMode = laserOn === 'M3' ? 'constant' : 'scaled';
    await context.models.coupons.update(await freezeFiring(context, coupon, { air, extraction, powerMode }), {
      where: { id: couponId },
      transaction: context.transaction ?? null,
    });
    const row = {
      id: request.id,
      couponId,
      attempt: 1,
      state: 'running' as const,
      laserOn: request.laserOn,
      elapsedS: 0,
      totalS: 0,
      cellsDone: [],
      cellsBefore: [],
      cell: null,
      message: '',
      startedAt: context.now,
      seenAt: context.now,
      endedAt: null,
      byId: context.actor,
    };
    await insert(context, 'burns', row);
    const report = await asked(() =>
      controller.send({ id: jobId(row), program: couponProgram(on, request.laserOn), setup: on.setup }),
    );
    await keepReport(context, row, report);
  });
  return getCoupon(context, couponId);
}

/** Asks the controller how far a run is and keeps it; a controller that does not answer leaves the run as it was last seen. */
export async function lookAtBurn(context: Context, id: string): Promise<Coupon> {
  const burn = await find(context, 'burns', id, { lock: true });
  if (LIVE.includes(burn.state)) await keepReport(context, burn, await reportOrNull(context));
  return getCoupon(context, burn.couponId);
}

/** Pauses, resumes or stops. @throws device-away when the controller does not answer: use the stop at the machine then */
export async function actOnBurn(context: Context, id: string, action: ControllerAction): Promise<Coupon> {
  const burn = await find(context, 'burns', id, { lock: true });
  if (!LIVE.includes(burn.state)) throw new ApiError('wrong-stage', 'This run has ended already.');
  const report = await asked(() => requireController(context).act(action));
  await keepReport(context, burn, report);
  return getCoupon(context, burn.couponId);
}

/** A run that broke off: what is burnt counts and no more is burnt, or the cells still missing are sent. */
export async function settleBurn(context: Context, id: string, as: 'partly' | 'resume'): Promise<Coupon> {
  const burn = await find(context, 'burns', id, { lock: true });
  if (burn.state !== 'dropped' && burn.state !== 'stopped')
    throw new ApiError('wrong-stage', 'This run did not break off.');
  const coupon = await find(context, 'coupons', burn.couponId, { lock: true });
  if (as === 'partly') {
    if (!burn.cellsDone.length)
      throw new ApiError(
        'wrong-stage',
        'No cell was burnt whole: burn the others, or rinse it and begin with a new blank.',
      );
    await change(context, burn, { state: 'partly', endedAt: context.now, cell: null, message: '' });
    await context.models.coupons.update(
      { burntAt: context.now, burntCells: burn.cellsDone, version: coupon.version + 1 },
      { where: { id: coupon.id }, transaction: context.transaction ?? null },
    );
    return getCoupon(context, coupon.id);
  }
  await requireFitted(context, coupon);
  const controller = requireController(context);
  const on = await couponOnEquipment(context, coupon);
  const left = on.layout.cells.map(({ index }) => index).filter((index) => !burn.cellsDone.includes(index));
  const next = { ...burn, attempt: burn.attempt + 1, cellsBefore: burn.cellsDone };
  const report = await asked(() =>
    controller.send({ id: jobId(next), program: couponProgram(on, burn.laserOn, left), setup: on.setup }),
  );
  await change(context, burn, { attempt: next.attempt, cellsBefore: next.cellsBefore });
  await keepReport(context, next, report);
  return getCoupon(context, coupon.id);
}

const STATE_OF: Record<JobState, BurnState> = {
  idle: 'dropped',
  running: 'running',
  paused: 'paused',
  waiting: 'waiting',
  stopped: 'stopped',
  done: 'done',
};

/** Keeps what the controller said; one that says nothing, or speaks of another job, has dropped this one. */
async function keepReport(context: Context, burn: Rows['burns'], report: ControllerReport | null): Promise<void> {
  if (!report || report.id !== jobId(burn)) {
    if (burn.state !== 'dropped') await change(context, burn, { state: 'dropped' });
    return;
  }
  const state = STATE_OF[report.state];
  const cellsDone = [...new Set([...burn.cellsBefore, ...report.cellsDone])].sort((a, b) => a - b);
  await change(context, burn, {
    state,
    elapsedS: report.elapsedS,
    totalS: report.totalS,
    cellsDone,
    cell: report.cell,
    message: report.message,
    seenAt: context.now,
    endedAt: state === 'done' ? context.now : null,
  });
  if (state !== 'done') return;
  const coupon = await find(context, 'coupons', burn.couponId, { lock: true });
  await context.models.coupons.update(
    { burntAt: context.now, version: coupon.version + 1 },
    { where: { id: coupon.id }, transaction: context.transaction ?? null },
  );
}

async function change(context: Context, { id }: Rows['burns'], values: Partial<Rows['burns']>): Promise<void> {
  await context.models.burns.update(values, { where: { id }, transaction: context.transaction ?? null });
}

/** Every attempt is a job of its own to the controller. */
function jobId({ id, attempt }: Pick<Rows['burns'], 'id' | 'attempt'>): string {
  return `${id} ${attempt}`;
}

function requireController({ devices }: Context): Controller {
  if (!devices.controller)
    throw new ApiError(
      'device-away',
      'No controller is tied to this server. Take the G-code or SVG to the head by hand, and say when it is burnt.',
    );
  return devices.controller;
}

async function asked(ask: () => Promise<ControllerReport>): Promise<ControllerReport> {
  try {
    return await ask();
  } catch {
    throw new ApiError(
      'device-away',
      'The controller does not answer. Stop the machine by its own switch if it still runs; then look at plug and cable.',
    );
  }
}

async function reportOrNull({ devices }: Context): Promise<ControllerReport | null> {
  return devices.controller ? devices.controller.report().catch(() => null) : null;
}

/** One head fires one coupon at a time. */
async function refuseBusy(controller: Controller, context: Context): Promise<void> {
  const report = await asked(() => controller.report());
  if (!['running', 'paused', 'waiting'].includes(report.state)) return;
  const [burn] = await list(context, 'burns', { where: { id: report.id.split(' ')[0] ?? '' } });
  const other = burn ? (await find(context, 'coupons', burn.couponId)).design.code : 'something else';
  throw new ApiError('wrong-stage', `The head is busy with ${other}. Let it end, or stop it there.`);
}
