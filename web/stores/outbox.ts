import { get, set } from 'idb-keyval';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import type { Problem } from '@unto/contract';
import { ApiProblem, request, Unreachable, type Method } from '../api/client';
import { useShop } from './shop';

/** A write that waits in the browser, or one that was refused when it was sent at last. */
export interface Waiting {
  readonly key: string;
  readonly method: Exclude<Method, 'GET'>;
  readonly path: string;
  readonly body: unknown;
  readonly operator: string;
  readonly label: string;
  readonly refused: Problem | null;
}

const STORE_KEY = 'unto-outbox';
const RETRY_MS = 3000;

/**
 * All writes go through here. When the server is away they wait in the browser, in order, across reloads; a later one that
 * mentions the record of a refused one is held with it.
 */
export const useOutbox = defineStore('outbox', () => {
  const queue = ref<Waiting[]>([]);
  const loaded = ref(false);
  const sentCount = ref(0);
  const waiting = computed(() => queue.value.filter(({ refused }) => !refused));
  const refused = computed(() => queue.value.filter((entry) => entry.refused));

  async function load(): Promise<void> {
    queue.value = (await get<Waiting[]>(STORE_KEY).catch(() => undefined)) ?? [];
    loaded.value = true;
    void drain();
  }

  async function keep(): Promise<void> {
    await set(STORE_KEY, JSON.parse(JSON.stringify(queue.value))).catch(() => undefined);
  }

  /** Sends a write. Returns its answer, or null when it waits. @throws ApiProblem when refused */
  async function send<T>(method: Waiting['method'], path: string, body: unknown, label: string): Promise<T | null> {
    const operator = useShop().operatorId ?? '';
    if (waiting.value.length === 0) {
      try {
        const answer = await request<T>(method, path, body, operator);
        sentCount.value += 1;
        return answer;
      } catch (error) {
        if (!(error instanceof Unreachable)) throw error;
      }
    }
    const key = `${Date.now()}-${queue.value.length}`;
    queue.value.push({ key, method, path, body, operator, label, refused: null });
    await keep();
    schedule();
    return null;
  }

  let timer: ReturnType<typeof setTimeout> | null = null;
  function schedule(): void {
    timer ??= setTimeout(() => {
      timer = null;
      void drain();
    }, RETRY_MS);
  }

  async function drain(): Promise<void> {
    for (const entry of [...waiting.value]) {
      if (dependsOnRefused(entry)) continue;
      try {
        await request(entry.method, entry.path, entry.body, entry.operator);
        queue.value = queue.value.filter(({ key }) => key !== entry.key);
        sentCount.value += 1;
      } catch (error) {
        if (!(error instanceof ApiProblem)) {
          schedule();
          break;
        }
        queue.value = queue.value.map((other) =>
          other.key === entry.key ? { ...other, refused: error.problem } : other,
        );
      }
      await keep();
    }
  }

  function dependsOnRefused(entry: Waiting): boolean {
    const text = entry.path + JSON.stringify(entry.body);
    return refused.value.some((earlier) => {
      const id = (earlier.body as { id?: string }).id;
      return earlier.key !== entry.key && id !== undefined && text.includes(id);
    });
  }

  async function drop(key: string): Promise<void> {
    queue.value = queue.value.filter((entry) => entry.key !== key);
    await keep();
    void drain();
  }

  return { queue, waiting, refused, loaded, sentCount, load, send, drain, drop };
});
