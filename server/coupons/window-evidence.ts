import { literal, Op } from 'sequelize';
import type { Judgement, Pairing, Revisions } from '@unto/contract';
import {
  couponWeight,
  pairingOf,
  runWindowCells,
  sameRevisions,
  type CouponWeight,
  type CouponWindowCell,
} from '@unto/domain';
import { list, NEWEST_FIRST, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { marksAsNow, pinnedIds } from '../inventory/alike.js';
import { sprayedOf, type Sprayed } from './sprayed.js';
import { couponsAsNow, scrubbedCells, scrubbedCoupons } from './window.js';

/** Newest judged runs that a window looks at. */
const NEWEST_RUNS = 200;

/** What a window rests on: coupons as they count now, judged runs on the same revisions, and how much each coupon counts. */
export interface WindowEvidence {
  readonly coupons: readonly Rows['coupons'][];
  readonly runs: readonly JudgedRow[];
  readonly cells: readonly CouponWindowCell[];
  readonly weights: ReadonlyMap<string, CouponWeight>;
  /** What each coupon was sprayed from, and by whom, where that is known. */
  readonly sprayed: ReadonlyMap<string, Sprayed>;
}

export type JudgedRow = Rows['runs'] & { readonly judgement: Judgement };

/**
 * All that bears on the window of a pairing, over all tickets.
 * @param revisions what would be marked on now @param only coupons to be taken; all of the pairing where it is not given
 */
export async function windowEvidence(
  context: Context,
  pairing: Pairing,
  revisions: Revisions,
  only?: readonly string[],
): Promise<WindowEvidence> {
  const { compoundId, substrateId, headId, lensId } = pairing;
  const found = await scrubbedCoupons(context, { compoundId, substrateIds: [substrateId], headIds: [headId], lensId });
  const named = only ? found.filter(({ id }) => only.includes(id)) : found;
  const coupons = await couponsAsNow(context, named, revisions);
  const { cells } = await scrubbedCells(context, coupons, compoundId);
  const sprayed = await sprayedOf(context, coupons);
  const seen = cells.map((cell) => ({ ...cell, seen: sprayed.get(cell.couponId!) ?? {} }));
  const runs = await judgedRuns(context, pairing, revisions);
  const drifted = await driftedAt(context, pairing);
  const weights = new Map(coupons.map(({ id, burntAt }) => [id, couponWeight(burntAt, context.now, drifted)]));
  // What ran before it drifted says nothing of now.
  const since = runs.filter(({ at }) => drifted === null || at >= drifted);
  return { coupons, runs: since, cells: [...seen, ...runWindowCells(since)], weights, sprayed };
}

/** When a recipe of a pairing was suspended last; null where none ever was. */
async function driftedAt(context: Context, pairing: Pairing): Promise<Date | null> {
  const recipes = await list(context, 'recipes', { where: pairingOf(pairing), attributes: ['id'] });
  if (!recipes.length) return null;
  const where = { recipeId: { [Op.in]: recipes.map(({ id }) => id) }, state: 'suspended' };
  const [newest] = await list(context, 'recipeStates', { where, order: NEWEST_FIRST, limit: 1 });
  return newest?.at ?? null;
}

/** Standing judged runs of a pairing on the revisions of now, newest first, each with its newest judgement. */
async function judgedRuns(context: Context, pairing: Pairing, revisions: Revisions): Promise<JudgedRow[]> {
  const { substrateId, compoundId, headId } = pairing;
  const rows = await judgedWhere(context, { substrateId, compoundId, headId }, NEWEST_RUNS);
  const as = await marksAsNow(context, revisions, pinnedIds(rows.map(({ revisions: pinned }) => pinned)));
  return rows.filter((run) => sameRevisions(as.revisions(run.revisions), revisions));
}

/** Standing judged runs, newest first, each with its newest judgement. */
export async function judgedWhere(context: Context, where: object, limit: number): Promise<JudgedRow[]> {
  const judged = literal('(SELECT s.id FROM standing_runs s WHERE s.judged)');
  const rows = await list(context, 'runs', {
    where: { [Op.and]: [where, { id: { [Op.in]: judged } }] },
    order: NEWEST_FIRST,
    limit,
  });
  const judgements = await list(context, 'judgements', {
    where: { runId: { [Op.in]: rows.map(({ id }) => id) } },
    order: [[literal('sequence'), 'ASC']],
  });
  const newest = new Map(judgements.map((row) => [row.runId, row as unknown as Judgement]));
  return rows.map((row) => ({ ...row, judgement: newest.get(row.id)! }));
}
