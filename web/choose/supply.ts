import { cheapestContainers, sizePenalty, type ContainerPurchase } from '@unto/core';
import type { ChoiceOptionView, ChoicePage, InventoryItem } from '@unto/contract';

/** Compound for some stretch of work with what to buy for it. */
export interface Supply {
  readonly grams: number;
  readonly buy: ContainerPurchase;
}

/** What one compound costs to keep going: this job out of what is on the shelf, a month and a year as this shop coats. */
export interface SupplyRow {
  readonly compound: InventoryItem<'compound'>;
  readonly stockG: number;
  readonly job: Supply & { readonly missingG: number };
  /** Null while nothing was weighed in the last year. */
  readonly month: Supply | null;
  readonly year: Supply | null;
  /** How many times as much a gram costs in the dearest size. */
  readonly penalty: number;
}

/**
 * Rows for compounds that are offered. A month and a year are what the shop coated in the last twelve months with any of them, laid
 * with this compound instead: so substitutes stand side by side.
 */
export function supplyRows(
  page: Pick<ChoicePage, 'options' | 'yearlyUse' | 'stock'>,
  compounds: readonly InventoryItem<'compound'>[],
  job: { pieces: number; coatedAreaCm2: number },
): SupplyRow[] {
  const offered = page.options.filter(
    (option): option is ChoiceOptionView & { compoundId: string; gramsPerPiece: number } =>
      option.compoundId !== null && option.gramsPerPiece !== null && option.judgement.verdict !== 'blocked',
  );
  const yearCm2 = offered.reduce((sum, { compoundId }) => sum + (page.yearlyUse[compoundId]?.areaCm2 ?? 0), 0);
  return offered.flatMap(({ compoundId, gramsPerPiece }) => {
    const compound = compounds.find(({ id }) => id === compoundId);
    if (!compound) return [];
    const sizes = compound.body.sizes;
    const perCm2 = gramsPerPiece / job.coatedAreaCm2;
    const supply = (grams: number): Supply => ({ grams, buy: cheapestContainers(grams, sizes) });
    const grams = gramsPerPiece * job.pieces;
    const stockG = page.stock[compoundId] ?? 0;
    const missingG = Math.max(0, grams - stockG);
    return [
      {
        compound,
        stockG,
        job: { grams, missingG, buy: cheapestContainers(missingG, sizes) },
        month: yearCm2 > 0 ? supply((perCm2 * yearCm2) / 12) : null,
        year: yearCm2 > 0 ? supply(perCm2 * yearCm2) : null,
        penalty: sizePenalty(sizes),
      },
    ];
  });
}

/** Containers to buy in words, or that the shelf does. */
export function purchaseWords(buy: ContainerPurchase, sizes: readonly { readonly label: string }[]): string {
  const parts = buy.counts.flatMap((count, i) => (count > 0 ? [`${count} × ${sizes[i]!.label}`] : []));
  return parts.length ? parts.join(' + ') : 'on the shelf';
}
