import { useQueryCache } from '@pinia/colada';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api, onContact } from '../api/client';

/** Asked again this often while nobody answers. */
const AGAIN_MS = 3000;

/** Whether the server answers, and when it did last; what is on screen stays, and is asked anew once it answers again. */
export const useReach = defineStore('reach', () => {
  const away = ref(false);
  /** When it answered last, ms. */
  const heardAt = ref(Date.now());
  const cache = useQueryCache();
  let timer: ReturnType<typeof setTimeout> | null = null;

  function start(): void {
    onContact((answers) => {
      if (answers) {
        heardAt.value = Date.now();
        if (away.value) void cache.invalidateQueries();
      }
      away.value = !answers;
      if (!answers) again();
    });
  }

  function again(): void {
    timer ??= setTimeout(() => {
      timer = null;
      void api.call('workshop', {}).catch(() => undefined);
    }, AGAIN_MS);
  }

  return { away, heardAt, start };
});
