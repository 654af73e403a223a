import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import type { DeviceList, Operator, InventoryItem, InventoryKind, Workshop } from '@unto/contract';
import { request } from '../api/client';

/** Who is at the bench, the shop's settings and its stores: what nearly every view reads. */
export const useShop = defineStore('shop', () => {
  const operatorId = useLocalStorage<string | null>('unto-operator', null);
  const theme = useLocalStorage<'paper' | 'lamp'>('unto-theme', 'paper');
  const operators = ref<Operator[]>([]);
  const workshop = ref<Workshop | null>(null);
  const items = shallowRef<InventoryItem[]>([]);
  const devices = ref<DeviceList>({ scale: false, camera: false, controller: false });
  const ready = ref(false);
  const operator = computed(() => operators.value.find(({ id }) => id === operatorId.value) ?? null);

  async function load(): Promise<void> {
    const [people, shop, stores, tied] = await Promise.all([
      request<Operator[]>('GET', '/api/operators'),
      request<Workshop>('GET', '/api/workshop'),
      request<InventoryItem[]>('GET', '/api/inventory?retired=1'),
      request<DeviceList>('GET', '/api/devices'),
    ]);
    operators.value = people;
    workshop.value = shop;
    items.value = stores;
    devices.value = tied;
    ready.value = true;
  }

  function item<K extends InventoryKind>(kind: K, id: string | null | undefined): InventoryItem<K> | null {
    return (items.value.find((found) => found.id === id && found.kind === kind) as InventoryItem<K> | undefined) ?? null;
  }

  /** Items of a kind that are in use. */
  function inUse<K extends InventoryKind>(kind: K): InventoryItem<K>[] {
    return items.value.filter((found) => found.kind === kind && !found.retired) as InventoryItem<K>[];
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
    operator,
    workshop,
    items,
    devices,
    ready,
    load,
    item,
    inUse,
    nameOf,
    personOf,
  };
});
