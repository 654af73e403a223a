import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PROBLEMS, ROUTES } from '@unto/contract';
import { fillInventory, openTestRig, ticketBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

describe('the API as a whole', () => {
  it('describes exactly its routes', async () => {
    const { body } = await rig.call('GET', '/api/openapi.json');
    const listed = Object.entries<Record<string, { operationId: string }>>(body.paths).flatMap(([path, methods]) =>
      Object.entries(methods).map(([method, { operationId }]) => `${method} ${path} ${operationId}`),
    );
    const routes = Object.entries(ROUTES).map(
      ([name, { method, path }]) => `${method} ${path.replace(/:(\w+)/g, '{$1}')} ${name}`,
    );
    expect(listed.sort()).toEqual(routes.sort());
    expect(body.paths['/api/runs'].post.requestBody.content['application/json'].schema.properties.pieces.type).toBe(
      'integer',
    );
  });

  it('answers unknown places, unreadable JSON and a missing operator with problem documents', async () => {
    expect((await rig.call('GET', '/api/nowhere')).body).toMatchObject({ type: 'not-found', status: 404 });
    expect((await rig.call('POST', '/api/tickets', '{broken')).body).toMatchObject({ type: 'not-json', status: 400 });
    expect((await rig.call('POST', '/api/tickets', ticketBody(ids), { operator: null })).body.type).toBe(
      'operator-needed',
    );
    expect((await rig.call('POST', '/api/tickets', ticketBody(ids), { operator: randomUUID() })).body.type).toBe(
      'operator-needed',
    );
    for (const { status, title } of Object.values(PROBLEMS))
      expect([status >= 400, title.length > 3]).toEqual([true, true]);
  });

  it('refuses another site’s writes, also that of another port of this machine', async () => {
    const { port } = new URL(rig.base);
    const from = async (origin: string) =>
      (await rig.call('POST', '/api/tickets', ticketBody(ids), { headers: { origin } })).status;
    for (const origin of [
      'http://elsewhere.example',
      `http://127.0.0.1:${Number(port) + 1}`,
      'http://127.0.0.1',
      'null',
    ])
      expect([origin, await from(origin)]).toEqual([origin, 403]);
    expect([await from(`https://127.0.0.1:${port}`), await from(`http://localhost:${port}`)]).toEqual([403, 403]);
    expect(await from(rig.base)).toBe(200);
  });

  it('protects its answers, makes long ones small, and names every request', async () => {
    const seen = async (path: string) => (await fetch(rig.base + path)).headers;
    const [page, list] = [await seen('/api/openapi.json'), await seen('/api/nowhere')];
    expect(page.get('content-encoding')).toMatch(/gzip|br/);
    expect(page.get('content-security-policy')).toMatch(
      /default-src 'self';style-src-elem 'self' 'nonce-[\w+/]{22}=='/,
    );
    expect([page.get('x-content-type-options'), page.get('x-powered-by')]).toEqual(['nosniff', null]);
    expect(page.get('x-request-id')).toMatch(/^[0-9a-f-]{36}$/);
    expect(page.get('x-request-id')).not.toBe(list.get('x-request-id'));
    expect(page.get('cache-control')).toBe('no-store');
    expect(page.get('permissions-policy')).toMatch(/camera=\(self\), microphone=\(\)/);
    expect([page.get('cross-origin-opener-policy'), page.get('cross-origin-resource-policy')]).toEqual([
      'same-origin',
      'same-origin',
    ]);
  });

  it('names what nobody foresaw by the id of its request', async () => {
    const other = await openTestRig();
    await other.sql('ALTER TABLE operators RENAME TO elsewhere');
    const response = await fetch(`${other.base}/api/operators`);
    const body = (await response.json()) as { type: string; incident: string };
    expect([response.status, body.type]).toEqual([500, 'internal']);
    expect(body.incident).toBe(response.headers.get('x-request-id'));
    await other.close();
  });

  it('answers more calls than its limit with a problem document, and keeps the rest', async () => {
    const other = await openTestRig({ callsPerMinute: { any: 7, writes: 3, heavy: 2 } });
    const statuses = async (method: string, path: string, times: number, body?: object) => {
      const seen = [];
      for (let i = 0; i < times; i++) seen.push((await other.call(method, path, body)).status);
      return seen;
    };
    // One call, a write, made the operator of the test.
    expect(await statuses('POST', '/api/tickets', 3, {})).toEqual([422, 422, 429]);
    expect(await statuses('GET', '/api/ledger.csv', 3)).toEqual([200, 200, 429]);
    expect((await other.call('GET', '/api/operators')).body).toMatchObject({ type: 'too-many', status: 429 });
    await other.close();
  });

  it('says so while the database is away, and works again after', async () => {
    const other = await openTestRig();
    const name = new URL(other.url).pathname.slice(1);
    await rig.sequelize.query(`ALTER DATABASE ${name} ALLOW_CONNECTIONS false`);
    await rig.sequelize.query(`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = '${name}'`);
    const { status, body } = await other.call('GET', '/api/tickets');
    expect([status, body.type]).toEqual([503, 'database-away']);
    await rig.sequelize.query(`ALTER DATABASE ${name} ALLOW_CONNECTIONS true`);
    const again = async () => (await other.call('GET', '/api/tickets')).status;
    expect(await rig.until(again, (now) => now === 200)).toBe(200);
    await other.close();
  });
});
