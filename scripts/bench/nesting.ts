import { nestSheet, seededRandom } from '@unto/core';
import { median, type Line } from './line.js';

/** Five hundred blanks of 25 sizes on a sheet that just holds them, and on one that does not. */
export function nesting(): Line {
  const random = seededRandom(3);
  const kinds = Array.from({ length: 25 }, () => ({
    ...{ label: '', count: 20, test: false },
    widthMm: 15 + 60 * random(),
    heightMm: 10 + 40 * random(),
  }));
  const keepOuts = [{ xMm: 100, yMm: 100, widthMm: 50, heightMm: 80 }];
  const job = { gapMm: 1, marginMm: 5, keepOuts, kinds, seed: 22 };
  const roomy = { ...job, sheet: { widthMm: 1000, heightMm: 800 } };
  const tight = { ...job, sheet: { widthMm: 900, heightMm: 600 } };
  const [all, most] = [nestSheet(roomy), nestSheet(tight)];
  const time = Math.max(
    median(5, () => nestSheet(roomy)),
    median(5, () => nestSheet(tight)),
  );
  return {
    what: 'nesting 500 mixed blanks',
    figure: `${time.toFixed(0)} ms; ${all.places.length} laid on 1000 × 800 mm, ${most.places.length} on 900 × 600 mm`,
    against: 'the area bound (all free area, kerf not counted)',
    ratio: `${(100 * all.ofBound).toFixed(0)} % and ${(100 * most.ofBound).toFixed(0)} % of it`,
    goal: '< 1 s',
    met: time < 1000,
  };
}
