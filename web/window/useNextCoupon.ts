import { paysFrom, type ExpectedGain, type SettingCost } from '@unto/core';
import type { CouponWindowCell } from '@unto/domain';
import { computed, shallowRef, watch, type Ref } from 'vue';
import { useShop } from '../stores/shop';
import { formatDuration, formatMoney } from '../ui/format';
import { roundIn } from '../ui/round-in';
import type { WindowBench } from './useBench';
import type { Units } from '../ui/useUnits';
import { valueOf, type DrawnWindow } from '../workers/computations';
import { useComputations } from '../workers/useComputations';
import { blockQuery, type ProposedBlock } from './proposed-block';
import { MAP_PARTS, mapRestOf, percentFor, type AskedOn, type MapRest } from './useWindow';

/** Hands on a coupon from spray to scrub, without drying; common practice, no source. */
const COUPON_HANDS_MIN = 15;

/** The coupon that a window proposes next: as the panel would be set, what it is likely to bring, and from when it pays. */
export function useNextCoupon(
  {
    drawn,
    cells,
    cost,
    asked,
  }: {
    readonly asked: Ref<AskedOn | null>;
    readonly drawn: Ref<DrawnWindow | null>;
    readonly cells: Ref<readonly CouponWindowCell[]>;
    readonly cost: Ref<SettingCost | null>;
  },
  { units, rest, bench }: { readonly units: Units; readonly rest: Ref<MapRest | null>; readonly bench: WindowBench },
) {
  const shop = useShop();
  const worker = useComputations();
  /** What it is likely to bring; null until it was played through. */
  const gained = shallowRef<ExpectedGain | null>(null);
  watch(drawn, async (now) => {
    gained.value = null;
    if (!now?.next || !asked.value) return;
    const { fit, next: block, answer } = now;
    const found = valueOf(await worker.core.gain({ fit, block, proven: answer.quickest, ...asked.value }));
    if (drawn.value === now) gained.value = found;
  });
  const next = computed<ProposedBlock | null>(() => {
    const block = drawn.value?.next;
    const equipment = bench.fitted.value;
    if (!block || !equipment) return null;
    const percent = (watts: number) => Math.round(percentFor(watts, equipment) ?? 100);
    const speed = (mmPerS: number) => roundIn(units.reading.value, 'speed', mmPerS);
    // What no cell varied is that of the cells.
    const said = Object.fromEntries(Object.entries(block.rest).filter(([, value]) => value !== undefined));
    return {
      powersPercent: [percent(block.powersW.low), percent(block.powersW.high)],
      speedsMmPerS: [speed(block.speedsMmPerS.low), speed(block.speedsMmPerS.high)],
      rest: mapRestOf({ ...cells.value[0]!, ...said }),
    };
  });
  /** It lies where the map is cut. */
  const onMap = computed(() => {
    const place = next.value?.rest as MapRest | undefined;
    return place && MAP_PARTS.every((part) => place[part] === rest.value?.[part]) ? next.value : null;
  });
  const gain = computed(() => {
    const { answer, next: block } = drawn.value ?? {};
    if (!block) return '';
    if (!answer?.quickest) return 'No setting is proven yet: it is the way to one.';
    if (!gained.value) return 'What it is likely to bring is being played through …';
    const { proves, saved } = gained.value;
    const times = Math.round(proves * 10);
    if (!saved || times === 0) return 'It hardly ever proves anything quicker: not worth its blank.';
    return `Most likely, about ${times} time${times === 1 ? '' : 's'} in 10, it proves a setting ${formatDuration(saved.middle)} quicker a piece (${formatDuration(saved.low)} to ${formatDuration(saved.high)}).`;
  });
  const pays = computed(() => {
    const { answer, next: block } = drawn.value ?? {};
    if (!block || !answer?.quickest || !cost.value || !gained.value) return '';
    const { currency, labourMinorPerMinute } = shop.workshop!;
    const { blankMinor, laserMinorPerMinute } = cost.value;
    const couponMinor = blankMinor + COUPON_HANDS_MIN * labourMinorPerMinute;
    const pieces = paysFrom(gained.value, { couponMinor, laserMinorPerMinute });
    const price = `It costs about ${formatMoney(couponMinor, currency)} (blank and ${COUPON_HANDS_MIN} min by hand)`;
    const left = bench.ticket.value?.pieces ?? null;
    if (pieces === null) return `${price} and saves nothing that has a price.`;
    return `${price}; it pays from about ${pieces} pieces${left !== null && pieces > left ? `: not worth it for the ${left} of this ticket` : ''}.`;
  });
  /** Where its design opens. */
  const address = computed(() => ({
    path: bench.ticket.value ? `/tickets/${bench.ticket.value.id}/prove` : '/tickets/new',
    query: next.value ? { next: blockQuery(next.value) } : {},
  }));
  return { next, onMap, gain, pays, address };
}
