import type { Found } from '@unto/contract';
import { useLocalStorage } from '@vueuse/core';

const MOST = 8;

/** What was found and opened last on this browser, newest first. */
export const recent = useLocalStorage<Found[]>('unto-found', []);

export function remember(found: Found): void {
  recent.value = [found, ...recent.value.filter(({ to }) => to !== found.to)].slice(0, MOST);
}
