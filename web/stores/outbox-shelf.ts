import { createStore, del, entries, get, set } from 'idb-keyval';
import type { Problem } from '@unto/contract';
import type { Key } from '../api/keys';

/** A write that waits in the browser, or one that was refused when it was sent at last. */
export interface Waiting {
  readonly key: string;
  /** By which the server knows a change that is sent again; entries of earlier releases have none. */
  readonly request?: string | undefined;
  readonly method: 'POST' | 'PUT';
  readonly path: string;
  readonly body: unknown;
  readonly operator: string;
  readonly label: string;
  /** What is asked again once it is kept. */
  readonly touches: readonly Key[];
  /** How long an answer is waited for, ms; as for others where it does not say. */
  readonly withinMs?: number | undefined;
  readonly refused: Problem | null;
}

/** Where releases before kept all entries in one list. */
const OLD_LIST = 'unto-outbox';
/** Addresses that are called otherwise since. */
const RENAMED: readonly (readonly [RegExp, string])[] = [
  [/^\/api\/stores\b/, '/api/inventory'],
  [/\/clocks\b/, '/timers'],
  [/\/climb-steps\b/, '/test-steps'],
  [/^\/api\/practice\b/, '/api/stated-settings'],
];

/** What waits, one record an entry, so that two tabs never write over each other's. A browser without the storage keeps it in memory. */
export function outboxShelf() {
  const shelf = createStore('unto-outbox', 'entries');
  const tabs = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('unto-outbox');
  const memory = new Map<string, Waiting>();

  async function all(): Promise<Waiting[]> {
    await bringOldList();
    const kept = await entries<string, Waiting>(shelf).catch(() => [...memory]);
    return kept.map(([, entry]) => entry).sort((a, b) => (a.key < b.key ? -1 : 1));
  }

  async function bringOldList(): Promise<void> {
    const old = await get<Waiting[]>(OLD_LIST).catch(() => undefined);
    if (!old) return;
    for (const [i, entry] of old.entries()) {
      const path = RENAMED.reduce((address, [was, is]) => address.replace(was, is), entry.path);
      await put({ ...entry, key: `0-${String(i).padStart(6, '0')}`, path, touches: [] });
    }
    await del(OLD_LIST);
  }

  async function put(entry: Waiting): Promise<void> {
    const plain = JSON.parse(JSON.stringify(entry)) as Waiting;
    await set(entry.key, plain, shelf).catch(() => memory.set(entry.key, plain));
    tabs?.postMessage('changed');
  }

  async function remove(key: string): Promise<void> {
    memory.delete(key);
    await del(key, shelf).catch(() => undefined);
    tabs?.postMessage('changed');
  }

  /** Runs work while no other tab does, where the browser can tell. */
  async function alone(work: () => Promise<void>): Promise<void> {
    if (typeof navigator !== 'undefined' && navigator.locks) await navigator.locks.request('unto-outbox', work);
    else await work();
  }

  function onChange(listener: () => void): void {
    tabs?.addEventListener('message', listener);
  }

  return { all, put, remove, alone, onChange };
}
