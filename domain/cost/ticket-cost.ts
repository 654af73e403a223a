import { COAT_MINUTES, costBridge, costPerPiece, yieldShare, type CostStep, type PieceCost } from '@unto/core';
import type { ContainerBody, InventoryItem, TicketPage, Workshop } from '@unto/contract';
import { coatPlanFor } from '../coat/coat-plan.js';
import { learntTransfer } from '../coat/learnt-transfer.js';

/** What a ticket's money is reckoned with, besides its page. */
export interface CostShelf {
  readonly shop: Pick<Workshop, 'labourMinorPerMinute'>;
  readonly laserMinorPerMinute: number;
  readonly compound: InventoryItem<'compound'> | null;
  readonly containerOf: (id: string) => Pick<ContainerBody, 'priceMinor' | 'netG'> | null;
  /** Price of the blank that a run was on; of the substrate's cheapest where nobody said which. */
  readonly blankPriceOf: (blankId: string | null) => number;
}

/** What a ticket came to against its plan. Money in minor units. */
export interface TicketCost {
  readonly made: number;
  readonly good: number;
  /** A good piece, as planned and as it came out; null while none is good. */
  readonly plannedMinor: number;
  readonly realMinor: number | null;
  readonly totalMinor: number;
  readonly steps: readonly CostStep[];
  /** What nobody weighed or timed: taken as planned, and said so. */
  readonly asPlanned: readonly ('compound' | 'laser minutes' | 'cleaning')[];
  /** What pieces that were not good, and making pieces anew, cost of the total. */
  readonly scrapMinor: number;
  readonly reworkMinor: number;
}

/** Cleaning of a piece that nobody timed yet, minutes: with a coat, and bare. Common practice, no source. */
const CLEAN_MINUTES = { coated: 1.5, bare: 0.3 } as const;

/** What a ticket came to so far, a good piece and in all, and why that differs from the plan; null before anything ran. */
export function ticketCost(page: TicketPage, shelf: CostShelf, operatorId: string): TicketCost | null {
  const runs = page.runs.filter(({ correctedById }) => !correctedById);
  if (!runs.length) return null;
  const anew = new Set(page.reworks.flatMap(({ doneRunId }) => (doneRunId ? [doneRunId] : [])));
  const sum = (of: (run: (typeof runs)[number]) => number, some = runs) =>
    some.reduce((total, run) => total + of(run), 0);
  const made = sum(({ pieces }) => pieces);
  const good = sum(({ pieces, judgement }) => Math.min(pieces, judgement?.piecesGood ?? 0));
  const planned = plannedPiece(page, shelf, operatorId);
  const weighed = weighedCompound(page, shelf);
  const cleaned = runs.filter(({ cleaning }) => cleaning !== null);
  const cleanMinutes = cleaned.length === runs.length ? sum(({ cleaning }) => cleaning!.minutes) : null;
  const coatMinutes = planned.coatMinutes * made;
  const real: PieceCost = {
    ...planned.cost,
    // A piece that is made anew is on the blank it was on.
    blankMinor:
      sum((run) => (anew.has(run.id) ? 0 : run.pieces * shelf.blankPriceOf(run.bench?.blank?.id ?? null))) / made,
    compoundMinor: weighed === null ? planned.cost.compoundMinor : weighed / made,
    laserMinutes: sum(({ minutes }) => minutes) / made,
    labourMinutes: (coatMinutes + (cleanMinutes ?? planned.cleanMinutes * made)) / made,
    yieldShare: Math.max(good, 0) / made,
  };
  const each = costPerPiece({ ...real, yieldShare: 1 });
  return {
    ...{ made, good, totalMinor: each * made },
    plannedMinor: costPerPiece(planned.cost),
    realMinor: good > 0 ? costPerPiece(real) : null,
    steps: good > 0 ? costBridge(planned.cost, real) : [],
    asPlanned: [
      ...(weighed === null && page.ticket.compoundId ? (['compound'] as const) : []),
      ...(runs.some(({ minutesFrom }) => minutesFrom === 'planned') ? (['laser minutes'] as const) : []),
      ...(cleanMinutes === null ? (['cleaning'] as const) : []),
    ],
    scrapMinor: each * (made - good),
    reworkMinor:
      each *
      sum(
        ({ pieces }) => pieces,
        runs.filter(({ id }) => anew.has(id)),
      ),
  };
}

function plannedPiece(page: TicketPage, shelf: CostShelf, operatorId: string) {
  const { compound, shop, laserMinorPerMinute } = shelf;
  const { ticket, recipes, yieldBefore, transferSamples } = page;
  const coat =
    compound &&
    coatPlanFor(compound, ticket, 1, learntTransfer(transferSamples, compound.body.application, operatorId));
  const coatMinutes = compound ? compound.body.coats * COAT_MINUTES.value : 0;
  const cleanMinutes = compound ? CLEAN_MINUTES.coated : CLEAN_MINUTES.bare;
  const cost: PieceCost = {
    blankMinor: shelf.blankPriceOf(null),
    compoundMinor: coat ? 100 * coat.pricePerPiece.value : 0,
    thinnerMinor: 0,
    laserMinutes: recipes[0] ? recipes[0].secondsPerPiece / 60 : 0,
    laserMinorPerMinute,
    labourMinutes: coatMinutes + cleanMinutes,
    labourMinorPerMinute: shop.labourMinorPerMinute,
    yieldShare: yieldShare(yieldBefore.good, yieldBefore.made).value,
  };
  return { cost, coatMinutes, cleanMinutes };
}

/** What the weighed compound of a ticket cost; null where nothing was weighed. */
function weighedCompound({ weighings }: TicketPage, shelf: CostShelf): number | null {
  if (!weighings.length) return null;
  return weighings.reduce((total, { beforeG, afterG, containerId }) => {
    const container = shelf.containerOf(containerId);
    return total + (container ? ((beforeG - afterG) * container.priceMinor) / container.netG : 0);
  }, 0);
}
