import type { Burn, ControllerAction, Coupon } from '@unto/contract';
import { v4 as uuid } from 'uuid';
import { computed, onUnmounted, ref, watch, type Ref } from 'vue';
import { ApiProblem, request, Unreachable } from '../api/client';
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

  async function ask(path: string, method: 'POST' | 'PUT', body?: object): Promise<void> {
    try {
      changed(await request<Coupon>(method, path, body, shop.operatorId ?? ''));
      fault.value = '';
    } catch (error) {
      if (!(error instanceof ApiProblem || error instanceof Unreachable)) throw error;
      fault.value = error.message;
    }
  }
  async function pressed(path: string, method: 'POST' | 'PUT', body: object): Promise<void> {
    busy.value = true;
    await ask(path, method, body);
    busy.value = false;
  }

  const send = (laserOn: 'M3' | 'M4') =>
    pressed(`/api/coupons/${coupon.value!.id}/burns`, 'POST', { id: uuid(), version: coupon.value!.version, laserOn });
  const act = (action: ControllerAction) => pressed(`/api/burns/${burn.value!.id}/act`, 'PUT', { action });
  const settle = (as: 'partly' | 'resume') => pressed(`/api/burns/${burn.value!.id}/settle`, 'PUT', { as });

  function follow(): void {
    timer ??= setTimeout(async () => {
      timer = null;
      if (!follows.value || !burn.value) return;
      if (!busy.value) await ask(`/api/burns/${burn.value.id}/look`, 'PUT');
      follow();
    }, LOOK_EVERY_MS);
  }
  watch(follows, (now) => now && follow(), { immediate: true });
  onUnmounted(() => timer && clearTimeout(timer));

  return { burn, busy, fault, send, act, settle };
}
