import type { Grade } from '@unto/core';

/** Whether a grade is less than Proved: what is handed over under it wants a name. */
export function isBelowProved(grade: Grade): boolean {
  return grade !== 'proved' && grade !== 'measured';
}
