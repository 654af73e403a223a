import { standardNormal, type Random } from '@unto/core';

/** How a hand lays more or less than it means to, and how much of that reaches the part. Invented; nothing users see may read it. */
export interface TechniqueTruth {
  /** ln of laid ÷ meant, on average. */
  readonly biasLn: number;
  readonly spreadLn: number;
  /** Share of the solids that stays on the part. */
  readonly transfer: number;
  readonly transferSpreadLn: number;
}

export const BENCH_TECHNIQUE: TechniqueTruth = { biasLn: 0.03, spreadLn: 0.07, transfer: 0.38, transferSpreadLn: 0.05 };

/** Mass that leaves the container and mass that stays dry on the parts, g; and the film as a multiple of what was meant. */
export interface LaidCoat {
  readonly massAppliedG: number;
  readonly dryG: number;
  readonly film: number;
}

/** One coat by that hand. */
export function layCoat(
  hand: TechniqueTruth,
  meant: { readonly massToApplyG: number; readonly massSolids: number },
  random: Random,
): LaidCoat {
  const massAppliedG = meant.massToApplyG * Math.exp(hand.biasLn + hand.spreadLn * standardNormal(random));
  const share = Math.min(0.95, hand.transfer * Math.exp(hand.transferSpreadLn * standardNormal(random)));
  const dryG = massAppliedG * meant.massSolids * share;
  return { massAppliedG, dryG, film: dryG / (meant.massToApplyG * meant.massSolids * hand.transfer) };
}
