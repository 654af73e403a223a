import { useElementVisibility } from '@vueuse/core';
import { ref, watchEffect, type Ref } from 'vue';
import { useNow } from '../stores/now';

/** Server time for something on screen: it stands still while its element is scrolled out of sight, so that many clocks cost no more than a few. */
export function useShownNow(element: Readonly<Ref<HTMLElement | null>>): Readonly<Ref<number>> {
  const time = useNow();
  const visible = useElementVisibility(element as Ref<HTMLElement | null>, { initialValue: true });
  const shown = ref(time.now);
  watchEffect(() => {
    if (visible.value) shown.value = time.now;
  });
  return shown;
}
