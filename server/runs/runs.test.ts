import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, runBody, ticketBody, type TestRig } from '../testing/rig.js';

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

describe('runs', () => {
  it('keep the setting as entered and in core units, with a graded dose', async () => {
    const { ticket } = await ticketOf();
    const { body } = await rig.call('POST', '/api/runs', runBody(ticket.id));
    expect(body).toMatchObject({ speed: { value: 25, unit: '%' }, speedMmPerS: 150, powerPercent: 90, grade: 'guess' });
    expect(body.intervalMm).toBeCloseTo(0.0747, 4);
    expect(body.dose).toMatchObject({ unit: 'J/mm²', grade: 'measured', formula: 'arealDose' });
  });

  it.each([
    [{ power: { value: 0, unit: '%' } }, 'power.value'],
    [{ power: { value: 101, unit: '%' } }, 'power.value'],
    [{ power: { value: 3, unit: '%' } }, 'power.value'],
    [{ speed: { value: 700, unit: 'mm/s' } }, 'speed.value'],
    [{ interval: { value: 0, unit: 'mm' } }, 'interval.value'],
    [{ minutes: -1 }, 'minutes'],
  ])('refuse %j at the field', async (change, path) => {
    const { ticket } = await ticketOf();
    const { status, body } = await rig.call('POST', '/api/runs', runBody(ticket.id, change));
    expect([status, body.faults[0].path]).toEqual([422, path]);
    expect(await rig.sql(`SELECT id FROM runs WHERE ticket_id = '${ticket.id}'`)).toEqual([]);
  });

  it('are never changed: a correction stands beside what it corrects', async () => {
    const { ticket } = await ticketOf();
    const { body: first } = await rig.call('POST', '/api/runs', runBody(ticket.id));
    await expect(rig.sequelize.query(`UPDATE runs SET pieces = 1 WHERE id = '${first.id}'`)).rejects.toThrow(
      /append-only/,
    );
    await expect(rig.sequelize.query(`DELETE FROM runs WHERE id = '${first.id}'`)).rejects.toThrow(/append-only/);
    const { body: second } = await rig.call(
      'POST',
      '/api/runs',
      runBody(ticket.id, { correctsId: first.id, pieces: 5 }),
    );
    expect((await rig.call('GET', `/api/runs/${first.id}`)).body.correctedById).toBe(second.id);
    const page = (await rig.call('GET', `/api/tickets/${ticket.id}`)).body;
    expect(page.stations.find(({ station }: any) => station === 'mark').word).toBe('5 of 48');
  });

  it('cannot have more good pieces than pieces', async () => {
    const { ticket } = await ticketOf();
    const { body: run } = await rig.call('POST', '/api/runs', runBody(ticket.id));
    const judgement = {
      id: randomUUID(),
      contrastStep: 4,
      evenness: 'even',
      piecesGood: 7,
      faults: [],
      tests: [],
      note: '',
    };
    expect((await rig.call('POST', `/api/runs/${run.id}/judgements`, judgement)).body.faults[0].path).toBe(
      'piecesGood',
    );
  });
});
