import type { Timer } from '@unto/contract';
import { readTimerAt } from '@unto/domain';
import { defineStore } from 'pinia';
import { useQuery } from '@pinia/colada';
import { useIntervalFn } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { ring } from './ring';
import { formatTimer } from '../ui/format';
import { useNotices } from '../stores/notices';
import { useNow } from '../stores/now';

const REFRESH_MS = 20_000;
const KEPT = 'unto-alerts';

/** What a timer says when its time is up. */
export const TIMER_DONE: Record<Timer['kind'], string> = {
  shake: 'Shaken long enough',
  dry: 'Look for gloss',
  pot: 'The mix is past its time',
  cool: 'Feel whether it is cool',
};
export const TIMER_NAMES: Record<Timer['kind'], string> = {
  shake: 'Shaking',
  dry: 'Drying',
  pot: 'Mix keeps',
  cool: 'Cooling',
};

/** All timers that run in the shop, the next one in the page's title, and a sound or notification as one comes due. */
export const useTimers = defineStore('timers', () => {
  const time = useNow();
  const { data, refresh } = useQuery({ key: KEYS.timers(), query: () => api.call('listTimers', {}) });
  const running = computed<readonly Timer[]>(() => data.value ?? []);
  const kept = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as { sound?: boolean; notify?: boolean };
  const sound = ref(kept.sound ?? false);
  const notify = ref(kept.notify ?? false);
  const told = new Set<string>();

  const leftOf = (timer: Timer) => readTimerAt(timer, time.now).leftS;
  /** Seconds to the next one; 0 when one waits for somebody; null when none runs. */
  const next = computed(() => (running.value.length ? Math.min(...running.value.map(leftOf)) : null));
  const title = computed(() => (next.value === null ? '' : next.value > 0 ? formatTimer(next.value) : 'Time is up'));

  // One that was due already when this page came to know of it is no news.
  watch(
    running,
    (fresh, before) =>
      fresh
        .filter((timer) => !before?.some(({ id }) => id === timer.id) && leftOf(timer) === 0)
        .forEach(({ id }) => told.add(id)),
    { immediate: true, flush: 'sync' },
  );

  function start(): void {
    useIntervalFn(() => void refresh(), REFRESH_MS);
    watch(() => time.now, tellDue);
    watch([sound, notify], () =>
      localStorage.setItem(KEPT, JSON.stringify({ sound: sound.value, notify: notify.value })),
    );
  }

  function tellDue(): void {
    for (const timer of running.value) {
      if (told.has(timer.id) || leftOf(timer) > 0) continue;
      told.add(timer.id);
      const words = `${TIMER_DONE[timer.kind]}: ${timer.label}, ${timer.ticketTitle}`;
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

  return { running, sound, notify, next, title, start, askNotify };
});
