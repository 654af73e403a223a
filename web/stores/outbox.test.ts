import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiProblem } from '../api/client';
import { useOutbox, type Waiting } from './outbox';

const kept = new Map<string, unknown>();
vi.mock('idb-keyval', () => ({
  get: async (key: string) => structuredClone(kept.get(key)),
  set: async (key: string, value: unknown) => void kept.set(key, structuredClone(value)),
}));
vi.mock('./shop', () => ({ useShop: () => ({ operatorId: 'ines' }) }));

/** A server that can be away, and refuses bodies that say so. */
const server = { away: false, heard: [] as { path: string; body: any; operator: string | null }[] };
beforeEach(() => {
  kept.clear();
  server.away = false;
  server.heard = [];
  setActivePinia(createPinia());
  vi.useFakeTimers();
  vi.stubGlobal('fetch', async (path: string, init: RequestInit) => {
    if (server.away) throw new TypeError('connection refused');
    const body = JSON.parse(String(init.body));
    server.heard.push({ path, body, operator: new Headers(init.headers).get('x-unto-operator') });
    if (body.bad)
      return new Response(JSON.stringify({ type: 'invalid-input', title: '', status: 422, detail: 'Not like this.' }), {
        status: 422,
      });
    return new Response(JSON.stringify({ ok: body.id }), { status: 200 });
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('outbox', () => {
  it('sends at once while the server answers, naming the operator', async () => {
    const outbox = useOutbox();
    expect(await outbox.send('POST', '/api/runs', { id: 'a' }, 'a run')).toEqual({ ok: 'a' });
    expect(server.heard).toEqual([{ path: '/api/runs', body: { id: 'a' }, operator: 'ines' }]);
    expect([outbox.queue.length, outbox.sentCount]).toEqual([0, 1]);
  });

  it('hands a refusal straight back to the form', async () => {
    await expect(useOutbox().send('POST', '/api/runs', { id: 'a', bad: true }, 'a run')).rejects.toThrow(ApiProblem);
    expect(useOutbox().queue).toEqual([]);
  });

  it('keeps writes in order while the server is away, also those made after it is back', async () => {
    const outbox = useOutbox();
    server.away = true;
    expect(await outbox.send('POST', '/api/runs', { id: 'a' }, 'first')).toBeNull();
    server.away = false;
    expect(await outbox.send('POST', '/api/runs', { id: 'b' }, 'second')).toBeNull();
    expect(outbox.waiting.map(({ label }) => label)).toEqual(['first', 'second']);
    await vi.advanceTimersByTimeAsync(3100);
    expect(server.heard.map(({ body }) => body.id)).toEqual(['a', 'b']);
    expect(outbox.queue).toEqual([]);
  });

  it('goes on trying as long as the server stays away', async () => {
    const outbox = useOutbox();
    server.away = true;
    await outbox.send('PUT', '/api/timers/1/end', { outcome: 'passed' }, 'gloss gone');
    await vi.advanceTimersByTimeAsync(9500);
    expect(outbox.waiting).toHaveLength(1);
    server.away = false;
    await vi.advanceTimersByTimeAsync(3100);
    expect(outbox.waiting).toHaveLength(0);
  });

  it('finds again after a reload what was waiting', async () => {
    server.away = true;
    await useOutbox().send('POST', '/api/runs', { id: 'a' }, 'first');
    setActivePinia(createPinia());
    server.away = false;
    const outbox = useOutbox();
    await outbox.load();
    await vi.advanceTimersByTimeAsync(10);
    expect(server.heard.map(({ body }) => body.id)).toEqual(['a']);
  });

  it('holds what mentions a refused record, sends the rest, and lets go on request', async () => {
    const outbox = useOutbox();
    server.away = true;
    await outbox.send('POST', '/api/runs', { id: 'run-1', bad: true }, 'a run');
    await outbox.send('POST', '/api/runs/run-1/cleanings', { id: 'clean-1' }, 'its cleaning');
    await outbox.send('POST', '/api/tickets', { id: 'other' }, 'another ticket');
    server.away = false;
    await vi.advanceTimersByTimeAsync(3100);
    expect(server.heard.map(({ body }) => body.id)).toEqual(['run-1', 'other']);
    expect(outbox.refused.map(({ label }: Waiting) => label)).toEqual(['a run']);
    expect(outbox.waiting.map(({ label }) => label)).toEqual(['its cleaning']);
    await outbox.drop(outbox.refused[0]!.key);
    await vi.advanceTimersByTimeAsync(10);
    expect(server.heard.at(-1)!.body.id).toBe('clean-1');
  });
});
