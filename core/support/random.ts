/** A source of numbers in [0, 1). The core never reaches for Math.random: callers pass one of these. */
export type Random = () => number;

/**
 * A seeded generator (mulberry32, Tommy Ettinger, public domain): the same seed gives the same numbers.
 * @example const random = seededRandom(7); random();
 */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/** The same values in an order of chance (Fisher & Yates; Durstenfeld 1964). */
export function shuffled<T>(values: readonly T[], random: Random): T[] {
  const order = [...values];
  for (let i = order.length - 1; i > 0; i -= 1) {
    const j = Math.floor(random() * (i + 1));
    [order[i], order[j]] = [order[j]!, order[i]!];
  }
  return order;
}

/** One draw from the standard normal distribution (Box & Muller 1958). */
export function standardNormal(random: Random): number {
  const radius = Math.sqrt(-2 * Math.log(1 - random()));
  return radius * Math.cos(2 * Math.PI * random());
}
