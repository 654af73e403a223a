import type { SettingChoice } from './setting-search.js';
import type { WindowPoint } from './window-terms.js';

/** What a mix weighs, each 0 or more; what is 0 counts for nothing. */
export const MIXED = ['time', 'margin', 'contrast', 'price'] as const;
export type Mix = Readonly<Record<(typeof MIXED)[number], number>>;

/** The first of those for which a measure is the least. */
export const least = <T>(of: readonly T[], by: (one: T) => number) =>
  of.reduce<T | null>((best, one) => (best && by(best) <= by(one) ? best : one), null);

/**
 * The choice among proven ones that a mix values most: each measure runs from 0 at the worst of them to 1 at the best, and these are
 * weighed and added up. What nothing tells (a price, a contrast) counts for nothing.
 */
export function mixed(
  among: readonly SettingChoice[],
  mix: Mix,
  {
    price,
    contrast,
  }: { price: ((one: SettingChoice) => number) | null; contrast: ((one: WindowPoint) => number) | null },
): SettingChoice | null {
  const values: Record<keyof Mix, (one: SettingChoice) => number> = {
    time: ({ seconds }) => -Math.log(seconds),
    margin: ({ worst }) => worst,
    contrast: (one) => contrast?.(one) ?? 0,
    price: (one) => -(price?.(one) ?? 0),
  };
  const scores = MIXED.map((part) => {
    const all = among.map(values[part]);
    const [low, high] = [Math.min(...all), Math.max(...all)];
    return (i: number) => (high > low ? (mix[part] * (all[i]! - low)) / (high - low) : 0);
  });
  const worth = new Map(among.map((one, i) => [one, scores.reduce((sum, score) => sum + score(i), 0)]));
  return least(among, (one) => -worth.get(one)!);
}
