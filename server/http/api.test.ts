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

  it('refuses another site’s writes', async () => {
    const { status, body } = await rig.call('POST', '/api/tickets', ticketBody(ids), {
      headers: { origin: 'http://elsewhere.example' },
    });
    expect([status, body.type]).toEqual([403, 'wrong-origin']);
  });

  it('says so while the database is away, and works again after', async () => {
    const other = await openTestRig();
    const name = new URL(other.url).pathname.slice(1);
    await rig.sequelize.query(`ALTER DATABASE ${name} ALLOW_CONNECTIONS false`);
    await rig.sequelize.query(`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = '${name}'`);
    const { status, body } = await other.call('GET', '/api/tickets');
    expect([status, body.type]).toEqual([503, 'database-away']);
    await rig.sequelize.query(`ALTER DATABASE ${name} ALLOW_CONNECTIONS true`);
    expect((await other.call('GET', '/api/tickets')).status).toBe(200);
    await other.close();
  });
});
