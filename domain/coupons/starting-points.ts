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

/**
 * Points that a first coupon of a pairing can start from: what somebody stated of this compound, material and beam as far as watts and
 * speed are known and nobody wrote that it was lost, and what is usual in the trade.
 * @param compound null for marking bare
 * @param tried scrubbed cells of this pairing: where some held, the next coupon is laid round them
 * @param elsewhere coupons of this compound under other heads and lenses of one beam, or on other parts of one family
 */
export function startingPoints(
  { head, substrate }: Pick<FittedEquipment, 'head' | 'substrate'>,
  compound: Pick<CompoundBody, 'name' | 'form'> | null,
  stated: readonly StatedSetting[],
  tried: readonly TriedCell[] = [],
  elsewhere: readonly CouponsElsewhere[] = [],
): StartingPoint[] {
  const by = compound?.form ?? 'nothing';
  const { family, layer } = substrate;
  const beam = head.wavelengthClass;
  const usual = usualSettingsOf({ beam, emission: head.emission, by, family, layer });
  const ours = stated.filter(
    (one) =>
      one.family === family &&
      one.wavelengthClass === beam &&
      one.past?.outcome !== 'lost' &&
      isFor(one.compound, compound),
  );
  return [
    ...heldPoints(tried, 'what held before'),
    ...elsewhere.flatMap(({ head: name, lens, substrate: part, under, cells }) =>
      heldPoints(cells, `held under ${name}, ${lens}, on ${part}`).map((point) => ({ ...point, under })),
    ),
    ...ours.flatMap(statedPoint),
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

/** Whether what a statement calls its compound means this one: its name, or its kind. */
function isFor(said: string, compound: Pick<CompoundBody, 'name' | 'form'> | null): boolean {
  const plain = (words: string) => words.trim().toLowerCase();
  return compound ? [compound.name, compound.form].map(plain).includes(plain(said)) : plain(said) === '';
}

function statedPoint({ powerW, speedMmPerS, intervalMm, source, title }: StatedSetting): StartingPoint[] {
  if (!(powerW! > 0) || !(speedMmPerS! > 0)) return [];
  const speed = { low: speedMmPerS!, high: speedMmPerS! };
  return [{ powerW: powerW!, speedMmPerS: speed, intervalMm, grade: 'stated', source: `${title}: ${source}` }];
}
