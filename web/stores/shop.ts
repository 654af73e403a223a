import { useQuery } from '@pinia/colada';
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import type { InventoryItem, InventoryKind } from '@unto/contract';
import { api } from '../api/client';
import { KEYS } from '../api/keys';

const NO_DEVICES = { scale: false, camera: false, controller: false };

/** Who is at the bench, the shop's settings and what it keeps: what nearly every view reads. */
export const useShop = defineStore('shop', () => {
  const operatorId = useLocalStorage<string | null>('unto-operator', null);
  const theme = useLocalStorage<'paper' | 'lamp'>('unto-theme', 'paper');
  const people = useQuery({ key: KEYS.operators(), query: () => api.call('listOperators', {}) });
  const settings = useQuery({ key: KEYS.workshop(), query: () => api.call('workshop', {}) });
  const stock = useQuery({ key: KEYS.inventory(), query: () => api.all('listInventory', { retired: 1 }) });
  const tied = useQuery({ key: KEYS.devices(), query: () => api.call('devices', {}) });
  const queries = [people, settings, stock, tied] as const;

  const operators = computed(() => people.data.value ?? []);
  const workshop = computed(() => settings.data.value ?? null);
  const items = computed<readonly InventoryItem[]>(() => byName(stock.data.value ?? []));
  const devices = computed(() => tied.data.value ?? NO_DEVICES);
  const ready = computed(() => queries.every(({ data }) => data.value !== undefined));
  /** Nothing stands on the bench yet. */
  const mustBegin = computed(() => !items.value.some(({ kind, retired }) => kind === 'head' && !retired));
  /** Who works here now. */
  const atWork = computed(() => operators.value.filter(({ retired }) => !retired));
  const operator = computed(() => atWork.value.find(({ id }) => id === operatorId.value) ?? null);

  /** Asks for everything that is not there yet. @throws Unreachable */
  async function load(): Promise<void> {
    const states = await Promise.all(queries.map((query) => query.refresh(true)));
    states.forEach(({ status, error }) => {
      if (status === 'error') throw error;
    });
  }

  function item<K extends InventoryKind>(kind: K, id: string | null | undefined): InventoryItem<K> | null {
    return (
      (items.value.find((found) => found.id === id && found.kind === kind) as InventoryItem<K> | undefined) ?? null
    );
  }

  /** Items of a kind that are in use. */
  function inUse<K extends InventoryKind>(kind: K): InventoryItem<K>[] {
    return items.value.filter((found) => found.kind === kind && !found.retired) as InventoryItem<K>[];
  }

  /** The one item of a kind that is in use; where there are several, or none, somebody must choose: empty. */
  function onlyOne(kind: InventoryKind): string {
    const [first, ...others] = inUse(kind);
    return first && !others.length ? first.id : '';
  }

  function nameOf(id: string | null | undefined): string {
    return items.value.find((found) => found.id === id)?.body.name ?? '';
  }

  function personOf(id: string): string {
    return operators.value.find((person) => person.id === id)?.name ?? '';
  }

  return {
    operatorId,
    theme,
    operators,
    mustBegin,
    atWork,
    operator,
    workshop,
    items,
    devices,
    ready,
    load,
    item,
    inUse,
    onlyOne,
    nameOf,
    personOf,
  };
});

function byName(items: readonly InventoryItem[]): InventoryItem[] {
  return [...items].sort((a, b) => a.kind.localeCompare(b.kind) || a.body.name.localeCompare(b.body.name));
}
