import { nextStation, protocolOf, type Station } from '@unto/core';
import {
  BURN_BROKEN_OFF,
  type DurabilityTest,
  type Marking,
  type StoredCoat,
  type Ticket,
  type Timer,
  type Today,
  type TodayShort,
  type TodayTask,
} from '@unto/contract';
import { endOfDay, madePieces, readTimerAt } from '@unto/domain';
import { burntOn } from '../burns/burns.js';
import { storedCoatsWhere } from '../coat/stored.js';
import { couponsWaiting } from '../coupons/view.js';
import { list, rowsOf, together, type Context } from '../db/context.js';
import { listInventory, namesOf } from '../inventory/service.js';
import { testsDue } from '../durability/service.js';
import { openMarkings } from '../markings/service.js';
import { leftInContainers } from '../inventory/use.js';
import { openTicketLines } from '../progress/service.js';
import { timersWhere } from '../timers/service.js';
import { shopDay, workshop } from '../workshop/service.js';
import { measurementThatTells } from './measurement.js';

/** What to do next in time order, running timers, and what runs short. */
export async function today(context: Context): Promise<Today> {
  const [timers, stored, lines, counting, coupons, broken, drifted, blanks, short, due, { timeZone }] = await together(
    context,
    () => timersWhere(context, { endedAt: null }),
    () => storedCoatsWhere(context, { endedAt: null }),
    () => openTicketLines(context),
    () => openMarkings(context),
    () => couponTasks(context),
    () => brokenBurnTasks(context),
    () => driftedRecipes(context),
    () => unknownBlanks(context),
    () => runningShort(context),
    () => testsDue(context),
    () => workshop(context),
  );
  const tasks: TodayTask[] = [
    ...timers.filter(({ kind }) => kind !== 'shake').map((timer) => timerTask(timer, context.now)),
    ...stored.map(storedTask),
    ...counting.map((marking) => countingTask(marking, lines)),
    ...broken,
    ...(await dueTasks(context, due, timeZone)),
    ...drifted,
    ...coupons.map(({ ticketId: _, ...task }) => task),
    ...blanks,
    ...lines.flatMap(({ ticket, stations }) => {
      const station = nextStation(stations);
      const word = stations.find((entry) => entry.station === station)?.word ?? '';
      const couponWaits = station === 'prove' && coupons.some(({ ticketId }) => ticketId === ticket.id);
      const counts = station === 'mark' && counting.some(({ ticketId }) => ticketId === ticket.id);
      const timerRuns = timers.some(({ ticketId }) => ticketId === ticket.id);
      return station && !couponWaits && !counts && !(timerRuns && station === 'coat')
        ? [ticketTask(ticket, station, word, timeZone)]
        : [];
    }),
  ];
  return {
    tellsMost: await measurementThatTells(context, lines),
    tasks: tasks.sort(byUrgency),
    timers,
    short: [...(await diskRunsFull(context)), ...short],
    now: context.now.toISOString(),
  };
}

const TIMER_WORDS: Record<Timer['kind'], { verb: string; text: string; station: Station }> = {
  shake: { verb: 'Shake on', text: 'until the ball runs free', station: 'coat' },
  dry: { verb: 'Look for gloss', text: 'all gloss gone, then it may be carried', station: 'coat' },
  pot: { verb: 'Use up or throw away', text: 'nothing mixed is carried over', station: 'coat' },
  cool: { verb: 'Feel whether it is cool', text: 'cool to the hand, then rinse', station: 'clean' },
};

function timerTask(timer: Timer, now: Date): TodayTask {
  const { verb, text, station } = TIMER_WORDS[timer.kind];
  return {
    key: `clock-${timer.id}`,
    at: new Date(Date.parse(timer.startedAt) + timer.minimumS * 1000).toISOString(),
    title: `${verb}, ${timer.label}`,
    text: `${timer.ticketTitle} · ${text}`,
    action: 'Open',
    to: `/tickets/${timer.ticketId}/${station}`,
    urgent: readTimerAt(timer, now.getTime()).due,
  };
}

/** A run that somebody began and nobody ended: whoever comes back goes on there. */
function countingTask(
  { id, ticketId, pieces, counted, startedAt }: Marking,
  lines: readonly { readonly ticket: Ticket }[],
): TodayTask {
  const made = madePieces(counted).length;
  return {
    key: `marking-${id}`,
    at: startedAt,
    title: `Marking: ${lines.find(({ ticket }) => ticket.id === ticketId)?.ticket.title ?? 'a ticket'}`,
    text: `${made} of ${pieces} pieces counted · never leave a running laser`,
    action: 'Go on counting',
    to: `/tickets/${ticketId}/mark`,
    urgent: true,
  };
}

/** Tests that somebody waits for: a dishwasher that ran, a post in the weather. */
async function dueTasks(context: Context, tests: readonly DurabilityTest[], timeZone: string): Promise<TodayTask[]> {
  const ids = [...new Set(tests.map(({ ticketId }) => ticketId))];
  const titles = new Map((await rowsOf(context, 'tickets', ids)).map(({ id, title }) => [id, title]));
  return tests.map(({ id, ticketId, protocol, piece, dose, looks, dueOn }) => {
    const { words, unit } = protocolOf(protocol);
    const at = endOfDay(dueOn!, timeZone);
    return {
      key: `test-${id}`,
      at,
      title: `${words} test: look at piece ${piece}, ${titles.get(ticketId) ?? 'a ticket'}`,
      text: `${looks.at(-1)?.doseDone ?? 0} of ${dose} ${unit} seen`,
      action: 'Look at it',
      to: `/tickets/${ticketId}/judge`,
      urgent: Date.parse(at) < context.now.getTime(),
    };
  });
}

/** Coated pieces on the shelf: to be fired by their date, urgent in its last fifth. */
function storedTask(coat: StoredCoat): TodayTask {
  const past = coat.state === 'past';
  return {
    key: `stored-${coat.id}`,
    at: coat.keepUntil,
    title: `${past ? 'Past its date' : 'Fire by its date'}: ${coat.pieces} coated, ${coat.ticketTitle}`,
    text: `${coat.compoundName} · ${coat.place} · ${past ? 'look again, or rinse off' : 'look at them when you take them up'}`,
    action: 'Open',
    to: `/tickets/${coat.ticketId}/coat`,
    urgent: past || coat.state === 'soon',
  };
}

const VERBS: Record<Station, string> = {
  choose: 'Choose a compound',
  prepare: 'Prepare',
  coat: 'Coat',
  place: 'Place and focus',
  prove: 'Prove',
  mark: 'Mark',
  clean: 'Clean',
  judge: 'Judge',
};

function ticketTask(ticket: Ticket, station: Station, word: string, timeZone: string): TodayTask {
  return {
    key: `ticket-${ticket.id}`,
    at: ticket.wantedOn ? endOfDay(ticket.wantedOn, timeZone) : null,
    title: `${VERBS[station]}: ${ticket.title}`,
    text: `${word} · ${ticket.pieces} piece${ticket.pieces === 1 ? '' : 's'}`,
    action: `Go to ${station.charAt(0).toUpperCase()}${station.slice(1)}`,
    to: `/tickets/${ticket.id}/${station}`,
    urgent: false,
  };
}

async function couponTasks(context: Context): Promise<(TodayTask & { ticketId: string | null })[]> {
  const words = {
    burnt: { verb: 'Rinse', text: 'burnt; then the pad' },
    rinsed: { verb: 'Scrub', text: 'rinsed; not proof until the pad' },
  };
  const coupons = await couponsWaiting(context);
  return coupons.flatMap((coupon) => {
    const { verb, text } = words[coupon.stage as keyof typeof words];
    const waits = coupon.ticketTitle ? ` · ${coupon.ticketTitle} waits for it` : '';
    return [
      {
        key: `coupon-${coupon.id}`,
        ticketId: coupon.ticketId,
        at: null,
        title: `${verb} coupon ${coupon.code}`,
        text: text + waits,
        action: 'Open',
        to: `/coupons/${coupon.id}`,
        urgent: false,
      },
    ];
  });
}

const BROKEN_WORDS = {
  silent: { title: 'The controller is silent', text: 'it may still burn: look at the machine' },
  unknown: { title: 'Look at the machine', text: 'nobody can know how far it was burnt but who looks' },
  stopped: { title: 'Stopped', text: 'burn the others, or take it as it is' },
} as const;

/** Runs on the controller that broke off and are not settled. */
async function brokenBurnTasks(context: Context): Promise<TodayTask[]> {
  const burns = await list(context, 'burns', { where: { state: [...BURN_BROKEN_OFF] } });
  return Promise.all(
    burns.map(async (burn) => {
      const { title, text } = BROKEN_WORDS[burn.state as keyof typeof BROKEN_WORDS];
      const { name, to } = await burntOn(context, burn);
      return {
        key: `burn-${burn.id}`,
        at: null,
        title: `${title}: ${name}`,
        text: `${burn.cellsDone.length} burnt · ${text}`,
        action: 'Open',
        to,
        urgent: true,
      };
    }),
  );
}

/** Recipes that drifted and wait for a check coupon. */
async function driftedRecipes(context: Context): Promise<TodayTask[]> {
  const recipes = await list(context, 'standingRecipes', { where: { state: ['may drift', 'suspended'] } });
  if (!recipes.length) return [];
  const names = await namesOf(
    context,
    recipes.flatMap(({ substrateId, compoundId }) => [substrateId, compoundId]),
  );
  return recipes.map(({ id, number, state, why, compoundId, substrateId }) => ({
    key: `recipe-${id}`,
    at: null,
    title: `Recipe v${number} ${state === 'suspended' ? 'drifted' : 'may drift'}: ${compoundId ? `${names.get(compoundId)} on ` : ''}${names.get(substrateId)}`,
    text:
      state === 'suspended'
        ? `${why} · a check coupon puts it back into use`
        : `${why} · look at it before the next run`,
    action: 'Look at it',
    to: `/recipes/${id}`,
    urgent: state === 'suspended',
  }));
}

/** Blanks on the shelf that nobody knows the substrate of. */
async function unknownBlanks(context: Context): Promise<TodayTask[]> {
  const blanks = await listInventory(context, { kind: 'blank' });
  return blanks
    .filter(({ body }) => body.substrateId === null && body.left > 0)
    .map(({ id, body }) => ({
      key: `blank-${id}`,
      at: null,
      title: `Find out what they are: ${body.name}`,
      text: `${body.left} on the shelf · a few quick tests, nothing is marked before`,
      action: 'What is this part?',
      to: `/identify?blank=${id}`,
      urgent: false,
    }));
}

/** What is due, then clocks, then coupons somebody broke off at, then tickets by the day they are wanted. */
function byUrgency(a: TodayTask, b: TodayTask): number {
  const rank = ({ urgent, key }: TodayTask) =>
    urgent ? 0 : key.startsWith('clock') ? 1 : key.startsWith('coupon') ? 2 : 3;
  return rank(a) - rank(b) || (a.at ?? '9999').localeCompare(b.at ?? '9999') || a.title.localeCompare(b.title);
}

const FEW_PIECES = 25;

/** A disk with less than this share free is told of before it is full. */
const LOW_DISK = 0.05;

async function diskRunsFull({ files }: Context): Promise<TodayShort[]> {
  const free = await files.freeShare();
  if (free === null || free >= LOW_DISK) return [];
  return [{ key: 'disk', what: 'Disk of the server', left: `${Math.floor(100 * free)} % free`, to: '/shop' }];
}

/** Containers past their date, or with less left than a couple of trays of the pieces they were last used on. */
async function runningShort(context: Context): Promise<TodayShort[]> {
  const containers = await listInventory(context, { kind: 'container' });
  const [left, day] = await together(
    context,
    () => leftInContainers(context, containers),
    () => shopDay(context),
  );
  return containers.flatMap(({ id, body }): TodayShort[] => {
    const to = `/stores/${id}`;
    if (body.expiresOn && body.expiresOn < day)
      return [{ key: id, what: body.name, left: `use-by passed, ${body.expiresOn}`, to }];
    const pieces = left.get(id)?.pieces?.value ?? null;
    return pieces !== null && pieces <= FEW_PIECES
      ? [{ key: id, what: body.name, left: `${pieces} pieces left`, to }]
      : [];
  });
}
