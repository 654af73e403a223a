import type { Found } from '@unto/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, runBody, ticketBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
  for (const title of ['Orchid bed tags', 'Gate plaques 100%', 'Fern frames'])
    await rig.call('POST', '/api/tickets', ticketBody(ids, { title }));
});
afterAll(() => rig.close());

async function find(q: string): Promise<Found[]> {
  const answer = await rig.call('GET', `/api/find?q=${encodeURIComponent(q)}`);
  expect(answer.status).toBe(200);
  return answer.body;
}
const titles = (found: readonly Found[], kind: string) =>
  found.filter((one) => one.kind === kind).map(({ title }) => title);

describe('one field that finds', () => {
  it('tickets by words in any order and case, and by number', async () => {
    expect(titles(await find('TAGS orch'), 'ticket')).toEqual(['Orchid bed tags']);
    expect(titles(await find('ticket 2'), 'ticket')).toEqual(['Gate plaques 100%']);
    expect(titles(await find('orchid fern'), 'ticket')).toEqual([]);
  });

  it('signs of its own language as what they are', async () => {
    expect(titles(await find('100%'), 'ticket')).toEqual(['Gate plaques 100%']);
    expect(titles(await find('%'), 'ticket')).toEqual(['Gate plaques 100%']);
    expect(titles(await find('_'), 'ticket')).toEqual([]);
    expect(await find("'; DROP TABLE tickets; --")).toEqual([]);
    expect(await find('\\')).toEqual([]);
  });

  it('runs and settings by their ticket, cans by lot, and where each is to be seen', async () => {
    const [ticket] = (await rig.call('GET', '/api/tickets')).body.records.filter(
      ({ title }: { title: string }) => title === 'Fern frames',
    );
    const run = await rig.call('POST', '/api/runs', runBody(ticket.id));
    expect((await find('fern')).filter(({ kind }) => kind === 'run')).toEqual([
      expect.objectContaining({ title: 'Fern frames', to: `/ledger/${run.body.id}` }),
    ]);
    const [can] = (await find('K7')).filter(({ kind }) => kind === 'store');
    expect(can).toMatchObject({ title: expect.stringMatching(/K7/), to: `/stores/${ids.container}` });
  });

  it('what changed last where nothing is asked', async () => {
    const found = await find('');
    expect(titles(found, 'ticket')[0]).toBe('Fern frames');
    expect(titles(found, 'ticket')).toHaveLength(3);
  });

  it('refuses a question that nobody types', async () => {
    expect((await rig.call('GET', `/api/find?q=${'x'.repeat(101)}`)).status).toBe(422);
  });
});
