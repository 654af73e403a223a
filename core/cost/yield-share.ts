import type { Ranged } from './cost-per-piece.js';
import { yieldPosterior } from './yield-posterior.js';

/**
 * Share of pieces that come out good from counts, with the range that holds nine times in ten: Beta(½ + good, ½ + bad) (Jeffreys),
 * its normal approximation on the logit scale. Nothing counted yet gives 0.9 and 0.6 to 1 (common practice, no source).
 * @throws value.negative; value.out-of-range when more are good than were made
 */
export function yieldShare(good: number, made: number): Ranged {
  const posterior = yieldPosterior(good, made);
  if (!posterior) return { value: 0.9, low: 0.6, high: 1 };
  const { a, b } = posterior;
  const logit = Math.log(a / b);
  const reach = 1.645 * Math.sqrt(1 / a + 1 / b);
  const share = (x: number) => 1 / (1 + Math.exp(-x));
  return { value: a / (a + b), low: share(logit - reach), high: share(logit + reach) };
}
