import type { Clock } from '@unto/contract';
import { readClockAt } from '@unto/domain';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { request, Unreachable } from '../api/client';
import { ring } from '../ui/ring';
import { formatClock } from '../ui/format';
import { useNotices } from './notices';
import { useNow } from './now';
import { useOutbox } from './outbox';

const REFRESH_MS = 20_000;
const KEPT = 'unto-alerts';

/** What a clock says when its time is up. */
export const CLOCK_DONE: Record<Clock['kind'], string> = {
  shake: 'Shaken long enough',
  dry: 'Look for gloss',
  pot: 'The mix is past its time',
  cool: 'Feel whether it is cool',
};
export const CLOCK_NAMES: Record<Clock['kind'], string> = {
  shake: 'Shaking',
  dry: 'Drying',
  pot: 'Mix keeps',
  cool: 'Cooling',
};

/** All clocks that run in the shop, the next one in the page's title, and a sound or notification as one comes due. */
export const useClocks = defineStore('clocks', () => {
  const time = useNow();
  const running = shallowRef<readonly Clock[]>([]);
  const kept = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as { sound?: boolean; notify?: boolean };
  const sound = ref(kept.sound ?? false);
  const notify = ref(kept.notify ?? false);
  const told = new Set<string>();

  const leftOf = (clock: Clock) => readClockAt(clock, time.now).leftS;
  /** Seconds to the next one; 0 when one waits for somebody; null when none runs. */
  const next = computed(() => (running.value.length ? Math.min(...running.value.map(leftOf)) : null));
  const title = computed(() => (next.value === null ? '' : next.value > 0 ? formatClock(next.value) : 'Time is up'));

  async function load(): Promise<void> {
    try {
      const fresh = await request<Clock[]>('GET', '/api/clocks');
      // One that was due already when this page came to know of it is no news.
      fresh
        .filter((clock) => !running.value.some(({ id }) => id === clock.id) && leftOf(clock) === 0)
        .forEach(({ id }) => told.add(id));
      running.value = fresh;
    } catch (error) {
      if (!(error instanceof Unreachable)) throw error;
    }
  }

  function start(): void {
    void load();
    setInterval(() => void load(), REFRESH_MS);
    watch(() => useOutbox().sentCount, load);
    watch(() => time.now, tellDue);
    watch([sound, notify], () =>
      localStorage.setItem(KEPT, JSON.stringify({ sound: sound.value, notify: notify.value })),
    );
  }

  function tellDue(): void {
    for (const clock of running.value) {
      if (told.has(clock.id) || leftOf(clock) > 0) continue;
      told.add(clock.id);
      const words = `${CLOCK_DONE[clock.kind]}: ${clock.label}, ${clock.ticketTitle}`;
      useNotices().say(words);
      if (sound.value) ring();
      if (notify.value && 'Notification' in window && Notification.permission === 'granted') new Notification(words);
    }
  }

  /** Turns notifications on or off; the browser asks once, and only lets a page on this machine or over HTTPS ask. */
  async function askNotify(): Promise<void> {
    if (notify.value) {
      notify.value = false;
      return;
    }
    const may = 'Notification' in window && window.isSecureContext ? await Notification.requestPermission() : 'denied';
    notify.value = may === 'granted';
    if (may !== 'granted')
      useNotices().say('This browser shows no notifications for this page; sound and title tell instead.', 'danger');
  }

  return { running, sound, notify, next, title, load, start, askNotify };
});
