import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, runBody, storeBody, ticketBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let empty: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
let file = '';
const text = async (from: TestRig, path: string) => (await fetch(from.base + path)).text();

/** A shop with two tickets, a lens that was revised between two runs, a correction, and what followed a run. */
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
  const tickets = [ticketBody(ids), ticketBody(ids, { title: 'Second' })];
  for (const ticket of tickets) await rig.call('POST', '/api/tickets', ticket);
  const first = runBody(tickets[0]!.id, { pieces: 3 });
  await rig.call('POST', '/api/runs', first);
  await rig.call('PUT', `/api/inventory/${ids.lens}`, {
    version: 1,
    body: { ...storeBody('lens', ids), spotXMm: 0.2 },
  });
  await rig.call('POST', '/api/runs', runBody(tickets[1]!.id, { pieces: 2 }));
  await rig.call('POST', '/api/runs', runBody(tickets[0]!.id, { pieces: 4, correctsId: first.id }));
  const clean = { id: randomUUID(), method: 'water and sponge', minutes: 2, residue: 'none' };
  await rig.call('POST', `/api/runs/${first.id}/cleanings`, clean);
  file = await text(rig, '/api/ledger.json');
});
beforeEach(async () => {
  empty = await openTestRig();
  return () => empty.close();
});
afterAll(() => rig.close());

const bring = (body: string, format = 'json') => empty.call('POST', `/api/ledger/import?format=${format}`, body);
const runsOf = (ledger: string) =>
  (JSON.parse(ledger) as { records: Record<string, unknown>[] }).records.map(
    ({ ticketNumber: _n, ...record }) => record,
  );

describe('a ledger brought into an empty shop', () => {
  it('comes back whole with what it refers to, and once more changes nothing', async () => {
    expect((await bring(file)).body).toMatchObject({ created: 3, unchanged: 0, problems: [] });
    expect(runsOf(await text(empty, '/api/ledger.json'))).toEqual(runsOf(file));
    expect((await bring(file)).body).toMatchObject({ created: 0, unchanged: 3 });
    const stores = async (of: TestRig) => (await of.call('GET', '/api/inventory?retired=1')).body.records;
    const here = await stores(empty);
    const there = (await stores(rig)).filter(({ id }: { id: string }) =>
      here.some((item: { id: string }) => item.id === id),
    );
    expect(here).toEqual(there);
    expect(here.map(({ kind }: { kind: string }) => kind).sort()).toEqual(
      ['head', 'lens', 'machine', 'substrate', 'calibration', 'compound']
        .filter((kind) => there.some((item: { kind: string }) => item.kind === kind))
        .sort(),
    );
  });

  it('goes with the stores in either order, and a table after it', async () => {
    const stores = await text(rig, '/api/inventory.json');
    expect((await bring(file)).status).toBe(200);
    const { body } = await empty.call('POST', '/api/inventory/import?format=json', stores);
    expect(body).toMatchObject({ problems: [], revised: 0 });
    expect(
      await text(empty, '/api/inventory.json').then((all) => (JSON.parse(all) as { items: unknown[] }).items.length),
    ).toBe((JSON.parse(stores) as { items: unknown[] }).items.length);
    expect((await bring(await text(rig, '/api/ledger.csv'), 'csv')).body).toMatchObject({ created: 0, unchanged: 3 });
  });

  it('opens the next ticket after those that came', async () => {
    await bring(file);
    const [operator] = (await empty.call('GET', '/api/operators')).body as { id: string }[];
    const { body } = await empty.call('POST', '/api/tickets', ticketBody(ids), { operator: operator!.id });
    expect(body.number).toBe(3);
  });

  it('grades no better than stated what its recipe proved elsewhere, and says why', async () => {
    const whole = JSON.parse(file) as { records: Record<string, unknown>[] };
    const proved = whole.records.map((record) => ({ ...record, recipeId: randomUUID(), grade: 'proved', because: [] }));
    expect((await bring(JSON.stringify({ ...whole, records: proved }))).status).toBe(200);
    const { records } = (await empty.call('GET', '/api/ledger')).body;
    for (const { grade, recipeId, because } of records) {
      expect([recipeId, ['stated', 'guess'].includes(grade)]).toEqual([null, true]);
      expect(because).toContain('its recipe was not brought along');
    }
    expect((await bring(JSON.stringify({ ...whole, records: proved }))).body).toMatchObject({ unchanged: 3 });
  });

  it.each([
    ['is no record', () => 'x'],
    ['lacks its tickets', (around: any) => ({ ...around, tickets: undefined })],
    [
      'holds a body that is none',
      (around: any) => ({
        ...around,
        items: [{ ...around.items[0], revisions: [{ ...around.items[0].revisions[0], body: {} }] }],
      }),
    ],
    ['holds a kind that is none', (around: any) => ({ ...around, items: [{ ...around.items[0], kind: 'spell' }] })],
    [
      'holds an item without a revision',
      (around: any) => ({ ...around, items: [{ ...around.items[0], revisions: [] }] }),
    ],
    [
      'holds a ticket of nothing',
      (around: any) => ({ ...around, tickets: [{ ...around.tickets[0], substrateId: randomUUID() }] }),
    ],
    ['holds somebody twice', (around: any) => ({ ...around, operators: [around.operators[0], around.operators[0]] })],
  ])('whose surroundings are no good (it %s) changes nothing', async (_what, spoilt) => {
    const whole = JSON.parse(file) as { around: object };
    const answer = await bring(JSON.stringify({ ...whole, around: spoilt(whole.around) }));
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(answer.status).toBeLessThan(500);
    for (const table of ['runs', 'tickets', 'inventory_items'])
      expect(await empty.sql(`SELECT id FROM ${table}`)).toEqual([]);
  });

  it('without its surroundings says in one sentence what must come first', async () => {
    const { around: _around, ...bare } = JSON.parse(file) as { around: object };
    const { status, body } = await bring(JSON.stringify(bare));
    expect(status).toBe(422);
    expect(body.detail).toMatch(/bring the ledger as JSON/);
    expect(body.faults.length).toBeLessThan(8);
  });
});
