import type { Burn, ControllerAction, Coupon, StartBurn } from '@unto/contract';
import { v4 as uuid } from 'uuid';
import { computed, onUnmounted, ref, watch, type Ref } from 'vue';
import { api, ApiProblem, PATIENT_MS, Unreachable, type CallOf } from '../api/client';
import { useShop } from '../stores/shop';

const LOOK_EVERY_MS = 700;

/** A coupon's run on the controller: sent, followed, paused, stopped, settled. Nothing here waits in the browser: a beam is not fired later. */
export function useBurn(coupon: Ref<Coupon | null>, changed: (coupon: Coupon) => void) {
  const shop = useShop();
  const busy = ref(false);
  const fault = ref('');
  const burn = computed<Burn | null>(() => coupon.value?.burn ?? null);
  const follows = computed(() => ['running', 'paused', 'waiting', 'dropped'].includes(burn.value?.state ?? ''));
  let timer: ReturnType<typeof setTimeout> | null = null;

  type BurnCall = 'startBurn' | 'lookAtBurn' | 'actOnBurn' | 'settleBurn';
  async function ask<N extends BurnCall>(name: N, call: CallOf<N>): Promise<void> {
    try {
      changed(await api.call(name, call, { operator: shop.operatorId ?? '', withinMs: PATIENT_MS }));
      fault.value = '';
    } catch (error) {
      if (!(error instanceof ApiProblem || error instanceof Unreachable)) throw error;
      fault.value = error.message;
    }
  }
  async function pressed<N extends BurnCall>(name: N, call: CallOf<N>): Promise<void> {
    busy.value = true;
    await ask(name, call);
    busy.value = false;
  }

  const send = (how: Pick<StartBurn, 'laserOn' | 'air' | 'extraction'>) =>
    pressed('startBurn', {
      params: { id: coupon.value!.id },
      body: { id: uuid(), version: coupon.value!.version, ...how },
    });
  const act = (action: ControllerAction) => pressed('actOnBurn', { params: { id: burn.value!.id }, body: { action } });
  const settle = (as: 'partly' | 'resume') => pressed('settleBurn', { params: { id: burn.value!.id }, body: { as } });

  function follow(): void {
    timer ??= setTimeout(async () => {
      timer = null;
      if (!follows.value || !burn.value) return;
      if (!busy.value) await ask('lookAtBurn', { params: { id: burn.value.id } });
      follow();
    }, LOOK_EVERY_MS);
  }
  watch(follows, (now) => now && follow(), { immediate: true });
  onUnmounted(() => timer && clearTimeout(timer));

  return { burn, busy, fault, send, act, settle };
}
