import { enableAutoUnmount, flushPromises, mount, type VueWrapper } from '@vue/test-utils';
import { CORE_READING, CRITERIA } from '@unto/core';
import { PiniaColada, useQueryCache } from '@pinia/colada';
import {
  LATER_FIELDS,
  type DeviceList,
  type InventoryItem,
  type InventoryKind,
  type Operator,
  type Workshop,
} from '@unto/contract';
import { createPinia, setActivePinia } from 'pinia';
import PrimeVue from 'primevue/config';
import Select from 'primevue/select';
import { afterEach, vi } from 'vitest';
import { createApp, shallowRef, type Component } from 'vue';
import { KEYS } from '../api/keys';
import { createMemoryHistory, createRouter, type Router } from 'vue-router';
import { useShop } from '../stores/shop';
import { unitsOf } from '../ui/useUnits';

// What asks again and again would go on asking after its test, when there is no page any more.
enableAutoUnmount(afterEach);

/** A request the page made. */
export interface Heard {
  readonly method: string;
  readonly path: string;
  readonly body: any;
}

/** A server that answers by path and remembers what it heard; what is not named answers an empty list. */
export function fakeServer(answers: Record<string, unknown> = {}) {
  const heard: Heard[] = [];
  const refusals: Record<string, object> = {};
  vi.stubGlobal('fetch', async (path: string, init: RequestInit = {}) => {
    const method = init.method ?? 'GET';
    heard.push({ method, path, body: typeof init.body === 'string' ? JSON.parse(init.body) : init.body });
    const refusal = refusals[`${method} ${path}`];
    if (refusal) return new Response(JSON.stringify(refusal), { status: (refusal as { status: number }).status });
    const answer = answers[`${method} ${path}`] ?? answers[path] ?? [];
    return new Response(JSON.stringify(typeof answer === 'function' ? answer() : answer), { status: 200 });
  });
  return { heard, answers, refusals, posts: () => heard.filter(({ method }) => method !== 'GET') };
}

export const SHOP = {
  version: 1,
  name: 'Quillmere',
  currency: 'CR',
  labourMinorPerMinute: 40,
  bound: 0.8,
  tolerancePower: 0.05,
  toleranceFocusMm: 0.3,
  firstPieceStop: true,
  speedUnit: 'mm/s',
  intervalUnit: 'mm',
  lengthUnit: 'mm',
  filmUnit: 'µm',
  massUnit: 'g',
  timeZone: 'UTC',
} as Workshop;

/** Quantities written as the core counts them. */
export const inCoreUnits = unitsOf(shallowRef(CORE_READING));

/** A panel that reads as the core counts. */
const PANEL = { panelPower: '%', panelSpeed: 'mm/s', dialTable: [] };

/** A store item with a body of its kind; only what a test looks at need be named. */
export function item<K extends InventoryKind>(kind: K, id: string, body: object = {}): InventoryItem<K> {
  return {
    id,
    kind,
    version: 1,
    retired: false,
    revisionId: `${id}-r1`,
    revision: 1,
    body: { name: id, ...LATER_FIELDS[kind], ...(kind === 'machine' ? PANEL : {}), ...body },
    changedAt: '2026-03-01T09:00:00.000Z',
    changedBy: 'ines',
  } as InventoryItem<K>;
}

export const EVEN = Object.fromEntries(CRITERIA.map((criterion) => [criterion, 5]));

const COLADA = { queryOptions: { staleTime: 60_000, refetchOnWindowFocus: false } } as const;

/** What the page already knows of its shop, as if it had asked. */
export function stock(known: {
  operators?: readonly Operator[];
  items?: readonly InventoryItem[];
  devices?: Partial<DeviceList>;
}): void {
  const cache = useQueryCache();
  const {
    operators = [{ id: 'ines', name: 'Ines Varga', role: 'lead', version: 1, retired: false }],
    items,
    devices,
  } = known;
  cache.setQueryData(KEYS.operators(), operators);
  cache.setQueryData(KEYS.workshop(), SHOP);
  cache.setQueryData(KEYS.inventory(), [...(items ?? [])]);
  cache.setQueryData(KEYS.devices(), { scale: false, camera: false, controller: false, ...devices });
}

/** Mounts a component on a bench with these store items, an operator and a router in memory. */
export async function mountInShop(
  component: Component,
  options: {
    props?: object;
    operators?: readonly Operator[];
    items?: readonly InventoryItem[];
    devices?: Partial<DeviceList>;
    path?: string;
    attach?: boolean;
  } = {},
): Promise<{ page: VueWrapper<any>; router: Router; shop: ReturnType<typeof useShop> }> {
  const pinia = createPinia();
  setActivePinia(pinia);
  localStorage.clear();
  const app = createApp({});
  app.use(pinia).use(PiniaColada, COLADA);
  const { items = [], devices, operators } = options;
  stock({ items, ...(devices ? { devices } : {}), ...(operators ? { operators } : {}) });
  const shop = useShop();
  shop.operatorId = 'ines';
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/:rest(.*)*', component: { template: '<p />' } }],
  });
  await router.push(options.path ?? '/');
  const page = mount(component, {
    props: (options.props ?? {}) as never,
    global: { plugins: [pinia, [PiniaColada, COLADA], router, PrimeVue], stubs: { teleport: true } },
    ...(options.attach ? { attachTo: document.body } : {}),
  });
  await flushPromises();
  return { page, router, shop };
}

/** What stands under a test id. */
/** Takes a value in a field to choose from. */
export async function choose(page: VueWrapper<any>, testId: string, value: unknown): Promise<void> {
  const field = page.findAllComponents(Select).find((found) => found.html().includes(`data-test-id="${testId}"`))!;
  field.vm.$emit('update:modelValue', value);
  await flushPromises();
}

export const by = (id: string) => `[data-test-id="${id}"]`;
