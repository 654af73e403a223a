import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, runBody, storeBody, ticketBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

const create = async (path: string, body: object) => {
  const answer = await rig.call('POST', path, { id: randomUUID(), ...body });
  expect(answer.status, JSON.stringify(answer.body)).toBe(200);
  return answer.body;
};
const openTicket = (change: object = {}) => create('/api/tickets', ticketBody(ids, change));
const judge = (runId: string, piecesGood: number) =>
  create(`/api/runs/${runId}/judgements`, {
    contrastStep: 4,
    evenness: 'even',
    piecesGood,
    faults: [],
    tests: [],
    note: '',
  });
async function judgedRun(ticketId: string, pieces: number, good: number) {
  const run = await create('/api/runs', runBody(ticketId, { pieces }));
  await judge(run.id, good);
  return run;
}
const yieldBefore = async (ticketId: string) => (await rig.call('GET', `/api/tickets/${ticketId}`)).body.yieldBefore;

describe('what came out good before', () => {
  it('is nothing in an empty shop, and leaves out runs nobody judged', async () => {
    const ticket = await openTicket();
    expect(await yieldBefore(ticket.id)).toEqual({ good: 0, made: 0, of: 'this shop' });
    await create('/api/runs', runBody(ticket.id, { pieces: 6 }));
    expect((await yieldBefore(ticket.id)).made).toBe(0);
  });

  it('is of the whole shop until ten pieces of the pairing are known, by the newest judgement and the run that stands', async () => {
    const other = await create('/api/inventory', {
      kind: 'substrate',
      body: { ...storeBody('substrate', ids), name: '316 stainless' },
    });
    const [here, there] = [await openTicket(), await openTicket({ substrateId: other.id })];
    const run = await judgedRun(here.id, 6, 6);
    await judgedRun(there.id, 20, 12);
    expect(await yieldBefore(here.id)).toEqual({ good: 18, made: 26, of: 'this shop' });
    rig.now = new Date(rig.now.getTime() + 60_000);
    await judge(run.id, 4);
    expect((await yieldBefore(here.id)).good).toBe(16);
    expect(await yieldBefore(there.id)).toEqual({ good: 12, made: 20, of: 'this pairing' });
    const corrected = await create('/api/runs', runBody(here.id, { pieces: 12, correctsId: run.id }));
    expect((await yieldBefore(here.id)).made).toBe(20);
    await judge(corrected.id, 11);
    expect(await yieldBefore(here.id)).toEqual({ good: 11, made: 12, of: 'this pairing' });
  });
});
