import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, runBody, ticketBody, weighingBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

const ROUNDS = Array.from({ length: 12 }, (_, i) => i);
const statuses = (answers: readonly { status: number }[]) => answers.map(({ status }) => status).sort();
const bring = (path: string, file: string) =>
  rig.call('POST', path, file, { headers: { 'content-type': 'application/octet-stream' } });
const fetched = async (path: string) => (await fetch(rig.base + path)).text();

async function coatedTicket(): Promise<string> {
  const ticket = ticketBody(ids);
  await rig.call('POST', '/api/tickets', ticket);
  await rig.call('POST', `/api/tickets/${ticket.id}/weighings`, weighingBody(ids, { pieces: 10 }));
  const clock = { id: randomUUID(), kind: 'dry', label: 'ten', minimumS: 240 };
  await rig.call('POST', `/api/tickets/${ticket.id}/timers`, clock);
  rig.now = new Date(rig.now.getTime() + 300_000);
  await rig.call('PUT', `/api/timers/${clock.id}/end`, { outcome: 'passed' });
  return ticket.id;
}

describe('two at once', () => {
  it('who change the settings of the shop: one is taken, the other is shown what stands', async () => {
    for (const _ of ROUNDS) {
      const { body: now } = await rig.call('GET', '/api/workshop');
      const change = (name: string) => rig.call('PUT', '/api/workshop', { ...now, name });
      const answers = await Promise.all([change('One'), change('Other')]);
      expect(statuses(answers)).toEqual([200, 409]);
      const taken = answers.find(({ status }) => status === 200)!.body.name;
      expect((await rig.call('GET', '/api/workshop')).body).toMatchObject({ name: taken, version: now.version + 1 });
    }
  });

  it('who run and store the same pieces: they are taken once', async () => {
    for (const _ of ROUNDS.slice(0, 6)) {
      const ticket = await coatedTicket();
      const answers = await Promise.all([
        rig.call('POST', '/api/runs', runBody(ticket, { pieces: 10 })),
        rig.call('POST', `/api/tickets/${ticket}/stored-coats`, {
          ...{ id: randomUUID(), pieces: 10, place: 'rack', note: '' },
        }),
      ]);
      expect(answers.filter(({ status }) => status === 200)).toHaveLength(1);
      expect(answers.filter(({ status }) => status >= 500)).toEqual([]);
    }
  });

  it('who keep the same file: one row, the same answer to all', async () => {
    for (const round of ROUNDS) {
      const content = Buffer.from([0xff, 0xd8, 0xff, 0xe0, round, 7]);
      const keep = () =>
        fetch(`${rig.base}/api/files?name=a.jpg`, {
          method: 'POST',
          headers: { 'content-type': 'image/jpeg', 'x-unto-operator': rig.operator },
          body: content,
        });
      const answers = await Promise.all([keep(), keep(), keep(), keep()]);
      expect(statuses(answers)).toEqual([200, 200, 200, 200]);
      const hashes = await Promise.all(answers.map(async (one) => ((await one.json()) as { hash: string }).hash));
      expect(new Set(hashes).size).toBe(1);
      expect(await rig.sql(`SELECT id FROM stored_files WHERE hash = '${hashes[0]}'`)).toHaveLength(1);
    }
  });

  it('who bring the same ledger or the same stores back: it is there once', async () => {
    const ticket = await coatedTicket();
    for (let i = 0; i < 5; i += 1) await rig.call('POST', '/api/runs', runBody(ticket, { pieces: 1 }));
    const ledger = await fetched('/api/ledger.json');
    const before = await rig.sql('SELECT id FROM runs ORDER BY id');
    expect(before.length).toBeGreaterThan(4);
    await rig.sequelize.query('TRUNCATE runs CASCADE');
    const again = await Promise.all([0, 1, 2].map(() => bring('/api/ledger/import?format=json', ledger)));
    expect(statuses(again)).toEqual([200, 200, 200]);
    expect(await rig.sql('SELECT id FROM runs ORDER BY id')).toEqual(before);
    const stores = JSON.parse(await fetched('/api/inventory.json')) as { items: { body: { note?: string } }[] };
    const file = (items: unknown[]) => JSON.stringify({ ...stores, items });
    const both = await Promise.all(
      [stores.items, [...stores.items].reverse()].map((items) =>
        bring('/api/inventory/import?format=json', file(items)),
      ),
    );
    expect(statuses(both)).toEqual([200, 200]);
  });

  it('a run under the identifier of one that was brought back is refused in words', async () => {
    const [known] = await rig.sql<{ id: string; ticket_id: string }>('SELECT id, ticket_id FROM runs LIMIT 1');
    await rig.sql(`DELETE FROM creations WHERE id = '${known!.id}'`);
    const ticket = await coatedTicket();
    const answer = await rig.call('POST', '/api/runs', runBody(ticket, { id: known!.id, pieces: 1 }));
    expect(answer).toMatchObject({ status: 409, body: { type: 'identity-conflict' } });
  });

  it('a change that is sent again after a lost answer is answered as it was, and made once', async () => {
    const ticket = ticketBody(ids);
    await rig.call('POST', '/api/tickets', ticket);
    const { id: _id, ...rest } = ticket;
    const change = { ...rest, version: 1, title: 'Changed', compoundId: null, choiceReason: '', state: 'open' };
    const headers: Record<string, string> = { 'x-unto-request': randomUUID() };
    const send = (body: object, more = headers) =>
      rig.call('PUT', `/api/tickets/${ticket.id}`, body, { headers: more });
    const twice = await Promise.all([send(change), send(change)]);
    expect(statuses(twice)).toEqual([200, 200]);
    expect(twice[0]!.body).toEqual(twice[1]!.body);
    expect((await send(change)).body).toEqual(twice[0]!.body);
    expect(twice[0]!.body.version).toBe(2);
    // Without its name, or as another one, it is a stale change.
    expect((await rig.call('PUT', `/api/tickets/${ticket.id}`, change)).body.type).toBe('version-conflict');
    expect((await send(change, { 'x-unto-request': randomUUID() })).body.type).toBe('version-conflict');
    expect((await send({ ...change, title: 'Other' })).body.type).toBe('identity-conflict');
    expect((await send(change, { 'x-unto-request': 'mine' })).status).toBe(400);
  });

  it('a change that was refused is tried again under the same request', async () => {
    const headers = { 'x-unto-request': randomUUID() };
    const shop = (await rig.call('GET', '/api/workshop')).body;
    const send = (version: number) =>
      rig.call('PUT', '/api/workshop', { ...shop, version, name: 'Third room' }, { headers });
    expect((await send(shop.version - 1)).status).toBe(409);
    expect((await send(shop.version)).status).toBe(200);
  });
});
