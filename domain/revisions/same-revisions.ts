import type { Revisions } from '@unto/contract';

/** Whether two records were made on the same revisions of everything that bears on a mark. */
export function sameRevisions(a: Revisions, b: Revisions): boolean {
  return (['substrate', 'compound', 'head', 'lens', 'machine', 'calibration'] as const).every(
    (key) => a[key] === b[key],
  );
}
