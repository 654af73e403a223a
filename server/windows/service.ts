import { Op } from 'sequelize';
import type { CellMeasures } from '@unto/core';
import type { ListWindowsQuery, Pairing, PairingWindow, WindowQuery, WindowSummary } from '@unto/contract';
import { pairingOf, runOutcome, samePairing } from '@unto/domain';
import { list, OLDEST_FIRST, together, type Context } from '../db/context.js';
import { pageOf } from '../db/page.js';
import { onOtherRevisions, scrubbedCells, scrubbedCoupons } from '../coupons/window.js';
import { loadEquipment } from '../inventory/service.js';
import { recipesOfPairing } from '../recipes/views.js';
import { ticketTitles } from '../tickets/titles.js';
import { shopTeachings } from '../coupons/teachings.js';
import { windowEvidence } from '../coupons/window-evidence.js';

/** A page of pairings with scrubbed cells, the one with the newest coupon first. */
export async function listWindows(
  context: Context,
  asked: ListWindowsQuery,
): Promise<{ records: WindowSummary[]; next: string | null }> {
  const { rows, next } = await pageOf(context, 'windowPairings', { key: 'number' }, asked);
  const recipes = rows.length
    ? await list(context, 'standingRecipes', {
        where: { [Op.or]: rows.map(pairingOf), kind: { [Op.ne]: 'step test' } },
        order: [['number', 'DESC']],
      })
    : [];
  const records = await Promise.all(
    rows.map(async ({ id: _id, number: _number, newestAt, shared, ...row }) => {
      const recipe = recipes.find((one) => samePairing(one, row));
      return {
        ...row,
        ...(shared ? await ownCells(context, row) : {}),
        newestAt: newestAt.toISOString(),
        recipe: recipe ? { id: recipe.id, number: recipe.number, suspended: recipe.suspended } : null,
      };
    }),
  );
  return { records, next };
}

/** What the newest picture after the scrub tells of every cell, by coupon. */
export async function measuresOf(
  context: Context,
  couponIds: readonly string[],
): Promise<ReadonlyMap<string, ReadonlyMap<number, CellMeasures>>> {
  const pictures = await list(context, 'couponPictures', {
    where: { couponId: [...couponIds], stage: 'scrubbed' },
    order: OLDEST_FIRST,
  });
  return new Map(
    pictures.map(({ couponId, entries }) => [
      couponId,
      new Map(
        entries.cells
          .filter(({ unreadable }) => unreadable === null)
          .map(({ cell, contrast, chroma, grain, edgeUm }) => [cell, { contrast, chroma, grain, edgeUm }]),
      ),
    ]),
  );
}

/** Cells that speak of a pairing’s own compound, where its coupons bear others too. */
async function ownCells(context: Context, pairing: Pairing): Promise<{ cells: number; holds: number }> {
  const { substrateId, headId, compoundId, lensId } = pairing;
  const coupons = await scrubbedCoupons(context, {
    compoundId,
    lensId,
    substrateIds: [substrateId],
    headIds: [headId],
  });
  const { cells } = await scrubbedCells(context, coupons, compoundId);
  return { cells: cells.length, holds: cells.filter(({ outcome }) => outcome === 'holds').length };
}

/** What the window of a pairing is fitted to: coupons and judged runs of all tickets, with how much they count, and its recipes. */
export async function pairingWindow(context: Context, query: WindowQuery): Promise<PairingWindow> {
  const pairing = { ...query, compoundId: query.compoundId ?? null };
  const { revisions } = await loadEquipment(context, pairing);
  const evidence = await windowEvidence(context, pairing, revisions);
  const { coupons, weights } = evidence;
  const [titles, recipes, teachings, measured] = await together(
    context,
    () => ticketTitles(context, evidence.runs),
    () => recipesOfPairing(context, pairing),
    () => shopTeachings(context, pairing),
    () =>
      measuresOf(
        context,
        coupons.map(({ id }) => id),
      ),
  );
  const others = new Set(onOtherRevisions(coupons, pairing.compoundId, revisions));
  return {
    coupons: coupons.map((coupon) => ({
      id: coupon.id,
      code: coupon.design.code,
      version: coupon.version,
      burntAt: coupon.burntAt?.toISOString() ?? null,
      sameRevisions: !others.has(coupon),
      cells: coupon.cells,
      ...weights.get(coupon.id)!,
      lot: evidence.sprayed.get(coupon.id)?.lot ?? '',
      by: coupon.byId,
    })),
    runs: evidence.runs
      .filter((run) => runOutcome(run) !== null)
      .map(({ id, at, ticketId, pieces, judgement }) => ({
        ...{ id, at: at.toISOString(), ticketTitle: titles.get(ticketId) ?? '', pieces },
        ...{ lost: pieces - judgement.piecesGood, weight: 1 },
      })),
    cells: evidence.cells.map((cell) => ({
      ...cell,
      measures: measured.get(cell.couponId ?? '')?.get(cell.cell) ?? null,
    })),
    teachings,
    recipes,
  };
}
