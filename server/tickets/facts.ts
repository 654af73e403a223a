import { Op } from 'sequelize';
import { placeChecks, prepareChecks, stationLine, type StationState, type TicketFacts } from '@unto/core';
import type {
  Clock,
  CouponSummary,
  Fitting,
  HeadBody,
  LedgerRecord,
  Recipe,
  StoredCoat,
  SubstrateBody,
  Ticket,
  TicketPage,
} from '@unto/contract';
import { holdsUnder, isOther, readClockAt } from '@unto/domain';
import { clocksWhere } from '../clocks/service.js';
import { coatPicturesOf } from '../coat/pictures.js';
import { coatReadingsOf } from '../coat/readings.js';
import { storedCoatsWhere } from '../coat/stored.js';
import { strokeSamples, transferSamples, weighingsOf } from '../coat/weighings.js';
import { list, type Context } from '../db/context.js';
import { climbOf } from '../coupons/climb.js';
import { listCoupons } from '../coupons/view.js';
import { newestFitting, newestFittings } from '../place/fittings.js';
import { huntedDepth, newestPointer, placeReadingsOf } from '../place/service.js';
import { newestSheet } from '../prepare/sheets.js';
import { yieldBefore } from '../prepare/yield.js';
import { recipesOf } from '../recipes/service.js';
import { ledgerRecords } from '../runs/ledger.js';
import { listStores } from '../stores/service.js';
import { containersLeft } from '../stores/use.js';
import { checksOf, getTicket, listTickets } from './service.js';

export async function ticketPage(context: Context, id: string): Promise<TicketPage> {
  const ticket = await getTicket(context, id);
  const [checks, clocks, weighings, coupons, recipes] = [
    await checksOf(context, id),
    await clocksWhere(context, { ticketId: id }),
    await weighingsOf(context, id),
    await listCoupons(context, { ticketId: id }),
    await recipesOf(context, [id]),
  ];
  const runs = await ledgerRecords(
    context,
    await list(context, 'runs', {
      where: { ticketId: id },
      order: [
        ['at', 'DESC'],
        ['id', 'DESC'],
      ],
    }),
  );
  const stores = await listStores(context, { retired: 1 });
  const storedCoats = await storedCoatsWhere(context, { ticketId: id });
  const coatPictures = await coatPicturesOf(context, id);
  const rinsed = new Set(coatPictures.filter(({ decision }) => decision === 'rinsed off').map((one) => one.weighingId));
  const fitting = await newestFitting(context, ticket.headId);
  const records = { ticket, checks, clocks, weighings, storedCoats, coupons, recipes, runs, fitting, rinsed };
  const { compoundId } = ticket;
  return {
    ...records,
    coatReadings: await coatReadingsOf(context, id),
    coatPictures,
    stations: stationLine(factsOf(records, stores, context.now)),
    placeReadings: await placeReadingsOf(context, id),
    fitting,
    pointer: await newestPointer(context, ticket.headId),
    climb: await climbOf(context, id),
    sheet: await newestSheet(context, id),
    huntedDepth: await huntedDepth(context, ticket.lensId),
    yieldBefore: await yieldBefore(context, ticket),
    transferSamples: compoundId ? await transferSamples(context, compoundId) : [],
    strokeSamples: compoundId ? await strokeSamples(context, compoundId) : [],
    containersLeft: compoundId ? await containersLeft(context, compoundId) : [],
  };
}

/** Open tickets with the state of their stations. */
export async function openTicketLines(context: Context): Promise<{ ticket: Ticket; stations: StationState[] }[]> {
  const tickets = await listTickets(context, { state: 'open' });
  const ids = tickets.map(({ id }) => id);
  const among = { ticketId: { [Op.in]: ids } };
  const stores = await listStores(context, { retired: 1 });
  const checks = await list(context, 'checks', { where: among });
  const clocks = await clocksWhere(context, among);
  const weighings = await list(context, 'weighings', { where: among });
  const storedCoats = await storedCoatsWhere(context, { ...among, endedAt: null });
  const coupons = await listCoupons(context, {});
  const recipes = await recipesOf(context, ids);
  const runs = await ledgerRecords(context, await list(context, 'runs', { where: among }));
  const fittings = await newestFittings(context);
  const pictures = await list(context, 'coatPictures', { where: { ...among, decision: 'rinsed off' } });
  const rinsed = new Set(pictures.map(({ weighingId }) => weighingId));
  const machineOf = (headId: string) => (stores.find(({ id }) => id === headId)!.body as HeadBody).machineId;
  return tickets.map((ticket) => {
    const own = <T extends { ticketId: string | null }>(rows: readonly T[]) =>
      rows.filter((row) => row.ticketId === ticket.id);
    const corrected = new Set(weighings.map(({ correctsId }) => correctsId));
    const records = {
      ticket,
      checks: own(checks),
      clocks: own(clocks),
      weighings: own(weighings).filter(({ id }) => !corrected.has(id)),
      storedCoats: own(storedCoats),
      rinsed,
      fitting: fittings.get(machineOf(ticket.headId)) ?? null,
      coupons: own(coupons),
      recipes: own(recipes),
      runs: own(runs),
    };
    return { ticket, stations: stationLine(factsOf(records, stores, context.now)) };
  });
}

interface Records {
  readonly ticket: Ticket;
  readonly checks: readonly { station: string; kind: string; code: string; at: string | Date }[];
  readonly clocks: readonly Clock[];
  readonly weighings: readonly { id: string; pieces: number }[];
  readonly storedCoats: readonly StoredCoat[];
  readonly fitting: Fitting | null;
  /** Weighings whose coat was rinsed off after its picture. */
  readonly rinsed: ReadonlySet<string | null>;
  readonly coupons: readonly CouponSummary[];
  readonly recipes: readonly Recipe[];
  readonly runs: readonly LedgerRecord[];
}

const STAGE_ORDER = ['designed', 'burnt', 'rinsed', 'scrubbed'] as const;

function factsOf(records: Records, stores: Awaited<ReturnType<typeof listStores>>, now: Date): TicketFacts {
  const { ticket, clocks, coupons, recipes } = records;
  const body = (id: string | null) => stores.find((item) => item.id === id)?.body;
  const substrate = body(ticket.substrateId) as SubstrateBody;
  const coated = ticket.compoundId !== null;
  const ticked = (station: string, codes: readonly string[]) =>
    codes.filter((code) =>
      records.checks.some(
        (check) =>
          check.kind === 'check' &&
          check.station === station &&
          check.code === code &&
          holdsUnder(check, records.fitting),
      ),
    ).length;
  const prepare = prepareChecks({ family: substrate.family, layer: substrate.layer, coated }).map(({ code }) => code);
  const place = placeChecks({ coated }).map(({ code }) => code);
  const drying = clocks.filter((clock) => clock.kind === 'dry' && !clock.endedAt);
  const dropped = clocks.some((clock) => clock.kind === 'dry' && clock.outcome === 'dropped');
  const left = drying.map((clock) => readClockAt(clock, now.getTime()).leftS);
  const shelf = records.storedCoats.filter(({ endedAt }) => endedAt === null);
  const runs = records.runs.filter((run) => run.correctedById === null);
  const waiting = coupons.filter(({ stage }) => stage !== 'scrubbed');
  const furthest = waiting[0]?.stage ?? (coupons.length ? 'scrubbed' : 'none');
  return {
    pieces: ticket.pieces,
    compoundName: body(ticket.compoundId)?.name ?? null,
    choiceMade: coated || ticket.choiceReason !== '',
    prepareDone: ticked('prepare', prepare),
    prepareNeeded: prepare.length,
    placeDone: ticked('place', place),
    placeNeeded: place.length,
    otherHead: isOther(records.fitting, ticket) ? (body(records.fitting!.headId)?.name ?? '') : null,
    coatedPieces:
      dropped && drying.length === 0 && clocks.at(-1)?.outcome === 'dropped'
        ? 0
        : records.weighings.filter(({ id }) => !records.rinsed.has(id)).reduce((sum, { pieces }) => sum + pieces, 0),
    stored: shelf.length
      ? {
          pieces: shelf.reduce((sum, { pieces }) => sum + pieces, 0),
          past: shelf.some(({ state }) => state === 'past'),
        }
      : null,
    dryingLeftS: left.length ? Math.max(...left) : null,
    coupon: STAGE_ORDER.find((stage) => stage === furthest) ?? 'none',
    recipe: recipes[0] ? `recipe v${recipes[0].number}` : null,
    markedPieces: runs.reduce((sum, run) => sum + run.pieces, 0),
    runs: runs.length,
    runsCleaned: runs.filter((run) => run.cleaning).length,
    runsJudged: runs.filter((run) => run.judgement).length,
    faults: runs.filter((run) => (run.judgement?.faults.length ?? 0) > 0).length,
  };
}
