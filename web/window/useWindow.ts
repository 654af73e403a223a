import { deliveredPower, type SettingChoice, type WindowCell } from '@unto/core';
import type { Ticket, Workshop } from '@unto/contract';
import { powerSource, settingJob, windowEquipment, type CouponWindowCell, type FittedEquipment } from '@unto/domain';
import { useQuery } from '@pinia/colada';
import { computed, ref, shallowRef } from 'vue';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { valueOf, type DrawnWindow } from '../workers/computations';
import { useComputations } from '../workers/useComputations';

/** Seed of every fit shown; a recipe freezes it. */
export const FIT_SEED = 1977;
const POWER_STEPS = 44;
const SPEED_STEPS = 60;

/** Scrubbed coupons of a ticket's pairing and the window fitted to them, in a worker. */
export function useWindow(ticketId: () => string) {
  const worker = useComputations();
  const { data, refresh } = useQuery({
    key: () => KEYS.window(ticketId()),
    query: () => api.call('ticketWindow', { params: { id: ticketId() } }),
  });
  const coupons = computed(() => data.value?.coupons ?? []);
  const cells = computed<readonly CouponWindowCell[]>(() => data.value?.cells ?? []);
  /** Whether every coupon was made on the revisions that the ticket would be marked on: as the server will judge it. */
  const sameRevisions = computed(() => coupons.value.every((coupon) => coupon.sameRevisions));
  const drawn = shallowRef<DrawnWindow | null>(null);
  const fault = ref('');
  const busy = ref(false);

  async function fit(
    ticket: Ticket,
    equipment: FittedEquipment,
    shop: Workshop,
    intervalMm: number,
    passes: number,
  ): Promise<void> {
    if (!cells.value.length) return;
    busy.value = true;
    try {
      const mark = { widthMm: ticket.markWidthMm, heightMm: ticket.markHeightMm };
      const speeds = cells.value.map(({ speedMmPerS }) => speedMmPerS);
      const middle = Math.sqrt(Math.min(...speeds) * Math.max(...speeds));
      const task = {
        cells: plain(cells.value),
        equipment: windowEquipment(equipment),
        seed: FIT_SEED,
        job: settingJob(equipment, mark, shop, middle),
        map: {
          powersW: powerAxis(cells.value).map((percent) =>
            Math.max(0.01, deliveredPower(percent, powerSource(equipment))),
          ),
          speedsMmPerS: speedAxis(cells.value),
          intervalMm,
          passes,
        },
      };
      drawn.value = valueOf(await worker.core.window(task));
      fault.value = '';
    } catch (error) {
      fault.value = (error as Error).message;
    } finally {
      busy.value = false;
    }
  }

  return { coupons, cells, sameRevisions, drawn, fault, busy, refresh, fit };
}

function plain(cells: readonly CouponWindowCell[]): WindowCell[] {
  return cells.map(({ powerW, speedMmPerS, intervalMm, passes, outcome }) => ({
    powerW,
    speedMmPerS,
    intervalMm,
    passes,
    outcome,
  }));
}

/** Percentages for the map, a little beyond what was tested, at equal ratios. */
export function powerAxis(cells: readonly CouponWindowCell[]): number[] {
  const tested = cells.map(({ powerPercent }) => powerPercent);
  return ratios(Math.max(1, Math.min(...tested) * 0.75), Math.min(100, Math.max(...tested) * 1.15), POWER_STEPS);
}

export function speedAxis(cells: readonly CouponWindowCell[]): number[] {
  const tested = cells.map(({ speedMmPerS }) => speedMmPerS);
  return ratios(Math.min(...tested) * 0.8, Math.max(...tested) * 1.25, SPEED_STEPS);
}

function ratios(low: number, high: number, count: number): number[] {
  return Array.from({ length: count }, (_, i) => low * (high / low) ** (i / (count - 1)));
}

/** Watts as the percentage that delivers them; null beyond the head. Bisection on the head's own curve. */
export function percentFor(watts: number, equipment: FittedEquipment): number | null {
  const source = powerSource(equipment);
  if (watts > deliveredPower(100, source)) return null;
  let low = equipment.head.firingThresholdPercent;
  let high = 100;
  for (let i = 0; i < 40; i += 1) {
    const middle = (low + high) / 2;
    if (deliveredPower(middle, source) < watts) low = middle;
    else high = middle;
  }
  return high;
}

export type NamedChoice = SettingChoice & { readonly kind: 'quickest' | 'widest' };
