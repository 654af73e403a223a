import { standardNormal, type Outcome, type Random } from '@unto/core';
import { MIDDLE, type TruthPlace, type TruthSetting, type WindowTruth } from './truth.js';

/** Share of its contrast from which a mark holds. */
export const KEPT_LIMIT = 0.85;
/** What two readings of one cell differ by, common practice, no source. */
const READING_NOISE = 0.03;

const clipped = (share: number) => Math.max(0, Math.min(1.05, share));
/** What is kept by how far a cell lies beyond its boundary, in logits: gauges unlike one another, all at the limit at 0. */
const GAUGES: readonly ((beyond: number) => number)[] = [
  (beyond) => 1 / (1 + Math.exp(-(Math.log(KEPT_LIMIT / (1 - KEPT_LIMIT)) + beyond / 1.5))),
  (beyond) => clipped(KEPT_LIMIT + 0.13 * beyond),
  (beyond) => 1 - Math.exp(-Math.exp(Math.log(-Math.log(1 - KEPT_LIMIT)) + beyond / 3)),
];

/** A cell with the share of its contrast that a picture says was kept: what it becomes follows from that number, misreadings apart. */
export function fireKept(
  truth: WindowTruth,
  setting: TruthSetting,
  random: Random,
  place: TruthPlace = MIDDLE,
): { outcome: Outcome; kept?: { share: number; limit: number } } {
  const { holds, over } = truth.chances(setting, place);
  if (random() < over) return { outcome: 'over' };
  const bonded = Math.min(1 - 1e-9, Math.max(1e-9, holds / (1 - over)));
  const luck = Math.min(1 - 1e-9, Math.max(1e-9, random()));
  const beyond = Math.log(bonded / (1 - bonded)) - Math.log(luck / (1 - luck));
  // One coat has one gauge: which it is follows from the coat itself.
  const gauge =
    GAUGES[Math.floor(1e6 * truth.chances({ powerW: 30, speedMmPerS: 100, intervalMm: 0.06 }).under) % GAUGES.length]!;
  const share = clipped(gauge(beyond) + READING_NOISE * standardNormal(random));
  return { outcome: share >= KEPT_LIMIT ? 'holds' : 'under', kept: { share, limit: KEPT_LIMIT } };
}
