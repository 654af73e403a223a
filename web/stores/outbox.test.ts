import { PiniaColada, useQueryCache } from '@pinia/colada';
import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { createApp } from 'vue';
import { ApiProblem } from '../api/client';
import { useOutbox } from './outbox';
import type { Waiting } from './outbox-shelf';

/** The browser's storage, shared by its tabs. */
const kept = new Map<string, unknown>();
vi.mock('idb-keyval', () => ({
  createStore: () => 'entries',
  get: async (key: string) => structuredClone(kept.get(key)),
  set: async (key: string, value: unknown) => void kept.set(key, structuredClone(value)),
  del: async (key: string) => void kept.delete(key),
  entries: async () => structuredClone([...kept].filter(([key]) => /^\d+-/.test(key))),
}));
vi.mock('./shop', () => ({ useShop: () => ({ operatorId: 'ines' }) }));

/** A server that can be away, be silent, and refuse bodies that say so. */
const server = { away: false, silent: false, heard: [] as { path: string; body: any; operator: string | null }[] };
/** A tab of its own on the same storage. */
function openTab() {
  const pinia = createPinia();
  createApp({}).use(pinia).use(PiniaColada, {});
  setActivePinia(pinia);
  return useOutbox(pinia);
}
beforeEach(() => {
  kept.clear();
  Object.assign(server, { away: false, silent: false, heard: [] });
  vi.useFakeTimers();
  vi.stubGlobal('fetch', async (path: string, init: RequestInit) => {
    if (server.away) throw new TypeError('connection refused');
    if (server.silent)
      return new Promise((_, reject) => init.signal!.addEventListener('abort', () => reject(init.signal!.reason)));
    const body = JSON.parse(String(init.body));
    server.heard.push({ path, body, operator: new Headers(init.headers).get('x-unto-operator') });
    if (body.note === 'bad')
      return new Response(JSON.stringify({ type: 'invalid-input', title: '', status: 422, detail: 'Not like this.' }), {
        status: 422,
      });
    return new Response(JSON.stringify({ ok: body.id }), { status: 200 });
  });
  // happy-dom's own timers do not follow the faked ones.
  vi.spyOn(AbortSignal, 'timeout').mockImplementation((ms) => {
    const controller = new AbortController();
    setTimeout(() => controller.abort(new DOMException('too late', 'TimeoutError')), ms);
    return controller.signal;
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

const run = (id: string, note = '') => ({ body: { id, ticketId: 't', note } as never });
const waitingIn = (outbox: ReturnType<typeof useOutbox>) => outbox.waiting.map(({ label }) => label);

describe('outbox', () => {
  it('sends at once while the server answers, naming the operator, and has what it changed asked again', async () => {
    const outbox = openTab();
    const invalidated = vi.spyOn(useQueryCache(), 'invalidateQueries');
    expect(await outbox.send('createRun', run('a'), 'a run')).toEqual({ ok: 'a' });
    expect(server.heard).toEqual([{ path: '/api/runs', body: { id: 'a', ticketId: 't', note: '' }, operator: 'ines' }]);
    expect(outbox.queue).toEqual([]);
    expect(invalidated.mock.calls.map(([filter]) => filter?.key)).toContainEqual(['ticket', 't']);
  });

  it('hands a refusal straight back to the form', async () => {
    const outbox = openTab();
    await expect(outbox.send('createRun', run('a', 'bad'), 'a run')).rejects.toThrow(ApiProblem);
    expect(outbox.queue).toEqual([]);
  });

  it('keeps writes in order while the server is away, also those made after it is back', async () => {
    const outbox = openTab();
    server.away = true;
    expect(await outbox.send('createRun', run('a'), 'first')).toBeNull();
    server.away = false;
    expect(await outbox.send('createRun', run('b'), 'second')).toBeNull();
    expect(waitingIn(outbox)).toEqual(['first', 'second']);
    await vi.advanceTimersByTimeAsync(3100);
    expect(server.heard.map(({ body }) => body.id)).toEqual(['a', 'b']);
    expect(outbox.queue).toEqual([]);
    expect(kept.size).toBe(0);
  });

  it('takes a server that says nothing for ten seconds as away, and goes on trying', async () => {
    const outbox = openTab();
    server.silent = true;
    const answer = outbox.send('endTimer', { params: { id: '1' }, body: { outcome: 'passed' } }, 'gloss gone');
    await vi.advanceTimersByTimeAsync(9900);
    expect(outbox.waiting).toHaveLength(0);
    await vi.advanceTimersByTimeAsync(200);
    expect(await answer).toBeNull();
    expect(waitingIn(outbox)).toEqual(['gloss gone']);
    server.silent = false;
    await vi.advanceTimersByTimeAsync(3100);
    expect(server.heard.map(({ path }) => path)).toEqual(['/api/timers/1/end']);
    expect(outbox.waiting).toHaveLength(0);
  });

  it('finds again after a reload what was waiting', async () => {
    server.away = true;
    await openTab().send('createRun', run('a'), 'first');
    server.away = false;
    await openTab().load();
    await vi.advanceTimersByTimeAsync(10);
    expect(server.heard.map(({ body }) => body.id)).toContain('a');
  });

  it('two tabs lose nothing of each other’s', async () => {
    server.away = true;
    const [one, other] = [openTab(), openTab()];
    await one.load();
    await other.load();
    await one.send('createRun', run('a'), 'of one tab');
    await other.send('createRun', run('b'), 'of the other');
    await one.send('createRun', run('c'), 'of the first again');
    // Both are closed; a third finds all three, in order.
    const third = openTab();
    await third.load();
    expect(waitingIn(third)).toEqual(['of one tab', 'of the other', 'of the first again']);
    server.away = false;
    await vi.advanceTimersByTimeAsync(3100);
    expect(new Set(server.heard.map(({ body }) => body.id))).toEqual(new Set(['a', 'b', 'c']));
    expect(kept.size).toBe(0);
  });

  it('brings what an earlier release left waiting in one list, under the addresses of today', async () => {
    kept.set('unto-outbox', [
      {
        key: 'x',
        method: 'POST',
        path: '/api/tickets/t/clocks',
        body: { id: 'c' },
        operator: 'ines',
        label: 'old',
        refused: null,
      },
    ]);
    await openTab().load();
    await vi.advanceTimersByTimeAsync(10);
    expect(server.heard.map(({ path }) => path)).toEqual(['/api/tickets/t/timers']);
    expect(kept.size).toBe(0);
  });

  it('holds what mentions a refused record, sends the rest, and lets go on request', async () => {
    const outbox = openTab();
    server.away = true;
    await outbox.send('createRun', run('run-1', 'bad'), 'a run');
    await outbox.send('createCleaning', { params: { id: 'run-1' }, body: { id: 'clean-1' } as never }, 'its cleaning');
    await outbox.send('createTicket', { body: { id: 'other' } as never }, 'another ticket');
    server.away = false;
    await vi.advanceTimersByTimeAsync(3100);
    expect(server.heard.map(({ body }) => body.id)).toEqual(['run-1', 'other']);
    expect(outbox.refused.map(({ label }: Waiting) => label)).toEqual(['a run']);
    expect(waitingIn(outbox)).toEqual(['its cleaning']);
    await outbox.drop(outbox.refused[0]!.key);
    await vi.advanceTimersByTimeAsync(10);
    expect(server.heard.at(-1)!.body.id).toBe('clean-1');
  });
});
