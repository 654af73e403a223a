import {
  BURN_LIVE,
  BURN_UNFIRED,
  type Burn,
  type ControllerAction,
  type Coupon,
  type SettleBurn,
  type StartBurn,
} from '@unto/contract';
import { v4 as uuid } from 'uuid';
import { computed, onUnmounted, ref, watch, type Ref } from 'vue';
import { api, ApiProblem, Unreachable, type CallOf } from '../api/client';
import { useShop } from '../stores/shop';
import { useTouch } from '../stores/useTouch';

const LOOK_EVERY_MS = 700;

/** A coupon's run on the controller: sent, followed, paused, stopped, settled. Nothing here waits in the browser: a beam is not fired later. */
export function useBurn(coupon: Ref<Coupon | null>, changed: (coupon: Coupon) => void) {
  const shop = useShop();
  const { touchedBy } = useTouch();
  const busy = ref(false);
  const fault = ref('');
  /** The newest run that left anything to see; one that was not sent, or burnt nothing, leaves the coupon as it was. */
  const burn = computed<Burn | null>(() => {
    const found = coupon.value?.burn ?? null;
    return found && BURN_UNFIRED.includes(found.state) ? null : found;
  });
  const notSent = computed(() => (coupon.value?.burn?.state === 'not sent' ? coupon.value.burn.fault : ''));
  const follows = computed(() => burn.value !== null && BURN_LIVE.includes(burn.value.state));
  let timer: ReturnType<typeof setTimeout> | null = null;

  type BurnCall = 'startBurn' | 'actOnBurn' | 'settleBurn' | 'coupon';
  async function ask<N extends BurnCall>(name: N, call: CallOf<N>): Promise<void> {
    try {
      changed(await api.call(name, call, { operator: shop.operatorId ?? '' }));
      fault.value = '';
    } catch (error) {
      if (!(error instanceof ApiProblem || error instanceof Unreachable)) throw error;
      fault.value = error.message;
    }
  }
  async function pressed<N extends Exclude<BurnCall, 'coupon'>>(name: N, call: CallOf<N>): Promise<void> {
    busy.value = true;
    await ask(name, call);
    await touchedBy(name, call);
    busy.value = false;
  }

  const send = (how: Pick<StartBurn, 'laserOn' | 'air' | 'extraction'>) =>
    pressed('startBurn', {
      params: { id: coupon.value!.id },
      body: { id: uuid(), version: coupon.value!.version, ...how },
    });
  const act = (action: ControllerAction) => pressed('actOnBurn', { params: { id: burn.value!.id }, body: { action } });
  const settle = (as: SettleBurn['as'], seen: number | null = null) =>
    pressed('settleBurn', { params: { id: burn.value!.id }, body: { as, seen } });

  function follow(): void {
    timer ??= setTimeout(async () => {
      timer = null;
      if (!follows.value || !coupon.value) return;
      const { id } = coupon.value;
      if (!busy.value) await ask('coupon', { params: { id } });
      // What lists it is asked again once it has ended.
      if (!follows.value) await touchedBy('settleBurn', { params: { id }, body: { as: 'whole', seen: null } });
      follow();
    }, LOOK_EVERY_MS);
  }
  watch(follows, (now) => now && follow(), { immediate: true });
  onUnmounted(() => timer && clearTimeout(timer));

  return { burn, notSent, busy, fault, send, act, settle };
}
