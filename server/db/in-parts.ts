const AT_ONCE = 1000;

/** A long list in parts that a query takes at once. */
export function inParts<T>(all: readonly T[], atOnce = AT_ONCE): T[][] {
  return Array.from({ length: Math.ceil(all.length / atOnce) }, (_, i) => all.slice(i * atOnce, (i + 1) * atOnce));
}

/** Does a piece of work for each of many, letting others have their turn in between. */
export async function gently<T, R>(all: readonly T[], work: (one: T) => R, atOnce = 50): Promise<R[]> {
  const done: R[] = [];
  for (const [i, one] of all.entries()) {
    done.push(work(one));
    if (i % atOnce === atOnce - 1) await new Promise((resolve) => setImmediate(resolve));
  }
  return done;
}
