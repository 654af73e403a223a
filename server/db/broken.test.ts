import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, ticketBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let other: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  other = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(async () => {
  await rig.close();
  await other.close();
});

describe('connections that break under writers', () => {
  it('are answered as a database that is away, never as a fault of what was sent; what was answered is kept', async () => {
    const name = new URL(rig.url).pathname.slice(1);
    let breaking = true;
    const breaker = (async () => {
      while (breaking) {
        await other.sql(`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = '${name}'`);
        await new Promise((resolve) => setTimeout(resolve, 15));
      }
    })();
    const kept: string[] = [];
    const refused: { status: number; body: { type: string } }[] = [];
    const writer = async () => {
      for (let i = 0; i < 40; i += 1) {
        const body = ticketBody(ids, { id: randomUUID() });
        const answer = await rig.call('POST', '/api/tickets', body);
        if (answer.status === 200) kept.push(body.id);
        else refused.push(answer);
      }
    };
    await Promise.all([writer(), writer(), writer(), writer()]);
    breaking = false;
    await breaker;
    expect(refused.filter(({ status }) => status !== 503).map(({ body }) => body)).toEqual([]);
    expect(refused.length).toBeGreaterThan(5);
    const here = new Set((await rig.sql<{ id: string }>('SELECT id FROM tickets')).map(({ id }) => id));
    expect(kept.filter((id) => !here.has(id))).toEqual([]);
  });
});
