import type { Pins } from '@unto/contract';

/** Whether two records were made on the same revisions of everything that bears on a mark. */
export function samePins(a: Pins, b: Pins): boolean {
  return (['substrate', 'compound', 'head', 'lens', 'machine', 'calibration'] as const).every(
    (key) => a[key] === b[key],
  );
}
