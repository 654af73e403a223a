import {
  deliveredPower,
  equivalentRadius,
  usualSettingsOf,
  type HeatedPart,
  type StartingBench,
  type StartingPoint,
} from '@unto/core';
import type { CompoundBody, CouponsElsewhere, StatedSetting } from '@unto/contract';
import { powerSource, type FittedEquipment } from '../equipment/index.js';
import { isStatedFor, statedPoint, type Typed } from './stated-points.js';
import type { CouponWindowCell } from './window-cells.js';

/** A scrubbed cell as far as it says where the next coupon should lie. */
export type TriedCell = Pick<CouponWindowCell, 'powerW' | 'speedMmPerS' | 'intervalMm' | 'outcome'>;

/** What a first coupon is reckoned on: the head at full power, its spot, and the metal. */
export function startingBench(equipment: FittedEquipment): StartingBench {
  const { machine, head, lens, substrate } = equipment;
  return {
    fullW: deliveredPower(100, powerSource(equipment)),
    firingThresholdPercent: head.firingThresholdPercent,
    topSpeedMmPerS: machine.topSpeedMmPerS,
    ...heatedPart({ lens, substrate }),
  };
}

/** What decides how a spot heats a part. */
export function heatedPart({ lens, substrate }: Pick<FittedEquipment, 'lens' | 'substrate'>): HeatedPart {
  return {
    radiusMm: equivalentRadius(lens.spotXMm, lens.spotYMm),
    conductivity: substrate.conductivity,
    diffusivity: substrate.diffusivity,
  };
}

/** What is known of a pairing before its next coupon. */
export interface KnownBefore {
  readonly stated: readonly StatedSetting[];
  /** Scrubbed cells of this pairing: where some held, the next coupon is laid round them. */
  readonly tried?: readonly TriedCell[];
  /** Coupons of this compound under other heads and lenses of one beam, or on other parts of one family. */
  readonly elsewhere?: readonly CouponsElsewhere[];
  /** What was typed for parts that stated settings leave out. */
  readonly typed?: Typed;
}

/**
 * Points that a first coupon of a pairing can start from: what held here and elsewhere, what somebody stated of this compound, material
 * and beam and nobody wrote was lost, and what is usual in the trade.
 * @param compound null for marking bare
 */
export function startingPoints(
  equipment: Pick<FittedEquipment, 'head' | 'substrate'>,
  compound: Pick<CompoundBody, 'name' | 'form'> | null,
  { stated, tried = [], elsewhere = [], typed = new Map() }: KnownBefore,
): StartingPoint[] {
  const { head, substrate } = equipment;
  const by = compound?.form ?? 'nothing';
  const { family, layer } = substrate;
  const usual = usualSettingsOf({ beam: head.wavelengthClass, emission: head.emission, by, family, layer });
  return [
    ...heldPoints(tried, 'what held before'),
    ...elsewhere.flatMap(({ head: name, lens, substrate: part, under, cells }) =>
      heldPoints(cells, `held under ${name}, ${lens}, on ${part}`).map((point) => ({ ...point, under })),
    ),
    ...stated.filter((one) => isStatedFor(one, equipment, compound)).flatMap((one) => statedPoint(one, typed)),
    ...usual.map(({ powerW, speedMmPerS, intervalMm }) => ({
      ...{ powerW, speedMmPerS, intervalMm, grade: 'usual' as const },
      source: `usual for ${compound ? compound.form : 'marking bare'} on ${family}`,
    })),
  ];
}

/** What was fired with about the most power says more of full power than what is carried up from less. */
const NEAR_MOST = 0.9;

/**
 * Where cells of an earlier coupon held with about the most power that did: for each interval the speeds from the slowest to the fastest.
 * Where none held, slower than all that was too little, or faster than all that was too much.
 */
function heldPoints(tried: readonly TriedCell[], source: string): StartingPoint[] {
  const cells = tried.filter(({ outcome }) => outcome === 'holds');
  if (!cells.length) return beyondPoints(tried, source);
  const mostW = Math.max(...cells.map(({ powerW }) => powerW));
  const near = cells.filter(({ powerW }) => powerW >= NEAR_MOST * mostW);
  return [...new Set(near.map(({ intervalMm }) => intervalMm))].map((intervalMm) => {
    const speeds = near.filter((cell) => cell.intervalMm === intervalMm).map(({ speedMmPerS }) => speedMmPerS);
    const speedMmPerS = { low: Math.min(...speeds), high: Math.max(...speeds) };
    return { powerW: mostW, speedMmPerS, intervalMm, grade: 'carried' as const, source };
  });
}

/** So far beyond what was tried another coupon looks, as a factor. Common practice, no source. */
const BEYOND = 3;

function beyondPoints(tried: readonly TriedCell[], source: string): StartingPoint[] {
  const outcomes = new Set(tried.map(({ outcome }) => outcome));
  const [only] = outcomes;
  if (outcomes.size !== 1 || (only !== 'under' && only !== 'over')) return [];
  const mostW = Math.max(...tried.map(({ powerW }) => powerW));
  const speeds = tried.map(({ speedMmPerS }) => speedMmPerS);
  const [slowest, fastest] = [Math.min(...speeds), Math.max(...speeds)];
  const under = only === 'under';
  return [
    {
      ...{ powerW: mostW, intervalMm: tried[0]!.intervalMm, grade: 'carried' },
      speedMmPerS: under ? { low: slowest / BEYOND, high: slowest } : { low: fastest, high: fastest * BEYOND },
      source: under ? `${source}: nothing, all too little down to here` : `${source}: nothing, all too much up to here`,
    },
  ];
}
