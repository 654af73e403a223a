import { fitWindow, lessonWords, type KnownSetting, type SettingJob, type WindowFit } from '@unto/core';
import type { Pairing, Revisions, Workshop } from '@unto/contract';
import {
  earlierWindows,
  familyFor,
  proofOf,
  settableParts,
  teachingsFor,
  weighedCells,
  windowEquipment,
  windowFamilies,
  type CoatedSetting,
  type FittedEquipment,
  type Proof,
  type WindowFamily,
} from '@unto/domain';
import { shopTeachings } from '../coupons/teachings.js';
import { windowEvidence } from '../coupons/window-evidence.js';
import { onOtherRevisions } from '../coupons/window.js';
import type { Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';

/** What a setting is judged on: what stands on the bench, the shop's rules, the mark on that machine. */
export interface ProofBench {
  readonly equipment: FittedEquipment;
  readonly revisions: Revisions;
  readonly shop: Workshop;
  readonly job: SettingJob;
}

/** What the window of a pairing says of a setting, and what it rests on. */
export interface WindowProof {
  readonly family: WindowFamily;
  readonly coupons: readonly Rows['coupons'][];
  /** How much each coupon counted. */
  readonly counted: ReadonlyMap<string, number>;
  readonly fit: WindowFit;
  /** What windows elsewhere taught of it, in words. */
  readonly taught: string;
  readonly proof: Proof;
}

/**
 * Judges a setting by the window of its pairing, fitted here from the stored cells; null where no scrubbed cell speaks of it.
 * @param of coupons to be taken (all where none are named), those that count whole though they are old, the seed of the fit
 */
export async function windowProof(
  context: Context,
  setting: CoatedSetting<KnownSetting>,
  pairing: Pairing,
  { equipment, revisions, shop, job }: ProofBench,
  of: {
    readonly couponIds?: readonly string[] | undefined;
    readonly atFullIds?: readonly string[] | undefined;
    readonly seed: number;
  },
): Promise<WindowProof | null> {
  const evidence = await windowEvidence(context, pairing, revisions, of.couponIds);
  const atFull = new Set(of.atFullIds ?? []);
  const counted = new Map([...evidence.weights].map(([id, { weight }]) => [id, atFull.has(id) ? 1 : weight]));
  const family = familyFor(windowFamilies(weighedCells(evidence.cells, counted, atFull)), setting);
  if (!family) return null;
  const coupons = evidence.coupons.filter(({ id }) => family.couponIds.includes(id));
  const own = windowEquipment(equipment);
  const earlier = earlierWindows(teachingsFor(family, await shopTeachings(context, pairing)));
  const fit = fitWindow({ cells: family.cells, equipment: own, seed: of.seed, earlier });
  const proof = proofOf(family, setting, {
    ...{ fit, equipment: own, tolerance: job.tolerance, bound: shop.bound, earlier },
    otherRevisions: onOtherRevisions(coupons, pairing.compoundId, revisions).map(({ design }) => design.code),
    settable: settableParts(equipment),
  });
  return { family, coupons, counted, fit, taught: lessonWords(fit.lessons).join(' '), proof };
}
