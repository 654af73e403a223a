import { nextStation, remainingPieces, type Station } from '@unto/core';
import type { Clock, ContainerBody, StoreItem, StoredCoat, Ticket, Today, TodayShort, TodayTask } from '@unto/contract';
import { readClockAt } from '@unto/domain';
import { list, type Context } from '../db/context.js';
import { listCoupons } from '../coupons/view.js';
import { listStores } from '../stores/service.js';
import { clocksWhere } from '../clocks/service.js';
import { storedCoatsWhere } from '../coat/stored.js';
import { openTicketLines } from '../tickets/facts.js';

/** What to do next in time order, running clocks, and what runs short. */
export async function today(context: Context): Promise<Today> {
  const clocks = await clocksWhere(context, { endedAt: null });
  const lines = await openTicketLines(context);
  const coupons = await couponTasks(context);
  const tasks: TodayTask[] = [
    ...clocks.filter(({ kind }) => kind !== 'shake').map((clock) => clockTask(clock, context.now)),
    ...(await storedCoatsWhere(context, { endedAt: null })).map(storedTask),
    ...coupons,
    ...(await unknownBlanks(context)),
    ...lines.flatMap(({ ticket, stations }) => {
      const station = nextStation(stations);
      const word = stations.find((entry) => entry.station === station)?.word ?? '';
      const couponWaits = station === 'prove' && coupons.some(({ ticketId }) => ticketId === ticket.id);
      const clockRuns = clocks.some(({ ticketId }) => ticketId === ticket.id);
      return station && !couponWaits && !(clockRuns && station === 'coat') ? [ticketTask(ticket, station, word)] : [];
    }),
  ];
  return { tasks: tasks.sort(byUrgency), clocks, short: await runningShort(context), now: context.now.toISOString() };
}

const CLOCK_WORDS: Record<Clock['kind'], { verb: string; text: string; station: Station }> = {
  shake: { verb: 'Shake on', text: 'until the ball runs free', station: 'coat' },
  dry: { verb: 'Look for gloss', text: 'all gloss gone, then it may be carried', station: 'coat' },
  pot: { verb: 'Use up or throw away', text: 'nothing mixed is carried over', station: 'coat' },
  cool: { verb: 'Feel whether it is cool', text: 'cool to the hand, then rinse', station: 'clean' },
};

function clockTask(clock: Clock, now: Date): TodayTask {
  const { verb, text, station } = CLOCK_WORDS[clock.kind];
  return {
    key: `clock-${clock.id}`,
    at: new Date(Date.parse(clock.startedAt) + clock.minimumS * 1000).toISOString(),
    title: `${verb}, ${clock.label}`,
    text: `${clock.ticketTitle} · ${text}`,
    action: 'Open',
    to: `/tickets/${clock.ticketId}/${station}`,
    urgent: readClockAt(clock, now.getTime()).due,
  };
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

function ticketTask(ticket: Ticket, station: Station, word: string): TodayTask {
  return {
    key: `ticket-${ticket.id}`,
    at: ticket.wantedOn ? `${ticket.wantedOn}T23:59:59.000Z` : null,
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
  const coupons = await listCoupons(context, {});
  return coupons.flatMap((coupon) => {
    if (coupon.stage !== 'burnt' && coupon.stage !== 'rinsed') return [];
    const { verb, text } = words[coupon.stage];
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

/** Blanks on the shelf that nobody knows the substrate of. */
async function unknownBlanks(context: Context): Promise<TodayTask[]> {
  const blanks = (await listStores(context, { kind: 'blank' })) as StoreItem<'blank'>[];
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

/** Containers past their date, or with less left than a couple of trays of the pieces they were last used on. */
async function runningShort(context: Context): Promise<TodayShort[]> {
  const containers = (await listStores(context, { kind: 'container' })) as StoreItem<'container'>[];
  const weighings = await list(context, 'weighings', { order: [['at', 'DESC']] });
  const day = context.now.toISOString().slice(0, 10);
  return containers.flatMap(({ id, body }): TodayShort[] => {
    const to = `/stores/${id}`;
    if (body.expiresOn && body.expiresOn < day)
      return [{ key: id, what: body.name, left: `use-by passed, ${body.expiresOn}`, to }];
    const left = piecesLeft(
      body,
      weighings.filter(({ containerId }) => containerId === id),
    );
    return left !== null && left <= FEW_PIECES ? [{ key: id, what: body.name, left: `${left} pieces left`, to }] : [];
  });
}

function piecesLeft(
  container: ContainerBody,
  weighings: readonly { beforeG: number; afterG: number; pieces: number }[],
): number | null {
  const newest = weighings[0];
  if (!newest) return null;
  const perPiece =
    weighings.reduce((sum, { beforeG, afterG }) => sum + beforeG - afterG, 0) /
    weighings.reduce((sum, { pieces }) => sum + pieces, 0);
  return perPiece > 0 ? remainingPieces({ nowG: newest.afterG, tareG: container.tareG }, perPiece) : null;
}
