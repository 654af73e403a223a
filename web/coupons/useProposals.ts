import {
  contrastRanges,
  proposeOutcome,
  TYPICAL_PRINT,
  type CouponLayout,
  type Outcome,
  type OutcomeRules,
  type ProposedOutcome,
  type Stage,
} from '@unto/core';
import type { Aim, Coupon, CouponPictureEntries } from '@unto/contract';
import { couponRules } from '@unto/domain';
import { computed, reactive, ref, type Ref } from 'vue';
import { useShop } from '../stores/shop';
import type { OpenedPicture, TakenByHand } from './opened-picture';

/** Outcomes as the pictures propose them by movable rules, and those taken against them by hand. */
export function useProposals(
  coupon: Ref<Coupon | null>,
  layout: Ref<CouponLayout | null>,
  tone: Ref<Aim['tone']>,
  pictures: Readonly<Record<Stage, OpenedPicture | null>>,
) {
  const shop = useShop();
  const byHand = reactive<Record<Stage, Map<number, TakenByHand>>>({ rinsed: new Map(), scrubbed: new Map() });
  const usual = computed(() => {
    const compound = shop.item('compound', coupon.value?.compoundId ?? undefined);
    return couponRules(tone.value, compound?.body ?? null);
  });
  const rules = ref<OutcomeRules>(usual.value);
  const proposals = computed<Record<Stage, Map<number, ProposedOutcome>>>(() => ({
    rinsed: proposed(pictures.rinsed?.entries ?? null, null),
    scrubbed: proposed(pictures.scrubbed?.entries ?? null, pictures.rinsed?.entries ?? null),
  }));

  function proposed(
    now: CouponPictureEntries | null,
    before: CouponPictureEntries | null,
  ): Map<number, ProposedOutcome> {
    const found = new Map<number, ProposedOutcome>();
    const range = contrastRanges(now?.print ?? TYPICAL_PRINT);
    for (const measure of now?.cells ?? []) {
      if (!burnt(measure.cell)) continue;
      const earlier = before ? { measure: before.cells[measure.cell]!, noise: before.noise } : null;
      const outcome = proposeOutcome(measure, earlier, rules.value, tone.value, range);
      if (outcome) found.set(measure.cell, outcome);
    }
    return found;
  }

  /** Cells that the head could not reach, or that a broken-off run left out, have no outcome. */
  function burnt(cell: number): boolean {
    return (layout.value?.cells[cell]?.reachable ?? false) && (coupon.value?.burntCells?.includes(cell) ?? true);
  }

  /** Outcomes of a stage: as proposed, or as taken by hand. */
  function outcomes(stage: Stage): Map<number, Outcome> {
    const found = new Map<number, Outcome>();
    for (const [cell, { outcome }] of proposals.value[stage]) found.set(cell, outcome);
    for (const [cell, { outcome }] of byHand[stage]) found.set(cell, outcome);
    return found;
  }

  /** Rules of an earlier reading go on; without one the usual ones of the aim. */
  function setRules(used: OutcomeRules | null): void {
    rules.value = { ...usual.value, ...used };
  }

  return { byHand, usual, rules, proposals, outcomes, burnt, setRules };
}
