import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { addressOf, ROUTES, type Route } from '@unto/contract';
import { ApiProblem, ANSWER_WITHIN_MS, PATIENT_MS, sent, Unreachable, type Answer, type CallOf } from '../api/client';
import { TOUCHES, type WriteName } from '../api/keys';
import { outboxShelf, type Waiting } from './outbox-shelf';
import { useShop } from './shop';
import { useTouch } from './useTouch';

const RETRY_MS = 3000;

/**
 * All writes go through here. When the server is away they wait in the browser, one record an entry, in order, across reloads and
 * tabs; a later one that mentions the record of a refused one is held with it.
 */
export const useOutbox = defineStore('outbox', () => {
  const { touch } = useTouch();
  const shelf = outboxShelf();
  const queue = ref<Waiting[]>([]);
  const loaded = ref(false);
  const waiting = computed(() => queue.value.filter(({ refused }) => !refused));
  const refused = computed(() => queue.value.filter((entry) => entry.refused));

  async function load(): Promise<void> {
    await readShelf();
    loaded.value = true;
    shelf.onChange(() => void readShelf());
    void drain();
  }

  /** Another tab may have laid something on the shelf, or taken it off. */
  async function readShelf(): Promise<void> {
    queue.value = await shelf.all();
  }

  /** Sends a write. Returns its answer, or null when it waits. @throws ApiProblem when refused */
  async function send<N extends WriteName>(name: N, call: CallOf<N>, label: string): Promise<Answer<N> | null> {
    const entry = entryOf(name, call, label);
    if (waiting.value.length === 0) {
      try {
        const answer = (await deliver(entry)) as Answer<N>;
        await touch(entry.touches);
        return answer;
      } catch (error) {
        if (!(error instanceof Unreachable)) throw error;
      }
    }
    queue.value = [...queue.value, entry];
    await shelf.put(entry);
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

  /** Sends what waits, one tab at a time. */
  async function drain(): Promise<void> {
    await shelf.alone(async () => {
      await readShelf();
      for (const entry of [...waiting.value]) {
        if (dependsOnRefused(entry)) continue;
        try {
          await deliver(entry);
          await take(entry.key);
          await touch(entry.touches);
        } catch (error) {
          if (!(error instanceof ApiProblem)) {
            schedule();
            break;
          }
          const held = { ...entry, refused: error.problem };
          queue.value = queue.value.map((other) => (other.key === entry.key ? held : other));
          await shelf.put(held);
        }
      }
    });
  }

  async function take(key: string): Promise<void> {
    queue.value = queue.value.filter((entry) => entry.key !== key);
    await shelf.remove(key);
  }

  function dependsOnRefused(entry: Waiting): boolean {
    const text = entry.path + JSON.stringify(entry.body);
    return refused.value.some((earlier) => {
      const id = (earlier.body as { id?: string }).id;
      return earlier.key !== entry.key && id !== undefined && text.includes(id);
    });
  }

  async function drop(key: string): Promise<void> {
    await take(key);
    void drain();
  }

  return { queue, waiting, refused, loaded, load, send, drain, drop };
});

let made = 0;

function entryOf<N extends WriteName>(name: N, call: CallOf<N>, label: string): Waiting {
  const route: Route = ROUTES[name];
  const { params, body } = call as { params?: Record<string, string>; body?: unknown };
  made += 1;
  return {
    // In the order they were made, also of two tabs within one millisecond.
    key: `${String(Date.now()).padStart(15, '0')}-${String(made).padStart(6, '0')}-${Math.random().toString(36).slice(2, 8)}`,
    request: crypto.randomUUID(),
    method: route.method === 'put' ? 'PUT' : 'POST',
    path: addressOf(route, params),
    body: body === undefined ? undefined : JSON.parse(JSON.stringify(body)),
    operator: useShop().operatorId ?? '',
    label,
    touches: TOUCHES[name]({ params, body }),
    ...(route.patient ? { withinMs: PATIENT_MS } : {}),
    refused: null,
  };
}

async function deliver({ key, method, path, body, operator, request, withinMs }: Waiting): Promise<unknown> {
  const response = await sent(path, {
    method,
    headers: {
      'content-type': 'application/json',
      ...(operator ? { 'x-unto-operator': operator } : {}),
      ...(request && method === 'PUT' ? { 'x-unto-request': request } : {}),
      // By this clock alone, however wrong it is: what waited says for how long.
      'x-unto-ago': String(Math.max(0, Date.now() - Number(key.split('-')[0]))),
    },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    signal: AbortSignal.timeout(withinMs ?? ANSWER_WITHIN_MS),
  });
  return response.json();
}
