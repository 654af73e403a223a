import { literal } from 'sequelize';
import type { FaultSubject, Revisions } from '@unto/contract';
import { find, list, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { ApiError } from '../errors/api-error.js';

/** What a fault is looked for on, and what it was made with. */
export interface Subject {
  readonly kind: FaultSubject;
  readonly id: string;
  readonly ticket: Rows['tickets'];
  readonly run: Rows['runs'] | null;
  readonly coupon: Rows['coupons'] | null;
  readonly coat: Rows['coatPictures'] | null;
  readonly compoundId: string | null;
  readonly substrateId: string;
  readonly headId: string;
  readonly lensId: string;
  /** Of what it was fired on; null for a coat that was not fired. */
  readonly revisions: Revisions | null;
  /** When it was fired, or pictured. */
  readonly at: Date;
  /** The same in the order of all that happened: a clock can be set back. */
  readonly sequence: number;
  /** Pieces that were made with it. */
  readonly made: number;
}

/** @throws not-found; wrong-stage for a coupon that was not burnt, or belongs to no ticket */
export async function faultSubject(context: Context, kind: FaultSubject, id: string): Promise<Subject> {
  if (kind === 'run') return ofRun(context, await find(context, 'runs', id));
  if (kind === 'coupon') return ofCoupon(context, await find(context, 'coupons', id));
  const coat = await find(context, 'coatPictures', id);
  const ticket = await find(context, 'tickets', coat.ticketId);
  const sequence = await placeOf(context, 'coat_pictures', id);
  return { ...pairingOfTicket(ticket), kind, id, ticket, coat, at: coat.at, sequence, made: 1 };
}

const NONE = { run: null, coupon: null, coat: null, revisions: null } as const;
const pairingOfTicket = ({ compoundId, substrateId, headId, lensId }: Rows['tickets']) => ({
  ...NONE,
  ...{ compoundId, substrateId, headId, lensId },
});

async function ofRun(context: Context, run: Rows['runs']): Promise<Subject> {
  const ticket = await find(context, 'tickets', run.ticketId);
  const { compoundId, substrateId, headId, revisions, at, id, pieces: made } = run;
  const { itemId: lensId } = await find(context, 'inventoryRevisions', revisions.lens);
  const sequence = await placeOf(context, 'runs', id);
  return {
    ...NONE,
    kind: 'run',
    sequence,
    ...{ id, ticket, run, compoundId, substrateId, headId, lensId, revisions, at, made },
  };
}

async function ofCoupon(context: Context, coupon: Rows['coupons']): Promise<Subject> {
  if (!coupon.burntAt) throw new ApiError('wrong-stage', 'This coupon is not burnt yet.');
  if (!coupon.ticketId)
    throw new ApiError('wrong-stage', 'This coupon belongs to no ticket: nothing is recorded of how it was prepared.');
  const ticket = await find(context, 'tickets', coupon.ticketId);
  const { compoundId, substrateId, headId, lensId, revisions, burntAt: at, id } = coupon;
  const sequence = await placeOf(context, 'coupons', id, 'burnt_sequence');
  return {
    ...NONE,
    kind: 'coupon',
    sequence,
    ...{ id, ticket, coupon, compoundId, substrateId, headId, lensId, revisions, at },
    made: 1,
  };
}

async function placeOf(context: Context, table: string, id: string, column = 'sequence'): Promise<number> {
  const [[row]] = (await context.sequelize.query(`SELECT ${column}::float8 AS place FROM ${table} WHERE id = :id`, {
    replacements: { id },
    transaction: context.transaction ?? null,
  })) as unknown as [[{ place: number }]];
  return row.place;
}

/** Rows that came before a subject was fired or pictured; `column` is their own place in the order. */
export const before = ({ sequence }: Pick<Subject, 'sequence'>, column = 'sequence'): object =>
  literal(`${column} <= ${sequence}`);

/** What somebody ticked at a station of the ticket before it was fired, by code. */
export async function tickedBefore(
  context: Context,
  { ticket, sequence }: Subject,
  station: string,
): Promise<Set<string>> {
  const rows = await list(context, 'checks', { where: { ticketId: ticket.id, station, kind: 'check' } });
  return new Set(rows.filter((row) => row.sequence <= sequence).map(({ code }) => code));
}
