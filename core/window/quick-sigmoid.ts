import { sigmoid } from './ordered-logit.js';

/** Beyond this either way it is 0 or 1 to six digits. */
const END = 16;
const STEPS_A_UNIT = 256;
const TABLE = Float64Array.from({ length: 2 * END * STEPS_A_UNIT + 2 }, (_, i) => sigmoid(i / STEPS_A_UNIT - END));

/** The logistic function from a table, within 2e-7: windows ask for it millions of times. */
export function quickSigmoid(x: number): number {
  const at = (x + END) * STEPS_A_UNIT;
  if (!(at > 0)) return 0;
  if (at >= 2 * END * STEPS_A_UNIT) return 1;
  const low = at | 0;
  const from = TABLE[low]!;
  return from + (at - low) * (TABLE[low + 1]! - from);
}
