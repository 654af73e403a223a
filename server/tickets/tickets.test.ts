import { changeableFields } from '@unto/contract';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PLAIN_SETTING } from '@unto/core';
import { fillInventory, FIRED, openTestRig, runBody, storeBody, ticketBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

const messages = (body: any): string[] => body.faults.map(({ message }: { message: string }) => message);
async function ticketOf(change: object = {}) {
  const body = ticketBody(ids, change);
  const { status, body: ticket } = await rig.call('POST', '/api/tickets', body);
  expect(status).toBe(200);
  return { sent: body, ticket };
}
async function withCompound(ticket: any, change: object = {}) {
  const { id } = ticket;
  const fields = changeableFields(ticket);
  return rig.call('PUT', `/api/tickets/${id}`, { ...fields, compoundId: ids.compound, ...change });
}

describe('tickets', () => {
  it('are made once however often they are sent, and not from two bodies', async () => {
    const { sent, ticket } = await ticketOf();
    expect((await rig.call('POST', '/api/tickets', sent)).body).toEqual(ticket);
    const { status, body } = await rig.call('POST', '/api/tickets', { ...sent, pieces: 9 });
    expect([status, body.type]).toEqual([409, 'identity-conflict']);
    expect(await rig.sql(`SELECT pieces FROM tickets WHERE id = '${sent.id}'`)).toEqual([{ pieces: 48 }]);
  });

  it('refuse each bad field at its place and keep nothing', async () => {
    const { body } = await rig.call(
      'POST',
      '/api/tickets',
      ticketBody(ids, { title: ' ', pieces: 0, markWidthMm: -3, lensId: 'x', wantedOn: '2026-02-31x' }),
    );
    const paths = body.faults.map(({ path }: { path: string }) => path);
    expect(new Set(paths)).toEqual(new Set(['title', 'pieces', 'markWidthMm', 'lensId', 'wantedOn']));
    expect(
      messages((await rig.call('POST', '/api/tickets', ticketBody({ ...ids, lens: ids.compound }))).body)[0],
    ).toMatch(/not a lens/);
  });

  it('give 409 with the other version to the second of two people', async () => {
    const { ticket } = await ticketOf();
    await withCompound(ticket);
    const { status, body } = await withCompound(ticket, { compoundId: null, choiceReason: 'mine' });
    expect([status, body.current.compoundId]).toEqual([409, ids.compound]);
  });

  it('begin anew with another head: ticks and the setting taken count no more, what was run stays', async () => {
    const { ticket } = await ticketOf();
    const { body: chosen } = await withCompound(ticket, { choiceReason: 'as ever' });
    const tick = (kind: string, code = 'clean') =>
      rig.call('POST', `/api/tickets/${ticket.id}/checks`, { id: randomUUID(), station: 'prepare', kind, code });
    await tick('check');
    const setting = { ...PLAIN_SETTING, directions: 'two-way', ...FIRED };
    await rig.call('POST', '/api/recipes', {
      ...{ id: randomUUID(), ticketId: ticket.id, kind: 'stated', couponIds: [], seed: 1 },
      ...{ ...setting, powerPercent: 90, speedMmPerS: 150, intervalMm: 0.06 },
    });
    const page = async () => (await rig.call('GET', `/api/tickets/${ticket.id}`)).body;
    expect((await page()).recipes).toHaveLength(1);
    expect((await page()).checks).toHaveLength(1);
    rig.now = new Date(rig.now.getTime() + 60_000);
    const head = randomUUID();
    const lens = randomUUID();
    const own = { ...ids, head };
    await rig.call('POST', '/api/inventory', { id: head, kind: 'head', body: storeBody('head', ids) });
    await rig.call('POST', '/api/inventory', { id: lens, kind: 'lens', body: storeBody('lens', own) });
    const { body: moved } = await withCompound(chosen, { headId: head, lensId: lens });
    expect(moved.compoundId).toBe(ids.compound);
    const after = await page();
    expect([after.recipes, after.checks, after.progress.recipeNumber]).toEqual([[], [], null]);
    const other = randomUUID();
    await rig.call('POST', '/api/inventory', { id: other, kind: 'substrate', body: storeBody('substrate', ids) });
    expect((await withCompound(moved, { substrateId: other })).body).toMatchObject({
      compoundId: null,
      choiceReason: '',
    });
  });

  it('take a tick back, and keep that it stood', async () => {
    const { ticket } = await ticketOf();
    const tick = (kind: string) =>
      rig.call('POST', `/api/tickets/${ticket.id}/checks`, {
        id: randomUUID(),
        station: 'prepare',
        kind,
        code: 'flat',
      });
    expect((await tick('check')).body).toHaveLength(1);
    rig.now = new Date(rig.now.getTime() + 1000);
    expect((await tick('taken back')).body).toEqual([]);
    rig.now = new Date(rig.now.getTime() + 1000);
    expect((await tick('check')).body).toHaveLength(1);
    const kept = await rig.sql(`SELECT kind FROM checks WHERE ticket_id = '${ticket.id}' ORDER BY at`);
    expect(kept.map(({ kind }: any) => kind)).toEqual(['check', 'taken back', 'check']);
  });

  it('have no fewer pieces than are marked and good, and are put away and opened again', async () => {
    const { ticket } = await ticketOf();
    await rig.call('POST', '/api/runs', runBody(ticket.id, { pieces: 6 }));
    const change = (over: object, of = ticket) => {
      const { id } = of;
      const fields = changeableFields(of);
      return rig.call('PUT', `/api/tickets/${id}`, { ...fields, ...over });
    };
    expect((await change({ pieces: 5 })).body.faults[0]).toMatchObject({ path: 'pieces' });
    const { body: away } = await change({ pieces: 6, state: 'done' });
    expect(away).toMatchObject({ pieces: 6, state: 'done' });
    expect((await change({ state: 'open' }, away)).body.state).toBe('open');
  });
});
