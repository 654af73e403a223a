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
      for (let i = 0; i < 20; i += 1) {
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

describe('a database that stands still', () => {
  it('is said after a while, holds up nothing else, and all goes on by itself when it moves again', async () => {
    const still = await openTestRig({ queryWithinMs: 1500 });
    await Promise.all(Array.from({ length: 6 }, () => still.call('GET', '/api/operators')));
    const name = new URL(still.url).pathname.slice(1);
    const backends = await other.sql<{ pid: number }>(`SELECT pid FROM pg_stat_activity WHERE datname = '${name}'`);
    expect(backends.length).toBeGreaterThan(0);
    backends.forEach(({ pid }) => process.kill(pid, 'SIGSTOP'));
    try {
      const begun = performance.now();
      const answers = await Promise.all(Array.from({ length: 12 }, () => still.call('GET', '/api/tickets')));
      // Those that found a connection of those that stand are told so; what is opened anew works.
      expect(answers.filter(({ status }) => status !== 200 && status !== 503)).toEqual([]);
      expect(answers.filter(({ status }) => status === 503).length).toBeGreaterThan(0);
      expect(performance.now() - begun).toBeLessThan(6000);
      expect((await rig.call('GET', '/api/tickets')).status).toBe(200);
    } finally {
      backends.forEach(({ pid }) => process.kill(pid, 'SIGCONT'));
    }
    expect((await still.call('GET', '/api/tickets')).status).toBe(200);
    await still.close();
  });

  it('over one table only holds up what needs that table', async () => {
    const locked = await openTestRig({ queryWithinMs: 1500 });
    const transaction = await locked.sequelize.transaction();
    await locked.sequelize.query('LOCK TABLE timers', { transaction });
    const waits = locked.call('GET', '/api/timers');
    expect((await locked.call('GET', '/api/operators')).status).toBe(200);
    expect(await waits).toMatchObject({ status: 503, body: { type: 'database-away' } });
    await transaction.rollback();
    expect((await locked.call('GET', '/api/timers')).status).toBe(200);
    await locked.close();
  });
});
