import {
  cellSetting,
  deliveredPower,
  layoutCoupon,
  type CouponDesign,
  type CellMeasures,
  type FiringNotes,
  type Kept,
  type KnownSetting,
  type Outcome,
  type Stage,
} from '@unto/core';
import type { Coupon, Firing, Reading } from '@unto/contract';
import { couponLimits, powerSource, type FittedEquipment } from '../equipment/fitted-equipment.js';

/** A scrubbed cell, or a judged run, with its whole setting, as a window takes it. */
export interface CouponWindowCell extends KnownSetting {
  readonly outcome: Outcome;
  /** Coats under it; null for a run, which does not say. */
  readonly coats: number | null;
  readonly byEye: boolean;
  readonly lookedAgain: boolean;
  /** The coupon it lies on; null for a run. */
  readonly couponId: string | null;
  /** The run that it speaks of; null for a cell of a coupon. */
  readonly runId: string | null;
  readonly kept: Kept | null;
  /** What its picture tells of the mark, where it was asked for. */
  readonly measures?: CellMeasures | null;
  /** Its place on the coupon, from 0. */
  readonly cell: number;
  /** How much it counts, above 0 to 1. */
  readonly weight?: number;
}

interface WithReadings {
  readonly readings: readonly (Pick<Reading, 'stage' | 'source' | 'entries'> & Partial<Pick<Reading, 'rules'>>)[];
}

/** Newest outcome of every cell at a stage, and whether an eye judged it: no picture was read, or somebody took another outcome. */
export function newestReads({ readings }: WithReadings, stage: Stage): Map<number, ReadOutcome> {
  const newest = new Map<number, ReadOutcome>();
  const read = new Map<number, ReadOutcome>();
  for (const { source, entries, rules } of readings.filter((one) => one.stage === stage)) {
    for (const { cell, outcome, proposed, kept } of entries) {
      const before = read.get(cell);
      const looked: ReadOutcome = {
        outcome,
        byEye: source !== 'picture' || proposed !== outcome,
        lookedAgain: source === 'again',
        kept: kept !== undefined && rules ? { share: kept, limit: rules.retention } : null,
      };
      // Whoever looked again and saw the same bears out what was read, and how.
      newest.set(cell, looked.lookedAgain && before?.outcome === outcome ? { ...before, lookedAgain: true } : looked);
      if (!looked.lookedAgain) read.set(cell, looked);
    }
  }
  return newest;
}

/** Newest outcome of every cell at a stage. */
export function newestOutcomes(coupon: WithReadings, stage: Stage): Map<number, Outcome> {
  return new Map([...newestReads(coupon, stage)].map(([cell, { outcome }]) => [cell, outcome]));
}

/** A cell's outcome, whether an eye judged it, and how much of its contrast it kept where pictures told. */
export interface ReadOutcome {
  readonly outcome: Outcome;
  readonly byEye: boolean;
  /** Somebody looked once more, since it disagrees with the cells around. */
  readonly lookedAgain: boolean;
  readonly kept: Kept | null;
}

/** A coupon as it was fired. */
export interface FiredCoupon {
  readonly id: string;
  readonly design: CouponDesign;
  readonly compoundId: string | null;
  readonly focusOffsetMm: number;
  readonly firing: Firing | null;
}

const NOT_NOTED: FiringNotes = { air: null, extraction: null, powerMode: null };

/** What was sprayed under a cell: a compound by id, null where it was left bare. */
function sprayedOn(coupon: FiredCoupon, cell: { readonly role: string; readonly compound: number }): string | null {
  if (cell.role === 'bare') return null;
  return coupon.design.compoundIds[cell.compound - 1] ?? coupon.compoundId;
}

/** Whether a coupon has cells of a compound, or bare ones (null). */
export function bearsOn(coupon: Pick<FiredCoupon, 'design' | 'compoundId'>, compoundId: string | null): boolean {
  const { design } = coupon;
  if (compoundId === null) return coupon.compoundId === null || design.bareStrip;
  return coupon.compoundId === compoundId || design.compoundIds.includes(compoundId);
}

/**
 * Scrubbed cells of a coupon that were sprayed with one compound (null: left bare), each with its whole setting. Watts are those
 * frozen when it was fired; a coupon of before they were frozen takes them from the equipment it was made on.
 * @param outcomes newest scrubbed outcome by cell @param equipment as it was when the coupon was fired
 */
export function couponWindowCells(
  coupon: FiredCoupon,
  compoundId: string | null,
  outcomes: ReadonlyMap<number, ReadOutcome>,
  equipment: FittedEquipment,
): CouponWindowCell[] {
  const { cells } = layoutCoupon(coupon.design, couponLimits(equipment));
  const notes = coupon.firing ?? NOT_NOTED;
  return [...outcomes].flatMap(([index, { outcome, byEye, lookedAgain, kept }]) => {
    const cell = cells[index];
    if (!cell?.reachable || sprayedOn(coupon, cell) !== compoundId) return [];
    const powerW = coupon.firing?.cellW[index] ?? deliveredPower(cell.powerPercent, powerSource(equipment));
    const setting = cellSetting(coupon.design, cell, { focusOffsetMm: coupon.focusOffsetMm, powerW, notes });
    const { powerPercent, speedMmPerS } = cell;
    return [
      {
        ...setting,
        ...{ powerPercent, powerW, speedMmPerS, intervalMm: setting.intervalMm! },
        ...{ coats: compoundId === null ? 0 : cell.coats, outcome, byEye, lookedAgain, kept },
        ...{ couponId: coupon.id, runId: null, cell: index },
      },
    ];
  });
}

/** Watts at the part of every cell of a design on some equipment, in their order; null where the head cannot fire it. */
export function cellWatts(design: CouponDesign, equipment: FittedEquipment): (number | null)[] {
  const source = powerSource(equipment);
  return layoutCoupon(design, couponLimits(equipment)).cells.map(({ reachable, powerPercent }) =>
    reachable ? deliveredPower(powerPercent, source) : null,
  );
}

/** A fired coupon as kept. */
export function firedCoupon({
  id,
  design,
  compoundId,
  focusOffsetMm,
  firing,
}: Pick<Coupon, keyof FiredCoupon>): FiredCoupon {
  return { id, design, compoundId, focusOffsetMm, firing };
}
