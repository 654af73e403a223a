import { mean } from '../statistics/index.js';

/**
 * Distance over which a profile across an edge goes from 10 % to 90 % of its step, in samples (a fraction); null where there is no
 * step. The ends, a fifth each, are the levels.
 * @example edgeWidth([0, 0, 0, 0.5, 1, 1, 1]) // 1.6
 */
export function edgeWidth(values: readonly number[]): number | null {
  if (values.length < 5 || values.some(Number.isNaN)) return null;
  const ends = Math.max(1, Math.floor(values.length / 5));
  const [from, to] = [mean(values.slice(0, ends)), mean(values.slice(-ends))];
  if (Math.abs(to - from) < 1e-6) return null;
  const share = values.map((value) => (value - from) / (to - from));
  const middle = share.findIndex((value, i) => i > 0 && share[i - 1]! < 0.5 && value >= 0.5);
  if (middle < 0) return null;
  let [low, high] = [middle - 1, middle];
  while (low > 0 && share[low]! > 0.1) low -= 1;
  while (high < share.length - 1 && share[high]! < 0.9) high += 1;
  const at = (i: number, level: number) => {
    const step = share[i + 1]! - share[i]!;
    return step > 0 ? i + Math.min(1, Math.max(0, (level - share[i]!) / step)) : i;
  };
  return Math.max(0, at(high - 1, 0.9) - at(low, 0.1));
}
