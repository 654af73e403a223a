import { defineStore } from 'pinia';
import { ref } from 'vue';

/** Short words at the foot of the page: what was kept, what was refused. */
export const useNotices = defineStore('notices', () => {
  const notice = ref<{ text: string; tone: 'plain' | 'danger'; undo?: () => void } | null>(null);
  let timer: ReturnType<typeof setTimeout> | undefined;

  function say(text: string, tone: 'plain' | 'danger' = 'plain', undo?: () => void): void {
    notice.value = undo ? { text, tone, undo } : { text, tone };
    clearTimeout(timer);
    timer = setTimeout(() => (notice.value = null), tone === 'danger' ? 12_000 : 6000);
  }

  function dismiss(): void {
    notice.value = null;
  }

  return { notice, say, dismiss };
});
