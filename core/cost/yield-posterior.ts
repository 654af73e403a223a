import { CoreError } from '../support/core-error.js';
import { requireNotNegative } from '../support/require.js';

/**
 * What counts say of a yield: Beta(½ + good, ½ + bad) (Jeffreys, Theory of Probability, 1961); null when nothing was made.
 * @throws value.negative; value.out-of-range when more are good than were made
 */
export function yieldPosterior(good: number, made: number): { a: number; b: number } | null {
  requireNotNegative('good pieces', good);
  requireNotNegative('pieces', made);
  if (good > made)
    throw new CoreError('value.out-of-range', `${good} good pieces of ${made} made cannot be.`, { path: 'good' });
  return made === 0 ? null : { a: good + 0.5, b: made - good + 0.5 };
}
