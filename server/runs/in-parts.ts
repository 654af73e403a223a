const AT_ONCE = 1000;

/** A long list in parts that a query takes at once. */
export function inParts<T>(all: readonly T[]): T[][] {
  return Array.from({ length: Math.ceil(all.length / AT_ONCE) }, (_, i) => all.slice(i * AT_ONCE, (i + 1) * AT_ONCE));
}
