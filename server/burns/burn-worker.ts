import { literal, Op } from 'sequelize';
import { BURN_LIVE, type Controller, type ControllerAction, type ControllerState } from '@unto/contract';
import { atomically, find, isId, list, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { DeviceRefusal } from '../devices/ask.js';
import { withScene } from '../devices/simulated.js';
import type { DeviceWork } from '../devices/work.js';
import { afterAnswer, programName, unsent } from './burn-state.js';
import { burntOn } from './burns.js';
import { subjectOf, type BurnSubject, type BurnSubjects } from './subject.js';

type Burn = Rows['burns'];

/** A holder that says nothing for so long has lost it, by the database's clock. Longer than anything a device is waited for. */
const LEASED = literal(`now() + interval '10 seconds'`) as unknown as Date;
/** Going on is not passed on later than this: whoever asked may have turned away. Pausing and stopping always are. */
const GO_ON_WITHIN_MS = 5000;
/** From saying "it is being sent" to sending it, ms: a server that was held up in between sends nothing. */
const HELD_UP_MS = 3000;

/** What a worker of burns has: the devices, and what may be burnt. */
export interface BurnWork extends DeviceWork {
  readonly subjects: BurnSubjects;
}

/** Sends a program once, follows it to its end and records what the controller says. Leaves what another server holds. */
export async function driveBurn(work: BurnWork, burnId: string): Promise<void> {
  const taken = await lease(work, burnId);
  if (!taken) return;
  const context = work.context(taken.byId);
  const controller = controllerFor(work, context, taken);
  if (taken.state === 'queued') await sendOnce(work, controller, taken);
  const { jobs } = context;
  while (!jobs?.stopping && (await lookOnce(work, controller, burnId))) await jobs?.rest('burn', work.lookEveryMs);
  await release(work, burnId);
}

/** Takes up again what nobody holds any more: its server was killed, or its job was lost. */
export async function adoptBurns(work: BurnWork): Promise<void> {
  const context = work.context('');
  const abandoned = { [Op.or]: [{ holder: null }, { leaseUntil: { [Op.lt]: literal('now()') } }] };
  // A run that is not begun yet has a job of its own until it may not be sent any more.
  const unbegun = { state: 'queued', sendBefore: { [Op.gt]: literal('now()') } };
  const rows = await list(context, 'burns', {
    where: { state: [...BURN_LIVE], [Op.and]: [abandoned, { [Op.not]: unbegun }] },
  });
  for (const { id } of rows) await context.jobs?.add('burn', { burnId: id }, undefined, id);
}

async function lease({ holder, context }: BurnWork, id: string): Promise<Burn | null> {
  const free = [{ holder: null }, { holder }, { leaseUntil: { [Op.lt]: literal('now()') } }];
  const [, rows] = await context('').models.burns.update(
    { holder, leaseUntil: LEASED },
    { where: { id, state: [...BURN_LIVE], [Op.or]: free }, returning: true },
  );
  return (rows[0]?.get() as Burn | undefined) ?? null;
}

async function release({ holder, context }: BurnWork, id: string): Promise<void> {
  await context('').models.burns.update({ holder: null, leaseUntil: null }, { where: { id, holder } });
}

/** Writes of a holder count as long as it is one. @returns whether it still was */
async function keep({ holder }: BurnWork, context: Context, id: string, values: Partial<Burn>, only = {}) {
  const where = { id, holder, ...only };
  const [kept] = await context.models.burns.update(values, { where, transaction: context.transaction ?? null });
  return kept > 0;
}

const subjectFor = (work: BurnWork, burn: Burn): BurnSubject => subjectOf(work.subjects, burn);

function controllerFor(work: BurnWork, context: Context, burn: Burn): Controller | null {
  return withScene(work.devices, work.tell, async () => ({
    at: 'head' as const,
    ...(await subjectFor(work, burn).scene(context, burn)),
  })).controller;
}

/** Asks whether the head is free, notes that it is being sent, and only then sends it: what is noted is never sent again. */
async function sendOnce(work: BurnWork, controller: Controller | null, burn: Burn): Promise<void> {
  const context = work.context(burn.byId);
  const why = await whyNotFree(context, controller);
  if (why) return giveBack(work, burn, why);
  const program = await programOf(context, subjectFor(work, burn), burn);
  const from = performance.now();
  const due = { state: 'queued', sendBefore: { [Op.gt]: literal('now()') }, leaseUntil: { [Op.gt]: literal('now()') } };
  const noted = await keep(work, context, burn.id, { state: 'sending', sentAt: context.now }, due);
  if (!noted || performance.now() - from > HELD_UP_MS)
    return giveBack(
      work,
      burn,
      'It could not be sent at once, so it was not sent at all. Press again when you are there.',
    );
  try {
    await record(work, burn.id, await controller!.send(program));
  } catch (error) {
    // Anything else than a plain no may have fired: the controller is asked what it has.
    if (error instanceof DeviceRefusal) await giveBack(work, burn, `The controller refused it: ${error.message}`);
  }
}

async function whyNotFree(context: Context, controller: Controller | null): Promise<string> {
  if (!controller) return 'No controller is tied to this server.';
  const now = await answerOf(() => controller.state());
  if (!now) return 'The controller does not answer. Nothing was sent: look at plug and cable.';
  if (!['running', 'paused', 'waiting'].includes(now.state)) return '';
  const id = now.program.split(' ')[0]!;
  const [burn] = isId(id) ? await list(context, 'burns', { where: { id } }) : [];
  const other = burn ? (await burntOn(context, burn)).name : 'something else';
  return `The head is busy with ${other}. Nothing was sent: let it end, or stop it there.`;
}

async function programOf(context: Context, subject: BurnSubject, burn: Burn) {
  const done = [...burn.cellsDone, ...burn.cellsCut];
  const left = burn.attempt === 1 ? null : (await subject.order(context, burn)).filter((part) => !done.includes(part));
  return { name: programName(burn), gcode: await subject.gcode(context, burn, left) };
}

/** Nothing of this attempt left the server: what was not fired before is as it was. */
async function giveBack(work: BurnWork, burn: Burn, why: string): Promise<void> {
  await atomically(work.context(burn.byId), async (context) => {
    const given = await keep(work, context, burn.id, unsent(burn, why, context.now), { state: ['queued', 'sending'] });
    if (given && burn.attempt === 1) await subjectFor(work, burn).unfired(context, burn);
  });
}

/** Asks the controller how it stands, and passes on what somebody asks of it. @returns whether there is more to see */
async function lookOnce(work: BurnWork, controller: Controller | null, id: string): Promise<boolean> {
  const burn = await lease(work, id);
  if (!burn || burn.state === 'queued') return false;
  if (burn.asked && controller) await passOn(work, controller, burn);
  const answer = controller && (await answerOf(() => controller.state()));
  return record(work, id, answer);
}

async function passOn(work: BurnWork, controller: Controller, burn: Burn): Promise<void> {
  const context = work.context(burn.byId);
  const asked = burn.asked!;
  const late = asked === 'resume' && context.now.getTime() - burn.askedAt!.getTime() > GO_ON_WITHIN_MS;
  // Taken off before it is passed on: going on twice would skip a stop of the program.
  if (!(await keep(work, context, burn.id, { asked: null }, { asked }))) return;
  try {
    if (!late) await controller[asked]();
    else await keep(work, context, burn.id, { fault: 'It was not told to go on in time: press again.' });
  } catch (error) {
    const fault = error instanceof DeviceRefusal ? `The controller refused: ${error.message}` : UNANSWERED[asked];
    await keep(work, context, burn.id, { fault });
  }
}

const UNANSWERED: Record<ControllerAction, string> = {
  stop: 'The controller did not answer to the stop. Stop the machine by its own switch.',
  pause: 'The controller did not answer to the pause. Stop the machine by its own switch if it still runs.',
  resume: 'The controller did not answer. Look whether the machine goes on before you press again.',
};

const answerOf = (ask: () => Promise<ControllerState>) => ask().catch(() => null);

/** Keeps what the controller said. @returns whether there is more to come */
async function record(work: BurnWork, id: string, answer: ControllerState | null): Promise<boolean> {
  return atomically(work.context(''), async (context) => {
    const burn = await find(context, 'burns', id, { lock: true });
    if (burn.holder !== work.holder || !BURN_LIVE.includes(burn.state)) return false;
    const values = afterAnswer(burn, answer, context.now);
    await keep(work, context, id, values);
    const after = { ...burn, ...values };
    await subjectFor(work, burn).progressed(context, after, burn);
    if (after.state === 'done') await subjectFor(work, burn).taken(context, after);
    return BURN_LIVE.includes(values.state ?? burn.state);
  });
}
