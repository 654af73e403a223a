import { CHOICES, settingFigure, settingPrice, type ChoiceKind, type Figure, type SettingCost } from '@unto/core';
import type { PairingWindow } from '@unto/contract';
import type { CouponWindowCell } from '@unto/domain';
import { computed, ref, watch, type Ref } from 'vue';
import { useShop } from '../stores/shop';
import { formatMoney } from '../ui/format';
import type { DrawnWindow, OfferedSetting } from '../workers/computations';
import type { Offer } from './SettingOffer.vue';

/** The settings that a window offers, and the one that is taken for the recipe. */
export function useOffers(of: {
  readonly drawn: Ref<DrawnWindow | null>;
  readonly cells: Ref<readonly CouponWindowCell[]>;
  readonly coupons: Ref<PairingWindow['coupons']>;
  readonly cost: Ref<SettingCost | null>;
}) {
  const shop = useShop();
  const takenKind = ref<ChoiceKind>('quickest');
  watch(
    () => of.drawn.value?.answer,
    (answer, before) => {
      if (!before && answer) takenKind.value = answer.quickest ? 'quickest' : 'widest';
    },
  );
  const priceOf = (choice: OfferedSetting) =>
    of.cost.value ? formatMoney(settingPrice(choice, of.cost.value), shop.workshop!.currency) : '';
  /** One offer a setting: what is quickest may be the cheapest as well. */
  const offers = computed<Offer[]>(() => {
    const made: Offer[] = [];
    for (const kind of CHOICES) {
      const choice = of.drawn.value?.answer[kind];
      if (!choice) continue;
      const same = made.findIndex((offer) => sameChoice(offer.choice, choice));
      if (same >= 0) made[same] = { ...made[same]!, also: [...made[same]!.also, kind] };
      else made.push({ kind, also: [], choice, price: priceOf(choice) });
    }
    return made;
  });
  const taken = computed(() => offers.value.find(({ kind }) => kind === takenKind.value) ?? offers.value[0] ?? null);

  function figureOf({ worst, proof }: OfferedSetting): Figure {
    const evidence = {
      grade: proof.grade,
      cells: of.cells.value.length,
      coupons: of.coupons.value.map(({ id }) => ({ kind: 'coupon', id })),
    };
    return { ...settingFigure({ worst }, evidence), value: worst * 100, unit: 'of 100' };
  }
  return { offers, taken, takenKind, figureOf };
}

const SAME = ['powerPercent', 'speedMmPerS', 'intervalMm', 'passes'] as const;
const sameChoice = (a: OfferedSetting, b: OfferedSetting) => SAME.every((part) => a[part] === b[part]);
