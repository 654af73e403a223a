import { literal, Op } from 'sequelize';
import { NO_EVIDENCE, type MarkEvidence, type ProtocolCode, type RecordRef } from '@unto/core';
import { EVENNESS_STEPS, type Aim, type Revisions, type Ticket } from '@unto/contract';
import { lastingShare, sameRevisions, type Stood } from '@unto/domain';
import { type Context, list, OLDEST_FIRST } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { lastingRows } from '../durability/service.js';
import { marksAsNow, pinnedIds } from '../inventory/alike.js';

/** Runs that count of a pairing: the newest ones. */
const NEWEST = 60;

/** Where runs of a compound may have been made to say something about a ticket. */
export interface EvidencePlace {
  readonly ticket: Ticket;
  /** Present revisions of this very pairing. */
  readonly revisions: Revisions;
  readonly compoundId: string | null;
  /** Substrates of the same kind, and heads of the same wavelength class, this one's included. */
  readonly substrates: readonly string[];
  readonly heads: readonly string[];
}

/** Judged and cleaned runs with one compound: on this very pairing in its present revisions, and nearby. */
export async function markEvidence(
  context: Context,
  place: EvidencePlace,
): Promise<{ own: MarkEvidence; near: MarkEvidence }> {
  const { ticket, revisions } = place;
  const uncorrected = literal('NOT EXISTS (SELECT 1 FROM runs later WHERE later.corrects_id = runs.id)');
  const runs = await list(context, 'runs', {
    where: {
      [Op.and]: [
        {
          compoundId: place.compoundId,
          substrateId: { [Op.in]: [...place.substrates] },
          headId: { [Op.in]: [...place.heads] },
        },
        uncorrected,
      ],
    },
    // Own runs first, so that many nearby never push them out.
    order: [literal(`(substrate_id = '${ticket.substrateId}' AND head_id = '${ticket.headId}') DESC`), ['at', 'DESC']],
    limit: 2 * NEWEST,
  });
  const ids = { where: { runId: { [Op.in]: runs.map(({ id }) => id) } }, order: OLDEST_FIRST };
  const judgements = new Map((await list(context, 'judgements', ids)).map((row) => [row.runId, row]));
  const cleanings = new Map((await list(context, 'cleanings', ids)).map((row) => [row.runId, row]));
  const tickets = await list(context, 'tickets', {
    where: { id: { [Op.in]: [...new Set(runs.map(({ ticketId }) => ticketId))] } },
    attributes: ['id', 'aim'],
  });
  const aims = new Map(tickets.map(({ id, aim }) => [id, aim as Aim]));
  const looks = await lastingRows(context, { runIds: runs.map(({ id }) => id) });
  const as = await marksAsNow(context, revisions, pinnedIds(runs.map((run) => run.revisions)));
  const readings = runs.map((run) => ({
    own: sameRevisions(as.revisions(run.revisions), revisions),
    reading: runReading(run, aims.get(run.ticketId)!, judgements.get(run.id), cleanings.get(run.id), {
      stood: looks.filter(({ runId }) => runId === run.id),
      foodUse: ticket.foodUse,
    }),
  }));
  const gather = (own: boolean) =>
    readings
      .filter((entry) => entry.own === own)
      .slice(0, NEWEST)
      .reduce((sum, { reading }) => added(sum, reading), NO_EVIDENCE);
  return { own: gather(true), near: gather(false) };
}

/** What one run says; contrast signed by the aim it was judged for. */
function runReading(
  run: Rows['runs'],
  aim: Aim,
  judgement: Rows['judgements'] | undefined,
  cleaning: Rows['cleanings'] | undefined,
  { stood, foodUse }: { readonly stood: readonly Stood[]; readonly foodUse: boolean },
): MarkEvidence {
  const sign = aim.tone === 'dark on light' ? 1 : -1;
  const tests = judgement?.tests ?? [];
  const lasting = lastingShare([...tests.map(testStood), ...stood], { foodUse });
  const ref: RecordRef = { kind: 'run', id: run.id };
  return {
    contrast: judgement ? [sign * judgement.contrastStep] : [],
    evenness: judgement ? [EVENNESS_STEPS.indexOf(judgement.evenness as (typeof EVENNESS_STEPS)[number]) + 1] : [],
    cleaning: cleaning ? [cleaning.minutes / run.pieces] : [],
    durability: lasting === null ? [] : [lasting],
    good: judgement ? Math.min(judgement.piecesGood, run.pieces) : 0,
    made: judgement ? run.pieces : 0,
    scrubbed: tests.some(({ test, result }) => test === 'abrasive pad' && result !== 'lost'),
    refs: judgement || cleaning ? [ref] : [],
  };
}

/** The protocol that a test of a judgement stands for. */
const PROTOCOL_OF: Record<string, ProtocolCode> = {
  thumb: 'thumb',
  'wet sponge': 'wet sponge',
  'abrasive pad': 'pad, wet',
  'denatured alcohol': 'alcohol',
  'strong ammonia': 'ammonia',
  '600 grit wet paper': '600 grit',
  'dishwasher cycle': 'dishwasher',
};

function testStood({ test, result }: Rows['judgements']['tests'][number]): Stood {
  const unread = { beforeContrast: null, afterContrast: null, readBy: null };
  return { protocol: PROTOCOL_OF[test]!, result: result as Stood['result'], ...unread };
}

function added(sum: MarkEvidence, one: MarkEvidence): MarkEvidence {
  return {
    contrast: [...sum.contrast, ...one.contrast],
    evenness: [...sum.evenness, ...one.evenness],
    cleaning: [...sum.cleaning, ...one.cleaning],
    durability: [...sum.durability, ...one.durability],
    good: sum.good + one.good,
    made: sum.made + one.made,
    scrubbed: sum.scrubbed || one.scrubbed,
    refs: [...sum.refs, ...one.refs],
  };
}

/** Compound laid down over the year before, g and cm² coated, by compound; corrected weighings left out. */
export async function yearlyUse(context: Context): Promise<Record<string, { grams: number; areaCm2: number }>> {
  const [rows] = await context.sequelize.query(
    `SELECT w.compound_id AS id, sum(w.before_g - w.after_g)::float AS grams,
       sum(w.pieces * (t.mark_width_mm + 2 * t.coat_margin_mm) * (t.mark_height_mm + 2 * t.coat_margin_mm) / 100)::float AS area
     FROM weighings w JOIN tickets t ON t.id = w.ticket_id
     WHERE w.at > :since AND NOT EXISTS (SELECT 1 FROM weighings later WHERE later.corrects_id = w.id)
     GROUP BY w.compound_id`,
    {
      replacements: { since: new Date(context.now.getTime() - 365 * 86_400_000) },
      transaction: context.transaction ?? null,
    },
  );
  return Object.fromEntries(
    (rows as { id: string; grams: number; area: number }[]).map(({ id, grams, area }) => [
      id,
      { grams, areaCm2: area },
    ]),
  );
}
