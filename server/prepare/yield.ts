import type { Ticket, TicketPage } from '@unto/contract';
import type { Context } from '../db/context.js';

/** So few pieces of a pairing say less than the whole shop does. */
const TOO_FEW = 10;
/** Runs that count, the newest. */
const NEWEST = 500;

/** Pieces judged and good ones, by the newest judgement of each run that stands: of this pairing, else of the whole shop. */
export async function yieldBefore(
  context: Context,
  ticket: Pick<Ticket, 'substrateId' | 'compoundId'>,
): Promise<TicketPage['yieldBefore']> {
  const pairing = await counted(
    context,
    'r.substrate_id = :substrateId AND r.compound_id IS NOT DISTINCT FROM :compoundId::uuid',
    ticket,
  );
  if (pairing.made >= TOO_FEW) return { ...pairing, of: 'this pairing' };
  return { ...(await counted(context, 'TRUE', ticket)), of: 'this shop' };
}

async function counted(
  context: Context,
  which: string,
  { substrateId, compoundId }: Pick<Ticket, 'substrateId' | 'compoundId'>,
): Promise<{ good: number; made: number }> {
  const [[row]] = (await context.sequelize.query(
    `SELECT coalesce(sum(least(j.pieces_good, r.pieces)), 0)::int AS good, coalesce(sum(r.pieces), 0)::int AS made
     FROM (SELECT * FROM runs r WHERE ${which} AND NOT EXISTS (SELECT 1 FROM runs later WHERE later.corrects_id = r.id)
           ORDER BY at DESC LIMIT ${NEWEST}) r
     JOIN LATERAL (SELECT pieces_good FROM judgements WHERE run_id = r.id ORDER BY sequence DESC LIMIT 1) j ON true`,
    { replacements: { substrateId, compoundId }, transaction: context.transaction ?? null },
  )) as unknown as [[{ good: number; made: number }]];
  return row;
}
