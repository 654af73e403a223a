import {
  fitWindow,
  boundAtSetting,
  judgeSetting,
  SURE,
  SETTING_PART_NAMES,
  type Grade,
  type EarlierWindow,
  type KnownSetting,
  type SettingPromise,
  type ToleranceBox,
  type WindowEquipment,
  type WindowFit,
  type WindowPoint,
} from '@unto/core';
import type { Revisions } from '@unto/contract';
import type { SettablePart } from '../setting/core-setting.js';
import { coversCoats, partsOutside, type CoatedSetting, type WindowFamily } from './window-families.js';
import type { FiredCoupon } from './window-cells.js';

/** What a setting in a family promises, and what its proof is worth. */
export interface Proof {
  readonly grade: Grade;
  /** Why it is no better, in words; empty when it is proved from pictures. */
  readonly because: readonly string[];
  readonly holds: number;
  readonly worst: number;
  readonly inside: boolean;
}

/** What a proof is weighed by. */
export interface ProofTerms {
  readonly fit: WindowFit;
  readonly equipment: WindowEquipment;
  readonly tolerance: ToleranceBox;
  readonly bound: number;
  /** Codes of coupons that were fired on other revisions than the setting would run on. */
  readonly otherRevisions: readonly string[];
  /** Parts that this head lets set and another might not: none of them may be missing. */
  readonly settable: readonly SettablePart[];
  /** Windows elsewhere that the fit learnt from. */
  readonly earlier?: readonly EarlierWindow[];
}

/**
 * The grade of a setting: proved only where every part is either equal to that of the scrubbed cells or was varied by them, inside
 * what they tried, meeting the bound, on the same revisions; from pictures alone, or else by eye.
 */
export function proofOf(family: WindowFamily, setting: CoatedSetting<KnownSetting>, terms: ProofTerms): Proof {
  const point = { ...setting, coats: setting.coats ?? family.coats };
  const judged = judgeSetting(terms.fit, point, terms);
  const against = [
    ...terms.settable
      .filter((part) => setting[part] === null)
      .map((part) => `${SETTING_PART_NAMES[part]}: this head lets it be set, and it was not noted`),
    ...partsOutside(family, setting).map(
      (part) => `${SETTING_PART_NAMES[part]}: ${apart(family.fixed[part as never], setting[part])}`,
    ),
    ...(coversCoats(family, setting.coats) ? [] : [`coats: ${setting.coats}, but ${family.coats} on the coupon`]),
    ...(terms.otherRevisions.length
      ? [`${terms.otherRevisions.join(', ')} fired on other revisions of what stands on the bench`]
      : []),
    ...(judged.inside ? [] : ['outside what the cells tried']),
    ...(judged.sure >= SURE ? [] : [shortOf(judged, terms.bound)]),
  ];
  if (against.length) return { ...judged, grade: 'carried', because: against };
  const eye = family.cells.filter(({ byEye }) => byEye).length;
  if (eye === 0 || provedByPictures(family, point, terms)) return { ...judged, grade: 'proved', because: [] };
  return {
    ...judged,
    grade: 'proved by eye',
    because: [`${eye} of ${family.cells.length} cells were judged by eye, and the others alone do not prove it`],
  };
}

function apart(tested: unknown, asked: unknown): string {
  if (tested === null || tested === undefined) return 'not noted when the coupon was fired';
  if (asked === null || asked === undefined) return `not said, ${String(tested)} on the coupon`;
  return `${String(asked)}, but ${String(tested)} on the coupon`;
}

const ofHundred = (share: number) => Math.floor(share * 100);

/** What a setting falls short in: at the ends of the box, or only at itself. */
function shortOf({ worst, holds, sure }: SettingPromise, bound: number): string {
  if (worst < bound) return `at worst ${ofHundred(worst)} of 100 hold, ${ofHundred(bound)} are asked`;
  return `${ofHundred(holds)} of 100 hold; that ${ofHundred(boundAtSetting(bound))} do is sure ${ofHundred(sure)} times of 100, not 95`;
}

/** Whether the cells read from pictures prove it by themselves. */
function provedByPictures(family: WindowFamily, point: WindowPoint, terms: ProofTerms): boolean {
  const cells = family.cells.filter(({ byEye }) => !byEye);
  if (cells.length === 0) return false;
  const { equipment, earlier = [], fit } = terms;
  const judged = judgeSetting(fitWindow({ cells, equipment, seed: fit.seed, earlier }), point, terms);
  return judged.inside && judged.sure >= SURE;
}

/** The revisions a coupon was fired on as far as one of its compounds (null: its bare cells) is concerned. */
export function firedRevisions(
  { revisions, firing, compoundId }: { readonly revisions: Revisions } & Pick<FiredCoupon, 'firing' | 'compoundId'>,
  of: string | null,
): Revisions {
  if (of === null) return { ...revisions, compound: null };
  const pinned = firing?.compounds.find(({ id }) => id === of)?.revision;
  return { ...revisions, compound: pinned ?? (of === compoundId ? revisions.compound : null) };
}
