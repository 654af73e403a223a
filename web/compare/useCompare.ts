import { useQuery } from '@pinia/colada';
import type { PairingWindow } from '@unto/contract';
import {
  pairingOf,
  weighedCells,
  windowFamilies,
  type CouponWindowCell,
  type FittedEquipment,
  type WindowFamily,
} from '@unto/domain';
import { computed, ref, shallowRef, watch } from 'vue';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { fittedEquipment } from '../stores/fitted-equipment';
import { useShop } from '../stores/shop';
import { windowQueryOf, type Compared } from '../window/address';
import { FIT_SEED, windowTask } from '../window/useWindow';
import { valueOf, type ComparedAnswer } from '../workers/computations';
import { useComputations } from '../workers/useComputations';

/** A window on the comparison: what it is of, its cells, and what the fit says once it is there. */
export interface ComparedRow {
  readonly of: Compared;
  readonly equipment: FittedEquipment | null;
  readonly window: PairingWindow;
  /** The largest family of those cells; null where no scrubbed cell is among them. */
  readonly family: WindowFamily | null;
}

const POWERS = 40;

/** Windows against one another for one mark. */
export function useCompare(chosen: () => readonly Compared[], mark: () => { widthMm: number; heightMm: number }) {
  const worker = useComputations();
  const shop = useShop();
  const { data } = useQuery({
    key: () => [...KEYS.windows(), 'compare', JSON.stringify(chosen())],
    query: () =>
      Promise.all(
        chosen().map(async (of) => ({
          of,
          window: await api.call('pairingWindow', { query: windowQueryOf(pairingOf(of)) }),
        })),
      ),
  });
  const rows = computed<ComparedRow[]>(() =>
    (data.value ?? []).map(({ of, window }) => ({
      ...{ of, window },
      equipment: fittedEquipment(shop, of),
      family: familyOf(of, window),
    })),
  );
  const fitted = computed(() => rows.value.filter(({ family, equipment }) => family && equipment));
  const answers = shallowRef<ReadonlyMap<ComparedRow, ComparedAnswer>>(new Map());
  const busy = ref(false);
  const fault = ref('');

  watch([fitted, mark], ([now]) => void compare(now), { immediate: true, deep: true });

  async function compare(now: readonly ComparedRow[]): Promise<void> {
    answers.value = new Map();
    if (!now.length || !shop.workshop) return;
    busy.value = true;
    try {
      const windows = now.map(({ family, equipment, window }) =>
        windowTask(family!, equipment!, { mark: mark(), shop: shop.workshop!, window }),
      );
      const watts = now.flatMap(({ family }) => family!.cells.map(({ powerW }) => powerW));
      const [weak, strong] = [Math.min(...watts), Math.max(...watts)];
      const powersW = Array.from({ length: POWERS }, (_, i) => weak * (strong / weak) ** (i / (POWERS - 1)));
      const found = valueOf(await worker.core.compare({ windows, powersW, seed: FIT_SEED }));
      if (now === fitted.value) answers.value = new Map(now.map((row, i) => [row, found[i]!]));
      fault.value = '';
    } catch (error) {
      fault.value = (error as Error).message;
    } finally {
      busy.value = false;
    }
  }
  return { rows, answers, busy, fault };
}

function familyOf({ lot, coats }: Compared, { coupons, cells }: PairingWindow): WindowFamily | null {
  const weights = new Map(coupons.map(({ id, weight }) => [id, weight]));
  const lots = new Map(coupons.map((coupon) => [coupon.id, coupon.lot]));
  const own = (cells as readonly CouponWindowCell[]).filter(
    ({ couponId }) => lot === null || (couponId !== null && lots.get(couponId) === lot),
  );
  const families = windowFamilies(weighedCells(own, weights, new Set()));
  return families.find((family) => coats === null || family.coats === coats) ?? null;
}
