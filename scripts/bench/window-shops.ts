import { fitWindow, quickestSetting, seededRandom, type EarlierWindow } from '@unto/core';
import { shopWindows, TRUTH_FAMILIES } from '@unto/simulators/window-truths';
import { BENCH, bestRate, firstCoupon, JOB, seedsOf, settingOf, trulyGood, type Size } from './window-coats.js';
import type { Line } from './line.js';

/** How many windows a shop knows before the one that is asked about. */
const KNOWN = 9;
const PLAIN = TRUTH_FAMILIES.find(({ axes }) => axes === 'power and speed')!;

/** Settings recommended for a shop's tenth window, by its own cells alone and with what the nine before taught. */
export interface ShopTally {
  readonly size: Size;
  readonly alone: Found;
  readonly taught: Found;
  /** Lessons offered, and those that the cells contradicted. */
  offered: number;
  refused: number;
}

interface Found {
  coats: number;
  given: number;
  good: number;
  rate: number;
}

const nothing = (): Found => ({ coats: 0, given: 0, good: 0, rate: 0 });

/** Shops that the pooling was tuned on; those that are measured come after. */
const TUNED_ON = 200;

/** @param strange share of the windows that follow a compound of their own, the asked one among them */
export function shopStudy(shops: number, sizes: readonly Size[], strange: number): ShopTally[] {
  const tallies = sizes.map((size): ShopTally => ({
    size,
    alone: nothing(),
    taught: nothing(),
    offered: 0,
    refused: 0,
  }));
  for (let n = TUNED_ON + 1; n <= TUNED_ON + shops; n += 1) {
    const { coat, first, second } = seedsOf(n);
    const windows = shopWindows(seededRandom(coat), KNOWN + 1, strange);
    const known = windows.slice(0, KNOWN).map(({ truth, metal }, i): EarlierWindow => {
      const equipment = { ...BENCH, ...metal };
      const cells = firstCoupon(PLAIN, truth, { size: 24, seed: second + i });
      return { equipment, fit: fitWindow({ cells, equipment, seed: n, effort: 'quick' }) };
    });
    const { truth, metal } = windows[KNOWN]!;
    const equipment = { ...BENCH, ...metal };
    const best = bestRate(PLAIN, truth);
    for (const tally of tallies) {
      const cells = firstCoupon(PLAIN, truth, { size: tally.size, seed: first });
      const taught = fitWindow({ cells, equipment, seed: n, earlier: known });
      tally.offered += taught.lessons.length;
      tally.refused += taught.lessons.filter(({ used }) => !used).length;
      for (const [kind, fit] of [
        ['alone', fitWindow({ cells, equipment, seed: n })],
        ['taught', taught],
      ] as const) {
        const into = tally[kind];
        into.coats += 1;
        const found = quickestSetting(fit, JOB);
        if (!found) continue;
        into.given += 1;
        if (!trulyGood(truth, settingOf(found))) continue;
        into.good += 1;
        into.rate += Math.min(1, (found.speedMmPerS * found.intervalMm) / best);
      }
    }
  }
  return tallies;
}

const words = ({ coats, given, good, rate }: Found) =>
  `given ${Math.round((100 * given) / coats)} %, truly good ${given ? Math.round((100 * good) / given) : '–'} %, rate ${good ? (rate / good).toFixed(2) : '–'}`;

/** One line a size, for shops of one compound and for shops whose windows are now and then strangers. */
export function shopLines(shops: number): Line[] {
  return [0, 0.25].flatMap((strange) =>
    shopStudy(shops, [12, 16, 24], strange).map(({ size, alone, taught, offered, refused }): Line => ({
      what: `a shop's tenth window on ${size} cells, ${strange ? `${100 * strange} % of its windows strangers` : 'one compound on several metals'}, ${shops} shops`,
      figure: `${words(taught)} (${Math.round((100 * refused) / Math.max(1, offered))} % of lessons refused)`,
      against: `by its own cells alone ${words(alone)}`,
      ratio: `${Math.round((100 * taught.good) / Math.max(1, taught.given))} % truly good`,
      goal: '≥ 95 % truly good, more given than alone',
      met: taught.good >= 0.95 * taught.given && taught.given >= alone.given,
    })),
  );
}
