import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, ticketBody, type TestRig } from '../testing/rig.js';

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
  const { id, number: _n, createdAt: _c, changedAt: _d, ...fields } = ticket;
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
});
