import {
  CHOICES,
  settingFigure,
  settingPrice,
  type ChoiceKind,
  type Criterion,
  type Figure,
  type SettingCost,
  type Weights,
} from '@unto/core';
import type { PairingWindow } from '@unto/contract';
import type { CouponWindowCell } from '@unto/domain';
import { useLocalStorage } from '@vueuse/core';
import { computed, ref, type Ref } from 'vue';
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
  /** What somebody took; the first that is offered until then. */
  const takenKind = ref<ChoiceKind | null>(null);
  const priceOf = (choice: OfferedSetting) =>
    of.cost.value ? formatMoney(settingPrice(choice, of.cost.value), shop.workshop!.currency) : '';
  const profileId = useLocalStorage<string | null>('unto-profile', null);
  /** What weighs most in the shop’s profile stands first. */
  const order = computed(() => orderOf(shop.inUse('profile').find(({ id }) => id === profileId.value)?.body ?? null));
  /** One offer a setting: what is quickest may be the cheapest as well. */
  const offers = computed<Offer[]>(() => {
    const made: Offer[] = [];
    for (const kind of order.value) {
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

/** What each choice serves, of what a profile weighs. */
const SERVES: Record<Exclude<ChoiceKind, 'mix'>, Criterion> = {
  quickest: 'rate',
  widest: 'durability',
  strongest: 'contrast',
  cheapest: 'cost',
};

/** The choices: what somebody mixed for themselves, then what a profile weighs most; the quickest where nobody weighs anything. */
export function orderOf(weights: Weights | null): readonly ChoiceKind[] {
  const aims = CHOICES.filter((kind) => kind !== 'mix');
  return ['mix', ...(weights ? aims.sort((a, b) => weights[SERVES[b]] - weights[SERVES[a]]) : aims)];
}

const SAME = ['powerPercent', 'speedMmPerS', 'intervalMm', 'passes'] as const;
const sameChoice = (a: OfferedSetting, b: OfferedSetting) => SAME.every((part) => a[part] === b[part]);
