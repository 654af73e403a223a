import { onUnmounted } from 'vue';

/** Whether the page that asked is still the one that is looked at: a late answer never moves one that somebody has left. */
export function useStillHere(): () => boolean {
  let here = true;
  onUnmounted(() => (here = false));
  return () => here;
}
