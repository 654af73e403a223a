import { changeableFields } from '@unto/contract';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Today } from '@unto/contract';
import { bodyOfKind } from '@unto/domain';
import {
  DESIGN,
  fillInventory,
  openTestRig,
  runBody,
  storeBody,
  ticketBody,
  weighingBody,
  type TestRig,
  BURNT,
} from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

const today = async (): Promise<Today> => (await rig.call('GET', '/api/today')).body;
const titles = async () => (await today()).tasks.map(({ title }) => title);
const later = (seconds: number) => {
  rig.now = new Date(rig.now.getTime() + seconds * 1000);
};
async function openTicket(change: object) {
  const { body } = await rig.call('POST', '/api/tickets', ticketBody(ids, change));
  return body;
}
async function choose(ticket: any, compoundId = ids.compound) {
  const { id } = ticket;
  const fields = changeableFields(ticket);
  return (await rig.call('PUT', `/api/tickets/${id}`, { ...fields, compoundId })).body;
}
async function tick(ticketId: string, station: string, codes: string[]) {
  for (const code of codes)
    await rig.call('POST', `/api/tickets/${ticketId}/checks`, { id: randomUUID(), station, kind: 'check', code });
}

describe('Today', () => {
  it('says nothing waits on an empty bench', async () => {
    expect(await today()).toMatchObject({ tasks: [], timers: [], short: [] });
  });

  it('sends each open ticket to its next station, the soonest wanted first', async () => {
    await openTicket({ title: 'Later', wantedOn: '2026-05-01' });
    await openTicket({ title: 'Sooner', wantedOn: '2026-04-01', pieces: 1 });
    const { tasks } = await today();
    expect(tasks.map(({ title }) => title)).toEqual(['Choose a compound: Sooner', 'Choose a compound: Later']);
    expect(tasks[0]).toMatchObject({ text: 'to choose · 1 piece', action: 'Go to Choose', urgent: false });
  });

  it('puts a clock before tickets, and says now when its time has come', async () => {
    const ticket = await choose(await openTicket({ title: 'Drying', wantedOn: '2026-03-03' }));
    await rig.call('POST', `/api/tickets/${ticket.id}/timers`, {
      id: randomUUID(),
      kind: 'dry',
      label: 'tray 1',
      minimumS: 240,
    });
    expect((await titles())[0]).toBe('Look for gloss, tray 1');
    expect((await today()).tasks[0]!.urgent).toBe(false);
    later(241);
    expect((await today()).tasks[0]).toMatchObject({
      title: 'Look for gloss, tray 1',
      urgent: true,
      to: `/tickets/${ticket.id}/coat`,
    });
    expect((await today()).timers).toHaveLength(1);
  });

  it('names a coupon somebody broke off at once, not also its ticket', async () => {
    const ticket = await choose(await openTicket({ title: 'Proving' }));
    await tick(ticket.id, 'prepare', ['bare', 'measured', 'flat', 'clean']);
    const id = randomUUID();
    const { body: coupon } = await rig.call('POST', '/api/coupons', {
      id,
      ticketId: ticket.id,
      substrateId: ids.substrate,
      compoundId: ids.compound,
      headId: ids.head,
      lensId: ids.lens,
      focusOffsetMm: 0,
      design: DESIGN,
    });
    await rig.call('PUT', `/api/coupons/${id}/burnt`, BURNT);
    expect(await titles()).toContain(`Rinse coupon ${coupon.design.code}`);
    await rig.call('POST', `/api/coupons/${id}/readings`, {
      id: randomUUID(),
      stage: 'rinsed',
      source: 'entered',
      entries: [{ cell: 0, outcome: 'holds' }],
    });
    const found = await titles();
    expect(found).toContain(`Scrub coupon ${coupon.design.code}`);
    expect(found.filter((title) => title.includes('Proving'))).toEqual([]);
    const rinsed = (await rig.call('GET', '/api/coupons?stage=rinsed')).body.records;
    expect(rinsed.map((row: any) => row.id)).toEqual([id]);
  });

  it('asks for cleaning after a run', async () => {
    const ticket = await openTicket({ title: 'Cleaning', pieces: 6 });
    await rig.call('POST', '/api/runs', runBody(ticket.id));
    const page = (await rig.call('GET', `/api/tickets/${ticket.id}`)).body;
    expect(page.stations.find(({ station }: any) => station === 'clean')).toMatchObject({
      state: 'attention',
      word: '1 to clean',
    });
    expect(await titles()).toContain('Clean: Cleaning');
  });

  it('names a run that is being counted first of its ticket, and sends whoever comes back there', async () => {
    const ticket = await openTicket({ title: 'Counted tags', pieces: 6 });
    const { id: _i, ticketId: _t, correctsId: _c, minutes: _m, pieces: _p, ...setting } = runBody(ticket.id);
    const { body: marking } = await rig.call('POST', `/api/tickets/${ticket.id}/markings`, {
      ...{ ...setting, id: randomUUID(), pieces: 6, checked: [] },
    });
    const piece = { id: randomUUID(), piece: 1, what: 'done', why: null };
    await rig.call('POST', `/api/markings/${marking.id}/pieces`, piece);
    const task = (await today()).tasks.find(({ key }) => key === `marking-${marking.id}`);
    expect(task).toMatchObject({ title: 'Marking: Counted tags', to: `/tickets/${ticket.id}/mark`, urgent: true });
    expect(task!.text).toContain('1 of 6 pieces counted');
    await rig.call('PUT', `/api/markings/${marking.id}/end`, { runId: randomUUID() });
    expect(await titles()).not.toContain('Marking: Counted tags');
  });

  it('counts pieces left in a container, and one past its date', async () => {
    const old = randomUUID();
    await rig.call('POST', '/api/inventory', {
      id: old,
      kind: 'container',
      body: { ...storeBody('container', ids), name: 'Old can', expiresOn: '2026-01-31' },
    });
    const ticket = await choose(await openTicket({ title: 'Last of the can', pieces: 10 }));
    await rig.call(
      'POST',
      `/api/tickets/${ticket.id}/weighings`,
      weighingBody(ids, { pieces: 10, before: { value: 120, unit: 'g' }, after: { value: 110, unit: 'g' } }),
    );
    const { short } = await today();
    // 110 − 96 g left, 1 g a piece.
    expect(short).toContainEqual(expect.objectContaining({ what: 'Corvid Film, lot K7', left: '14 pieces left' }));
    expect(short).toContainEqual(expect.objectContaining({ what: 'Old can', left: 'use-by passed, 2026-01-31' }));
  });
});

describe('the one measurement that would tell most', () => {
  it('is told of a coat that rests on what is usual, until nobody plans one', async () => {
    expect((await today()).tellsMost).toBeNull();
    const compound = randomUUID();
    const body = bodyOfKind('compound', 'film-aerosol', { name: 'Brindle Black' });
    expect((await rig.call('POST', '/api/inventory', { id: compound, kind: 'compound', body })).status).toBe(200);
    const ticket = await choose(await openTicket({ title: 'Of a new can', pieces: 4 }), compound);
    const { tellsMost } = await today();
    expect(tellsMost).toMatchObject({
      words: expect.stringMatching(/Weigh the parts bare and coated/),
      ...{ of: 'Brindle Black for Of a new can', unit: 'g', to: `/tickets/${ticket.id}/coat` },
    });
    expect(tellsMost!.then.high - tellsMost!.then.low).toBeLessThan(tellsMost!.now.high - tellsMost!.now.low);
  });
});

describe('a ticket’s page', () => {
  it('leaves a corrected weighing out and counts a rinsed-off coat for nothing', async () => {
    const ticket = await choose(await openTicket({ title: 'Again', pieces: 8 }));
    const weigh = (change: object) =>
      weighingBody(ids, { pieces: 8, before: { value: 300, unit: 'g' }, after: { value: 292, unit: 'g' }, ...change });
    const first = weigh({});
    await rig.call('POST', `/api/tickets/${ticket.id}/weighings`, first);
    await rig.call(
      'POST',
      `/api/tickets/${ticket.id}/weighings`,
      weigh({ correctsId: first.id, after: { value: 291, unit: 'g' } }),
    );
    const page = async () => (await rig.call('GET', `/api/tickets/${ticket.id}`)).body;
    expect((await page()).weighings.map(({ afterG }: any) => afterG)).toEqual([291]);
    const clock = randomUUID();
    await rig.call('POST', `/api/tickets/${ticket.id}/timers`, {
      id: clock,
      kind: 'dry',
      label: 'tray',
      minimumS: 240,
    });
    await rig.call('PUT', `/api/timers/${clock}/end`, { outcome: 'dropped' });
    expect((await page()).stations.find(({ station }: any) => station === 'coat').word).toBe('to coat');
    expect((await rig.call('PUT', `/api/timers/${clock}/end`, { outcome: 'passed' })).body.detail).toMatch(
      /ended already/,
    );
  });

  it('is not there for an unknown ticket', async () => {
    expect((await rig.call('GET', `/api/tickets/${randomUUID()}`)).body.type).toBe('not-found');
    expect((await rig.call('GET', '/api/tickets/nonsense')).status).toBe(404);
    expect(
      (
        await rig.call('POST', `/api/tickets/${randomUUID()}/checks`, {
          id: randomUUID(),
          station: 'coat',
          kind: 'check',
          code: 'x',
        })
      ).status,
    ).toBe(404);
  });
});

describe('the shop', () => {
  it('keeps its settings by version', async () => {
    const { body: shop } = await rig.call('GET', '/api/workshop');
    const { body: changed } = await rig.call('PUT', '/api/workshop', { ...shop, bound: 0.9 });
    expect([changed.version, changed.bound]).toEqual([shop.version + 1, 0.9]);
    const stale = await rig.call('PUT', '/api/workshop', { ...shop, bound: 0.7 });
    expect([stale.status, stale.body.current.bound]).toEqual([409, 0.9]);
    expect((await rig.call('PUT', '/api/workshop', { ...changed, bound: 1.2 })).body.faults[0].path).toBe('bound');
  });

  it('adds an operator once', async () => {
    const person = { id: randomUUID(), name: 'Tobin Ash', role: 'operator' };
    await rig.call('POST', '/api/operators', person);
    await rig.call('POST', '/api/operators', person);
    expect((await rig.call('GET', '/api/operators')).body.filter(({ name }: any) => name === 'Tobin Ash')).toHaveLength(
      1,
    );
    expect(
      (await rig.call('POST', '/api/operators', { ...person, id: randomUUID(), name: ' ' })).body.faults[0].path,
    ).toBe('name');
  });
});
