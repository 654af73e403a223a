import { CoreError } from '../support/core-error.js';
import { requireNotNegative, requirePositive } from '../support/require.js';

/** A size a compound is sold in: contents in g and price in minor units. */
export interface ContainerSize {
  readonly label: string;
  readonly netG: number;
  readonly priceMinor: number;
}

/** Containers to buy. */
export interface ContainerPurchase {
  /** How many of each size, in the order given. */
  readonly counts: readonly number[];
  readonly priceMinor: number;
  /** g bought over what was needed. */
  readonly leftOverG: number;
}

/**
 * The cheapest whole containers that hold at least a mass. Exact: a knapsack over counts, bounded by the count that alone would do.
 * Of equally cheap mixes the one with more left over.
 * @param neededG 0 or more; 0 buys nothing
 * @throws cost.no-size without sizes; value.not-positive, value.negative
 * @example 500 g from cans of 420 g at 68.00 and 90 g at 26.00: one of each, 94.00
 */
export function cheapestContainers(neededG: number, sizes: readonly ContainerSize[]): ContainerPurchase {
  requireNotNegative('mass', neededG);
  if (sizes.length === 0) throw new CoreError('cost.no-size', 'No container size is known with its price.');
  sizes.forEach(({ netG, priceMinor }) => {
    requirePositive('net contents', netG);
    requireNotNegative('price', priceMinor);
  });
  // The best unit price first, so that whole mixes are soon dear enough to be cut off.
  const order = sizes.map((_, i) => i).sort((a, b) => unitPrice(sizes[a]!) - unitPrice(sizes[b]!));
  const lowest = unitPrice(sizes[order[0]!]!);
  let best: { counts: number[]; price: number; grams: number } | null = null;
  const counts = new Array<number>(sizes.length).fill(0);
  const search = (at: number, left: number, price: number, grams: number): void => {
    if (left <= 1e-9) {
      if (!best || price < best.price || (price === best.price && grams > best.grams))
        best = { counts: [...counts], price, grams };
      return;
    }
    if (at === order.length || (best && price + left * lowest > best.price)) return;
    const index = order[at]!;
    const size = sizes[index]!;
    for (let n = Math.max(1, Math.ceil(left / size.netG - 1e-9)); n >= 0; n -= 1) {
      counts[index] = n;
      search(at + 1, left - n * size.netG, price + n * size.priceMinor, grams + n * size.netG);
    }
    counts[index] = 0;
  };
  search(0, neededG, 0, 0);
  const { counts: found, price, grams } = best!;
  return { counts: found, priceMinor: price, leftOverG: grams - neededG };
}

/** Price of a gram in minor units. */
export function unitPrice(size: ContainerSize): number {
  return size.priceMinor / size.netG;
}

/** How many times as much a gram costs in the dearest size as in the cheapest. 1 with one size. */
export function sizePenalty(sizes: readonly ContainerSize[]): number {
  const prices = sizes.map(unitPrice).filter((price) => price > 0);
  return prices.length ? Math.max(...prices) / Math.min(...prices) : 1;
}
