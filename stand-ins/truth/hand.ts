import { standardNormal, type Random } from '@unto/core';

/** How a hand lays more or less than it means to, and how much of that reaches the part. Invented; nothing users see may read it. */
export interface HandTruth {
  /** ln of laid ÷ meant, on average. */
  readonly biasLn: number;
  readonly spreadLn: number;
  /** Share of the solids that stays on the part. */
  readonly transfer: number;
  readonly transferSpreadLn: number;
}

export const BENCH_HAND: HandTruth = { biasLn: 0.03, spreadLn: 0.07, transfer: 0.38, transferSpreadLn: 0.05 };

/** One coat by that hand: mass that leaves the container and mass that stays dry on the parts, g. */
export function layCoat(
  hand: HandTruth,
  meant: { readonly layG: number; readonly massSolids: number },
  random: Random,
): { laidG: number; dryG: number } {
  const laidG = meant.layG * Math.exp(hand.biasLn + hand.spreadLn * standardNormal(random));
  const share = Math.min(0.95, hand.transfer * Math.exp(hand.transferSpreadLn * standardNormal(random)));
  return { laidG, dryG: laidG * meant.massSolids * share };
}
