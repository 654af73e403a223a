import { literal, Op } from 'sequelize';
import type { CoatRecord, LotRecord } from '@unto/core';
import type { CompoundBody, ContainerBody } from '@unto/contract';
import { roomOf } from '../coat/weighings.js';
import { find, list, NEWEST_FIRST, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { inventoryItem } from '../inventory/service.js';
import { before, type Subject } from './subject.js';

/** The coat that lay under the beam, or before the camera, as far as anything of it was kept; null where there was none. */
export async function coatRecord(context: Context, subject: Subject): Promise<CoatRecord | null> {
  if (!subject.compoundId) return null;
  const { ticket, revisions, at } = subject;
  const own = { ticketId: ticket.id };
  const compound = await compoundOf(context, subject.compoundId, revisions?.compound ?? null);
  const weighing = await weighingOf(context, subject);
  const container = weighing && (await find(context, 'inventoryRevisions', weighing.containerRevisionId));
  const can = (container?.body ?? null) as ContainerBody | null;
  const shelved = await list(context, 'storedCoats', { where: { [Op.and]: [own, before(subject)] }, limit: 1 });
  return {
    handling: compound.handling,
    film: weighing ? rangedFilm(weighing) : null,
    bandUm: { low: compound.dryFilmMinUm, high: compound.dryFilmMaxUm },
    findings: await findingsOf(context, { [Op.and]: [own, before(subject), ...since(weighing)] }),
    driedS: await driedFor(context, subject, weighing),
    dryS: compound.dryS,
    shaken: (await clocks(context, subject, [{ kind: 'shake' }])).length > 0,
    pastTime: (weighing?.afterPotLife ?? false) || (can?.expiresOn ? can.expiresOn < day(at) : false),
    humidity: weighing ? (roomOf(weighing.entered).roomHumidity ?? null) : null,
    stored: shelved.length > 0,
    lot: can?.lot
      ? await lotRecord(context, { path: 'coat', lot: can.lot, column: 'compound_id', id: subject.compoundId })
      : null,
  };
}

const day = (at: Date) => at.toISOString().slice(0, 10);

async function compoundOf(context: Context, id: string, revision: string | null): Promise<CompoundBody> {
  if (revision) return (await find(context, 'inventoryRevisions', revision)).body as CompoundBody;
  return (await inventoryItem(context, 'compound', id)).body;
}

/** The weighing of the coat: the one that was kept with it, else the newest of its ticket before it was fired. */
export async function weighingOf(context: Context, subject: Subject): Promise<Rows['weighings'] | null> {
  const named = subject.run?.bench?.coat?.weighingId ?? subject.coat?.weighingId;
  if (named) return find(context, 'weighings', named);
  const [newest = null] = await list(context, 'standingWeighings', {
    where: { [Op.and]: [{ ticketId: subject.ticket.id, compoundId: subject.compoundId }, before(subject)] },
    order: NEWEST_FIRST,
    limit: 1,
  });
  return newest;
}

function rangedFilm({ film }: Pick<Rows['weighings'], 'film'>): NonNullable<CoatRecord['film']> {
  const { value, interval } = film;
  return { value, low: interval?.low ?? value, high: interval?.high ?? value };
}

type Finding = NonNullable<CoatRecord['findings']>[number];
const OF_LOOK: Partial<Record<string, Finding>> = {
  'ground shows': 'thin',
  runs: 'runs',
  lumps: 'lumps',
  'thin beside runs': 'thin',
  'lamp shines through': 'thin',
};
const OF_PICTURE: Record<string, Finding> = { 'thin spot': 'thin', touched: 'touched', run: 'runs', lump: 'lumps' };

/** What looks and pictures found of a coat; null where nobody looked. */
async function findingsOf(context: Context, where: object): Promise<CoatRecord['findings']> {
  const looks = await list(context, 'coatReadings', { where: { ...where, kind: 'inspection' } });
  const pictures = await list(context, 'coatPictures', { where });
  if (!looks.length && !pictures.length) return null;
  const seen = [
    ...looks.flatMap(({ findings }) => findings.map((finding) => OF_LOOK[finding])),
    ...pictures.flatMap(({ judgement }) => [
      ...judgement.places.map(({ fault }) => OF_PICTURE[fault]),
      judgement.brush ? ('brush' as const) : undefined,
    ]),
  ];
  return [...new Set(seen.filter((finding) => finding !== undefined))];
}

/** What came after a weighing; anything where there was none. */
const since = (weighing: Pick<Rows['weighings'], 'id'> | null, column = 'sequence'): object[] =>
  weighing ? [literal(`${column} > (SELECT sequence FROM weighings WHERE id = '${weighing.id}')`)] : [];

/** Clocks of a ticket that ran out before it was fired, the last first. */
function clocks(context: Context, subject: Subject, of: readonly object[]): Promise<Rows['timers'][]> {
  const own = { ticketId: subject.ticket.id, outcome: 'passed' };
  return list(context, 'timers', {
    where: { [Op.and]: [own, before(subject, 'ended_sequence'), ...of] },
    order: [[literal('ended_sequence'), 'DESC']],
  });
}

/** How long it dried, by the clock that ran out last between the coat and the beam. */
async function driedFor(
  context: Context,
  subject: Subject,
  weighing: Rows['weighings'] | null,
): Promise<number | null> {
  const [clock] = await clocks(context, subject, [{ kind: 'dry' }, ...since(weighing, 'ended_sequence')]);
  return clock ? (clock.endedAt!.getTime() - clock.startedAt.getTime()) / 1000 : null;
}

/** Newest judged runs that a lot is held against. */
const NEWEST = 400;

/** Pieces judged good of those made, with a lot of can or blank and with all others of the same compound or substrate. */
export async function lotRecord(
  context: Context,
  of: {
    readonly path: 'coat' | 'blank';
    readonly lot: string;
    readonly column: 'compound_id' | 'substrate_id';
    readonly id: string;
  },
): Promise<LotRecord> {
  const [[row]] = (await context.sequelize.query(
    `SELECT coalesce(sum(good) FILTER (WHERE lot = :lot), 0)::int AS good, coalesce(sum(pieces) FILTER (WHERE lot = :lot), 0)::int AS made,
       coalesce(sum(good) FILTER (WHERE lot <> :lot), 0)::int AS "othersGood",
       coalesce(sum(pieces) FILTER (WHERE lot <> :lot), 0)::int AS "othersMade"
     FROM (SELECT bench -> '${of.path}' ->> 'lot' AS lot, pieces, least(pieces_good, pieces) AS good FROM standing_runs
       WHERE ${of.column} = :id AND judged ORDER BY at DESC LIMIT ${NEWEST}) runs
     WHERE lot IS NOT NULL`,
    { replacements: { lot: of.lot, id: of.id }, transaction: context.transaction ?? null },
  )) as unknown as [[Omit<LotRecord, 'lot'>]];
  return { lot: of.lot, ...row };
}
