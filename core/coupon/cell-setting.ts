import type { MarkSetting, PowerMode, SwitchState } from '../setting/mark-setting.js';
import type { CouponDesign } from './design.js';
import type { CellSetting } from './layout.js';

/** What was noted when a coupon was fired; null where nobody did. */
export interface FiringNotes {
  readonly air: SwitchState | null;
  readonly extraction: SwitchState | null;
  readonly powerMode: PowerMode | null;
}

/**
 * The whole setting of a coupon's cell: what the cell varies, and what holds for the coupon.
 * @param focusOffsetMm the coupon's own, where the cell has none @param powerW what reached the part
 */
export function cellSetting(
  design: CouponDesign,
  cell: CellSetting,
  { focusOffsetMm, powerW, notes }: { focusOffsetMm: number; powerW: number; notes: FiringNotes },
): MarkSetting {
  const { powerPercent, speedMmPerS, intervalMm, passes, hatches, angleDeg, frequencyKHz, pulseNs } = cell;
  return {
    powerPercent,
    powerW,
    speedMmPerS,
    intervalMm: design.fill === 'lines' ? design.lineSpacingMm : intervalMm,
    passes,
    hatches,
    angleDeg,
    fill: design.fill,
    focusOffsetMm: cell.focusOffsetMm ?? focusOffsetMm,
    frequencyKHz,
    pulseNs,
    directions: design.directions,
    powerMode: notes.powerMode,
    air: notes.air,
    extraction: notes.extraction,
  };
}
