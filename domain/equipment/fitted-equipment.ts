import {
  equivalentRadius,
  focusAsPower,
  type CalibrationRow,
  type CouponEquipment,
  type CouponLimits,
  type PowerSource,
  type RowMotion,
  type SettingJob,
  type WindowEquipment,
} from '@unto/core';
import type { CalibrationBody, HeadBody, LensBody, MachineBody, SubstrateBody, Workshop } from '@unto/contract';
import { usualFactor } from '../kinds/usual-factors.js';

/** Machine, head, lens and metal as the core wants them. */
export interface FittedEquipment {
  readonly machine: MachineBody;
  readonly head: HeadBody;
  readonly lens: LensBody;
  readonly substrate: SubstrateBody;
  readonly calibration: CalibrationBody | null;
}

/** Rating, threshold and, where somebody metered it, the calibration of a head. */
export function powerSource({ head, calibration }: Pick<FittedEquipment, 'head' | 'calibration'>): PowerSource {
  const rows = calibration?.rows as readonly CalibrationRow[] | undefined;
  const { ratedW, firingThresholdPercent } = head;
  return { ratedW, firingThresholdPercent, calibration: rows, ratingFactor: usualFactor('head', head, 'ratedW') };
}

/** How rows are run: along an axis with acceleration, or by mirrors with a jump. */
export function rowMotion(machine: MachineBody): RowMotion {
  return machine.motion === 'gantry'
    ? { kind: 'gantry', accelerationMmPerS2: machine.accelerationMmPerS2, rapidMmPerS: machine.topSpeedMmPerS }
    : { kind: 'galvo', jumpMmPerS: machine.topSpeedMmPerS, delayS: machine.jumpDelayS };
}

/** What bed and head allow a coupon. */
export function couponLimits({ machine, head }: Pick<FittedEquipment, 'machine' | 'head'>): CouponLimits {
  return {
    bed: { widthMm: machine.bedWidthMm, heightMm: machine.bedHeightMm },
    topSpeedMmPerS: machine.topSpeedMmPerS,
    firingThresholdPercent: head.firingThresholdPercent,
    frequencyKHz: rangeOf(head.frequencyKHzMin, head.frequencyKHzMax),
    pulseNs: rangeOf(head.pulseNsMin, head.pulseNsMax),
  };
}

function rangeOf(low: number | null | undefined, high: number | null | undefined): CouponLimits['pulseNs'] {
  return typeof low === 'number' && typeof high === 'number' ? { low, high } : undefined;
}

/** What the figures of a coupon's cells are worked out from. */
export function couponEquipment(equipment: FittedEquipment): CouponEquipment {
  const { lens, substrate } = equipment;
  return {
    power: powerSource(equipment),
    motion: rowMotion(equipment.machine),
    spotXMm: lens.spotXMm,
    spotYMm: lens.spotYMm,
    conductivity: substrate.conductivity,
    diffusivity: substrate.diffusivity,
  };
}

/** What the window is fitted with: the spot as one radius, and the metal. */
export function windowEquipment({ lens, substrate }: Pick<FittedEquipment, 'lens' | 'substrate'>): WindowEquipment {
  return {
    radiusMm: equivalentRadius(lens.spotXMm, lens.spotYMm),
    conductivity: substrate.conductivity,
    diffusivity: substrate.diffusivity,
  };
}

/** Rayleigh range that a stated depth of focus (spot + growth) amounts to, mm. */
export function rayleighOf({ depthOfFocusMm, depthGrowth }: Pick<LensBody, 'depthOfFocusMm' | 'depthGrowth'>): number {
  return depthOfFocusMm / Math.sqrt((1 + depthGrowth) ** 2 - 1);
}

/** The search for a setting on this bench for a rectangle of mark, under the shop's tolerances. `speedMmPerS`: where focus is weighed. */
export function settingJob(
  equipment: FittedEquipment,
  mark: { widthMm: number; heightMm: number },
  shop: Pick<Workshop, 'bound' | 'tolerancePower' | 'toleranceFocusMm'>,
  speedMmPerS: number,
): SettingJob {
  const focusShare = focusAsPower(windowEquipment(equipment), {
    speedMmPerS,
    errorMm: shop.toleranceFocusMm,
    // A depth that nobody has said may be much less: what is called safe must hold then as well.
    rayleighMm: rayleighOf(equipment.lens) / (usualFactor('lens', equipment.lens, 'depthOfFocusMm') ?? 1),
  });
  return {
    power: powerSource(equipment),
    motion: rowMotion(equipment.machine),
    topSpeedMmPerS: equipment.machine.topSpeedMmPerS,
    ...mark,
    directions: 'two-way',
    tolerance: { powerShare: shop.tolerancePower, focusShare },
    bound: shop.bound,
  };
}
