import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, runBody, ticketBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

let ticketId: string;
let runId: string;
const post = (path: string, body: object) => rig.call('POST', path, { id: randomUUID(), ...body });
const cleans = () =>
  post(`/api/runs/${runId}/cleanings`, {
    method: 'water and sponge',
    minutes: 4,
    residue: 'none',
    rinseWater: 'collected',
  });
const judges = (piecesGood: number) =>
  post(`/api/runs/${runId}/judgements`, {
    contrastStep: 4,
    evenness: 'even',
    piecesGood,
    faults: [],
    tests: [],
    note: '',
  });
beforeEach(async () => {
  ticketId = (await rig.call('POST', '/api/tickets', ticketBody(ids, { pieces: 6 }))).body.id;
  runId = (await post('/api/runs', runBody(ticketId, { pieces: 6, reason: 'all in order' }))).body.id;
});
const begins = (change: object = {}) =>
  post(`/api/tickets/${ticketId}/durability`, {
    ...{
      runId,
      piece: 3,
      protocol: 'dishwasher',
      dose: 25,
      beforeContrast: 50,
      readBy: 'picture',
      dueOn: '2026-03-14',
      note: '',
    },
    ...change,
  });
const looks = (test: string, change: object = {}) =>
  post(`/api/durability/${test}/looks`, {
    doseDone: 10,
    result: 'no change',
    afterContrast: 49.5,
    nextOn: null,
    ...change,
  });
const page = async () => (await rig.call('GET', `/api/tickets/${ticketId}`)).body;
const due = async () => {
  const { body } = await rig.call('GET', '/api/today');
  return body.tasks.filter(({ key, to }: any) => key.startsWith('test-') && to.includes(ticketId));
};

describe('what a mark stands', () => {
  it('is begun on a piece, falls due on Today, is looked at until it is over', async () => {
    await cleans();
    const { status, body } = await begins();
    expect(status, JSON.stringify(body)).toBe(200);
    expect(await due()).toEqual([
      expect.objectContaining({
        text: '0 of 25 cycles seen',
        title: expect.stringMatching(/^Dishwasher test: look at piece 3/),
      }),
    ]);
    const test = body[0].id;
    const { body: half } = await looks(test, { nextOn: '2026-03-28' });
    expect(half[0]).toMatchObject({ over: false, dueOn: '2026-03-28', looks: [{ doseDone: 10, afterContrast: 49.5 }] });
    expect((await looks(test, { doseDone: 9 })).body.faults[0].path).toBe('doseDone');
    const { body: done } = await looks(test, { doseDone: 25, result: 'slightly paler', afterContrast: 46 });
    expect(done[0]).toMatchObject({ over: true, dueOn: null });
    expect(await due()).toEqual([]);
    expect((await looks(test, { doseDone: 30 })).body.detail).toMatch(/is over/);
    const { body: rows } = await rig.call('GET', `/api/durability?substrateId=${ids.substrate}`);
    expect(rows.filter((row: any) => row.testId === test)).toEqual([
      expect.objectContaining({ protocol: 'dishwasher', doseDone: 25, beforeContrast: 50, afterContrast: 46 }),
    ]);
    expect((await page()).durability).toHaveLength(1);
  });

  it('asks what belongs together, and of which piece', async () => {
    await cleans();
    expect((await begins({ piece: 7 })).body.faults[0].path).toBe('piece');
    expect((await begins({ readBy: null })).body.faults[0].path).toBe('readBy');
    const { body } = await begins({ beforeContrast: null, readBy: null });
    expect((await looks(body[0].id)).body.faults[0].path).toBe('afterContrast');
    expect((await begins({ runId: randomUUID() })).status).toBe(404);
    expect((await begins({ protocol: 'hammer' })).status).toBe(422);
  });
});

describe('a cleaning', () => {
  it('keeps where residue was left and where the rinse water went', async () => {
    const { body } = await post(`/api/runs/${runId}/cleanings`, {
      ...{
        method: 'ultrasonic bath',
        minutes: 6,
        residue: 'trace',
        residueAt: 'where the rollers held',
        rinseWater: 'collected',
      },
    });
    expect(body).toMatchObject({ residueAt: 'where the rollers held', rinseWater: 'collected' });
    expect((await rig.call('GET', `/api/runs/${runId}`)).body.cleaning).toMatchObject({
      method: 'ultrasonic bath',
      rinseWater: 'collected',
    });
  });
});

describe('a verdict', () => {
  const decides = (verdict: string, change: object = {}) =>
    post(`/api/tickets/${ticketId}/verdicts`, { verdict, exceptions: '', standsForIt: false, ...change });

  it('waits until every run is judged, and needs a name for what is below Proved', async () => {
    expect((await decides('hand over')).body.detail).toMatch(/not judged/);
    await cleans();
    await judges(6);
    const below = await decides('hand over');
    expect([below.status, below.body.faults[0].path]).toEqual([422, 'standsForIt']);
    const { body } = await decides('hand over', { standsForIt: true });
    expect(body[0]).toMatchObject({ verdict: 'hand over', good: 6, pieces: 6, belowProved: true, by: rig.operator });
    expect((await page()).ticket.state).toBe('done');
  });

  it('hands over fewer only with the exceptions named; rework opens it again', async () => {
    await cleans();
    await judges(5);
    expect((await decides('hand over', { standsForIt: true })).body.faults[0].path).toBe('verdict');
    expect((await decides('hand over with exceptions', { standsForIt: true })).body.faults[0].path).toBe('exceptions');
    const named = { standsForIt: true, exceptions: 'piece 3 is faint in a corner; they know' };
    expect((await decides('hand over with exceptions', named)).body[0].exceptions).toMatch(/faint/);
    expect((await decides('rework')).body[0].verdict).toBe('rework');
    expect((await page()).ticket.state).toBe('open');
    expect((await page()).verdicts).toHaveLength(2);
  });
});

it('a care card says what was tested, and is none before anything is marked', async () => {
  await cleans();
  const { body } = await begins();
  await looks(body[0].id, { doseDone: 25 });
  const answer = await fetch(`${rig.base}/api/tickets/${ticketId}/care-card.pdf`);
  expect(answer.headers.get('content-type')).toBe('application/pdf');
  const { body: bare } = await rig.call('POST', '/api/tickets', ticketBody(ids));
  expect((await fetch(`${rig.base}/api/tickets/${bare.id}/care-card.pdf`)).status).toBe(409);
});
