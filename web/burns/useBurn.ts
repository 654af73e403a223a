import { BURN_LIVE, BURN_UNFIRED, type Burn } from '@unto/contract';
import { computed, onUnmounted, ref, watch } from 'vue';
import { api, ApiProblem, Unreachable, type CallOf } from '../api/client';
import type { WriteName } from '../api/keys';
import { useShop } from '../stores/shop';
import { useTouch } from '../stores/useTouch';

const LOOK_EVERY_MS = 700;

/** How a run on the controller is looked at while it is under way, and what is asked again when it has ended. */
export interface BurnWatch {
  look(): Promise<unknown>;
  ended(): Promise<unknown>;
}

/**
 * A run on the controller: sent, followed, paused, stopped, settled. Nothing here waits in the browser: a beam is not fired later.
 * @param newest the newest run there is
 */
export function useBurn(newest: () => Burn | null, { look, ended }: BurnWatch) {
  const shop = useShop();
  const { touchedBy } = useTouch();
  const busy = ref(false);
  const fault = ref('');
  /** The newest run that left anything to see; one that was not sent, or burnt nothing, leaves everything as it was. */
  const burn = computed<Burn | null>(() => {
    const found = newest();
    return found && BURN_UNFIRED.includes(found.state) ? null : found;
  });
  const notSent = computed(() => {
    const found = newest();
    return found?.state === 'not sent' ? found.fault : '';
  });
  const follows = computed(() => burn.value !== null && BURN_LIVE.includes(burn.value.state));
  let timer: ReturnType<typeof setTimeout> | null = null;

  async function asked(work: () => Promise<unknown>): Promise<void> {
    try {
      await work();
      fault.value = '';
    } catch (error) {
      if (!(error instanceof ApiProblem || error instanceof Unreachable)) throw error;
      fault.value = error.message;
    }
  }
  /** Somebody pressed: asked of the server at once or not at all. @param changed hears the answer */
  async function pressed<N extends WriteName>(
    name: N,
    call: CallOf<N>,
    changed: (answer: Awaited<ReturnType<typeof api.call<N>>>) => void = () => {},
  ): Promise<void> {
    busy.value = true;
    await asked(async () => changed(await api.call(name, call, { operator: shop.operatorId ?? '' })));
    await touchedBy(name, call);
    busy.value = false;
  }

  function follow(): void {
    timer ??= setTimeout(async () => {
      timer = null;
      if (!follows.value) return;
      if (!busy.value) await asked(look);
      if (!follows.value) await ended();
      follow();
    }, LOOK_EVERY_MS);
  }
  watch(follows, (now) => now && follow(), { immediate: true });
  onUnmounted(() => timer && clearTimeout(timer));

  return { burn, notSent, busy, fault, follows, pressed };
}
