import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { fillInventory, openTestRig, ticketBody, type TestRig } from '../testing/rig.js';
import { SharedAnswers } from './shared-answers.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

describe('an answer that several ask for', () => {
  it('is worked out once while nothing is written, and anew after every write, whoever made it', async () => {
    let shared = new SharedAnswers(rig.sequelize);
    let worked = 0;
    const ask = (now = 0) => shared.get({ key: '/tickets', now, holdsS: 1 }, async () => ({ worked: (worked += 1) }));
    // A snapshot is of the whole cluster: what is written into other databases meanwhile makes an answer anew as well.
    await vi.waitFor(
      async () => {
        [shared, worked] = [new SharedAnswers(rig.sequelize), 0];
        expect(await Promise.all([ask(), ask(), ask()])).toEqual(['{"worked":1}', '{"worked":1}', '{"worked":1}']);
        expect(await ask(500)).toBe('{"worked":1}');
        expect(await ask(1500)).toBe('{"worked":2}');
      },
      { timeout: 20_000, interval: 20 },
    );
    // Another connection, as another server or program has.
    await rig.sql('UPDATE operators SET name = name');
    expect(await ask(1500)).toBe('{"worked":3}');
    expect(await shared.get({ key: '/other', now: 1500 }, async () => undefined)).toBe('{}');
  });

  it('is not kept when it failed', async () => {
    const shared = new SharedAnswers(rig.sequelize);
    await expect(shared.get({ key: '/a', now: 0 }, () => Promise.reject(new Error('away')))).rejects.toThrow('away');
    expect(await shared.get({ key: '/a', now: 0 }, async () => 'here')).toBe('"here"');
  });

  it('always shows whoever wrote what was just written, with other readers at work', async () => {
    let reading = true;
    const readers = [1, 2, 3].map(async () => {
      while (reading) await rig.call('GET', '/api/tickets');
    });
    for (let i = 0; i < 25; i += 1) {
      const body = ticketBody(ids, { id: randomUUID() });
      expect((await rig.call('POST', '/api/tickets', body)).status).toBe(200);
      const { records } = (await rig.call('GET', '/api/tickets')).body;
      expect(records[0].id).toBe(body.id);
    }
    reading = false;
    await Promise.all(readers);
  });
});
