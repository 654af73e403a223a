import type { WindowFit } from './window-fit.js';
import { columnsOf } from './window-form.js';
import type { SeenFactor } from './window-terms.js';

/** How much more power than the middle of all a lot, or whoever made the coupon, asks for to bond, as shares; nine times in ten between. */
export interface SeenEffect {
  readonly factor: SeenFactor;
  readonly level: string;
  readonly more: number;
  readonly low: number;
  readonly high: number;
}

/** What lots and people seen in a window ask for, each against the middle of its kind; none where only one was seen. */
export function seenEffects({ form, bond }: WindowFit): SeenEffect[] {
  const { size, count, values } = bond;
  // After ln k come the columns: what was seen are the last of them.
  const first = 1 + columnsOf(form) - form.seen.length;
  return form.seen.map(({ factor, level }, i) => {
    const peers = form.seen.flatMap((one, j) => (one.factor === factor ? [j] : []));
    const draws = Float64Array.from({ length: count }, (_, d) => {
      const at = (j: number) => values[d * size + first + j]!;
      return at(i) - peers.reduce((sum, j) => sum + at(j), 0) / peers.length;
    }).sort();
    const share = (of: number) => Math.exp(draws[Math.round(of * (count - 1))]!) - 1;
    return { factor, level, more: share(0.5), low: share(0.05), high: share(0.95) };
  });
}
