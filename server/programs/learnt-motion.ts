import { fillRamps, learnMotion, type Learnt, type TimedRun } from '@unto/core';
import { sweptMark } from '@unto/domain';
import { inventoryItem } from '../inventory/service.js';
import type { Context } from '../db/context.js';

/** Runs a machine is learnt from: its newest. */
const MOST_RUNS = 60;

interface MeasuredRun {
  readonly pieces: number;
  readonly minutes: number;
  readonly speed_mm_per_s: number;
  readonly interval_mm: number;
  readonly passes: number;
  readonly hatches: number;
  readonly mark_width_mm: number;
  readonly mark_height_mm: number;
  readonly swept_width_mm: number | null;
  readonly swept_height_mm: number | null;
}

/** Filled runs of a machine's heads whose minutes somebody measured, of tickets whose mark stands as it was, the newest first. */
const MEASURED = `
  SELECT r.pieces, r.minutes, r.speed_mm_per_s, r.interval_mm, r.passes, r.hatches,
    t.mark_width_mm, t.mark_height_mm, t.swept_width_mm, t.swept_height_mm
  FROM standing_runs s JOIN runs r ON r.id = s.id JOIN tickets t ON t.id = r.ticket_id
  JOIN inventory_items i ON i.id = r.head_id JOIN inventory_revisions v ON v.id = i.revision_id
  WHERE v.body->>'machineId' = :machineId AND r.minutes_from IN ('counted', 'typed') AND r.fill = 'filled'
    AND r.speed_mm_per_s > 0 AND coalesce(r.directions, 'two-way') = 'two-way'
  ORDER BY r.at DESC LIMIT ${MOST_RUNS}`;

/** What the measured runs of a machine say of its acceleration and of the time beside the path; null while they say nothing. */
export async function learntMotionOf(context: Context, machineId: string) {
  await inventoryItem(context, 'machine', machineId);
  const [rows] = await context.sequelize.query(MEASURED, { replacements: { machineId } });
  const runs = (rows as MeasuredRun[]).map(timed);
  const learnt = learnMotion(runs);
  const said = ({ value, low, high }: Learnt) => ({ value, low, high: Number.isFinite(high) ? high : null });
  return {
    measuredRuns: runs.length,
    learnt: learnt && {
      accelerationMmPerS2: said(learnt.accelerationMmPerS2),
      overheadS: said(learnt.overheadS),
      runs: learnt.runs,
    },
  };
}

function timed(row: MeasuredRun): TimedRun {
  const { widthMm, heightMm } = sweptMark({
    ...{ markWidthMm: row.mark_width_mm, markHeightMm: row.mark_height_mm },
    ...{ sweptWidthMm: row.swept_width_mm, sweptHeightMm: row.swept_height_mm },
  });
  const { cruiseS, ramp } = fillRamps(
    { extentMm: widthMm, heightMm, spansPerRow: 1, markedShare: 1 },
    {
      ...{ speedMmPerS: row.speed_mm_per_s, intervalMm: row.interval_mm, passes: row.passes, hatches: row.hatches },
      directions: 'two-way',
    },
  );
  return { seconds: 60 * row.minutes, cruiseS: cruiseS * row.pieces, ramp: ramp * row.pieces, pieces: row.pieces };
}
