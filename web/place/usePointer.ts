import type { PlanePoint } from '@unto/core';
import { computed, ref } from 'vue';
import { useTicket } from '../stores/ticket';

/**
 * Places found with the pointer, moved to where the beam falls by the offset that was measured once for this head.
 * @param fresh whether places are about to be found; those of a kept reading were moved when they were kept
 */
export function usePointer(fresh: boolean) {
  const ticket = useTicket();
  const offset = computed(() => {
    const result = ticket.page?.pointer?.result;
    return result ? { xMm: result.x.value, yMm: result.y.value } : null;
  });
  const applied = ref(fresh && offset.value !== null);
  const toBeam = (xMm: number, yMm: number): PlanePoint =>
    applied.value && offset.value ? { xMm: xMm + offset.value.xMm, yMm: yMm + offset.value.yMm } : { xMm, yMm };
  return { offset, applied, toBeam };
}
