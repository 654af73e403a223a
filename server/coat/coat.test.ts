import { changeableFields } from '@unto/contract';
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

describe('coat', () => {
  it('keeps weights as entered, in grams beside them, and judges the film', async () => {
    const { ticket } = await ticketOf();
    await withCompound(ticket);
    const weighing = weighingBody(ids, {
      pieces: 24,
      before: { value: 11, unit: 'oz' },
      after: { value: 300, unit: 'g' },
    });
    const { body } = await rig.call('POST', `/api/tickets/${ticket.id}/weighings`, weighing);
    expect(body.before).toEqual({ value: 11, unit: 'oz' });
    expect(body.beforeG).toBeCloseTo(311.845, 3);
    // 11.845 g × 12 % × 35 % over 24 × 44 × 28 mm at 3.6 g/cm³ = 4.674 µm, worked out by hand.
    expect(body.film.value).toBeCloseTo(4.674, 2);
    expect(body.film.grade).toBe('usual');
    const [row] = await rig.sql<{ film: { value: number } }>(`SELECT film FROM weighings WHERE id = '${weighing.id}'`);
    expect(row!.film.value).toBeCloseTo(body.film.value, 9);
  });

  it.each([
    [{ before: 300, after: 311 }, 'after.value', /weighs more after/],
    [{ before: 300, after: 80 }, 'after.value', /less than the empty container, 96 g/],
    [{ before: 90, after: 80 }, 'before.value', /less than the empty/],
    [{ before: -1, after: 80 }, 'before.value', /cannot be negative/],
    [{ before: 300, after: 300 }, 'after.value', /both weights are the same/],
  ])('refuses %j at its field', async ({ before, after }, path, message) => {
    const { ticket } = await ticketOf();
    const { status, body } = await rig.call(
      'POST',
      `/api/tickets/${ticket.id}/weighings`,
      weighingBody(ids, { pieces: 4, before: { value: before, unit: 'g' }, after: { value: after, unit: 'g' } }),
    );
    expect(status).toBe(422);
    expect(body.faults[0]).toMatchObject({ path, message: expect.stringMatching(message) });
    expect(await rig.sql(`SELECT id FROM weighings WHERE ticket_id = '${ticket.id}'`)).toEqual([]);
  });

  it('learns transfer from weighed parts and narrows the next film', async () => {
    const { ticket } = await ticketOf({ pieces: 24 });
    for (const [i, dry] of [0.55, 0.57].entries()) {
      const { body } = await rig.call(
        'POST',
        `/api/tickets/${ticket.id}/weighings`,
        weighingBody(ids, {
          pieces: 12,
          before: { value: 300 - i * 15, unit: 'g' },
          after: { value: 287 - i * 15, unit: 'g' },
          partsBefore: { value: 220, unit: 'g' },
          partsAfter: { value: 220 + dry, unit: 'g' },
        }),
      );
      expect(body.transfer.value).toBeCloseTo(dry / (13 * 0.12), 6);
    }
    const { body } = await rig.call(
      'POST',
      `/api/tickets/${ticket.id}/weighings`,
      weighingBody(ids, { pieces: 12, before: { value: 270, unit: 'g' }, after: { value: 257, unit: 'g' } }),
    );
    expect(body.film.grade).toBe('measured');
  });

  it('will not call a coat dry before its minimum, nor fire a wet one', async () => {
    const { ticket } = await ticketOf();
    const clock = { id: randomUUID(), kind: 'dry', label: 'tray 1', minimumS: 240 };
    await rig.call('POST', `/api/tickets/${ticket.id}/timers`, clock);
    expect(
      (await rig.call('POST', `/api/tickets/${ticket.id}/timers`, { ...clock, id: randomUUID() })).body.detail,
    ).toMatch(/runs already/);
    rig.now = new Date(rig.now.getTime() + 200_000);
    expect((await rig.call('PUT', `/api/timers/${clock.id}/end`, { outcome: 'passed' })).body.detail).toMatch(
      /40 s to go/,
    );
    expect((await rig.call('POST', '/api/runs', runBody(ticket.id))).body.detail).toMatch(/Never fire a wet coat/);
    rig.now = new Date(rig.now.getTime() + 40_000);
    expect((await rig.call('PUT', `/api/timers/${clock.id}/end`, { outcome: 'passed' })).body.outcome).toBe('passed');
    expect((await rig.call('POST', '/api/runs', runBody(ticket.id))).status).toBe(200);
  });
});
