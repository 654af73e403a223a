import { changeableFields } from '@unto/contract';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PLAIN_SETTING } from '@unto/core';
import { fillInventory, FIRED, openTestRig, runBody, ticketBody, weighingBody, type TestRig } from '../testing/rig.js';

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
    expect(body.dose).toMatchObject({ unit: 'J/mm²', grade: 'stated', formula: 'arealDose' });
    // Said outright by the panel, on a metered head, it is a reading; a share of a stated top speed is not.
    const said = await rig.call('POST', '/api/runs', runBody(ticket.id, { speed: { value: 150, unit: 'mm/s' } }));
    expect(said.body.dose.grade).toBe('measured');
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

  it('hold their recipe to every part of the setting', async () => {
    const { ticket } = await ticketOf();
    const setting = { ...PLAIN_SETTING, directions: 'two-way', ...FIRED };
    const recipe = {
      ...{ id: randomUUID(), ticketId: ticket.id, kind: 'stated', couponIds: [], seed: 1 },
      ...{ ...setting, powerPercent: 90, speedMmPerS: 150, intervalMm: 25.4 / 340 },
    };
    expect((await rig.call('POST', '/api/recipes', recipe)).status).toBe(200);
    const graded = async (change: object) => {
      const run = runBody(ticket.id, { pieces: 1, recipeId: recipe.id, reason: '', ...change });
      return (await rig.call('POST', '/api/runs', run)).body;
    };
    await tickAll(ticket.id);
    expect(await graded({})).toMatchObject({ grade: 'stated', because: [] });
    expect(await graded({ air: 'on' })).toMatchObject({
      grade: 'guess',
      because: ['air assist: on, off in the recipe'],
    });
    expect(await graded({ focusOffsetMm: 1 })).toMatchObject({ grade: 'guess' });
    expect(await graded({ extraction: null })).toMatchObject({
      grade: 'stated',
      because: ['extraction: not noted, on in the recipe'],
    });
    expect((await graded({ frequencyKHz: 40 })).faults[0].path).toBe('frequencyKHz');
  });
});

async function tickAll(ticketId: string): Promise<void> {
  const codes = { prepare: ['measured', 'flat', 'clean'], place: ['focus', 'thickness', 'placed'] };
  for (const [station, own] of Object.entries(codes))
    for (const code of own)
      await rig.call('POST', `/api/tickets/${ticketId}/checks`, { id: randomUUID(), station, kind: 'check', code });
  const { body } = await rig.call('GET', `/api/tickets/${ticketId}`);
  const { id } = body.ticket;
  const fields = changeableFields(body.ticket);
  await rig.call('PUT', `/api/tickets/${id}`, { ...fields, choiceReason: 'no coat wanted' });
}

describe('a run on coated pieces', () => {
  const word = async (ticketId: string, station: string) =>
    (await rig.call('GET', `/api/tickets/${ticketId}`)).body.stations.find((one: any) => one.station === station);

  async function coated(pieces: number, change: object = {}) {
    const { ticket } = await ticketOf({ pieces: 12 });
    const { id } = ticket;
    const fields = changeableFields(ticket);
    await rig.call('PUT', `/api/tickets/${id}`, { ...fields, compoundId: ids.compound, choiceReason: 'as ever' });
    const after = { value: 120 - 1.05 * pieces, unit: 'g' };
    await rig.call('POST', `/api/tickets/${id}/weighings`, weighingBody(ids, { pieces, after, ...change }));
    return id as string;
  }
  const run = (ticketId: string, change: object) => rig.call('POST', '/api/runs', runBody(ticketId, change));

  it('is told that nobody clocked the coat, and runs under a reason that is kept and lowers its grade', async () => {
    const id = await coated(12);
    expect(await word(id, 'coat')).toMatchObject({ state: 'attention', word: '12 not clocked' });
    const refused = (await run(id, { reason: ' ' })).body.faults[0];
    expect(refused).toMatchObject({ path: 'reason', message: expect.stringMatching(/drying of 12 not clocked/) });
    const kept = (await run(id, { reason: 'dried over night' })).body;
    expect(kept).toMatchObject({ reason: 'dried over night', grade: 'guess' });
    expect(kept.because).toContain('coat: drying of 12 not clocked');
    expect((await rig.sql(`SELECT reason FROM runs WHERE id = '${kept.id}'`))[0]).toEqual({
      reason: 'dried over night',
    });
  });

  it('never fires a wet coat, more than is coated, or more than the ticket has', async () => {
    const id = await coated(8);
    expect((await run(id, { pieces: 9 })).body.detail).toMatch(/8 coated pieces are ready, 9 asked/);
    expect((await run(id, { pieces: 13 })).body.faults[0].message).toMatch(
      /12 pieces of the ticket are left, 13 asked/,
    );
    const timer = { id: randomUUID(), kind: 'dry', label: 'tray', minimumS: 600 };
    await rig.call('POST', `/api/tickets/${id}/timers`, timer);
    expect((await run(id, { pieces: 2 })).body.detail).toMatch(/never fire a wet coat/i);
    rig.now = new Date(rig.now.getTime() + 700_000);
    await rig.call('PUT', `/api/timers/${timer.id}/end`, { outcome: 'passed' });
    expect((await word(id, 'coat')).word).not.toMatch(/clocked/);
    expect((await run(id, { pieces: 8 })).status).toBe(200);
    expect((await run(id, { pieces: 1 })).body.detail).toMatch(/0 coated pieces are ready/);
  });

  it('counts a drying that passed before the parts were weighed', async () => {
    const { ticket } = await ticketOf({ pieces: 12 });
    const { id } = ticket;
    const fields = changeableFields(ticket);
    await rig.call('PUT', `/api/tickets/${id}`, { ...fields, compoundId: ids.compound, choiceReason: 'as ever' });
    const timer = { id: randomUUID(), kind: 'dry', label: 'tray', minimumS: 600 };
    await rig.call('POST', `/api/tickets/${id}/timers`, timer);
    rig.now = new Date(rig.now.getTime() + 700_000);
    await rig.call('PUT', `/api/timers/${timer.id}/end`, { outcome: 'passed' });
    const weigh = (pieces: number) =>
      rig.call(
        'POST',
        `/api/tickets/${id}/weighings`,
        weighingBody(ids, { pieces, after: { value: 120 - 1.05 * pieces, unit: 'g' } }),
      );
    await weigh(12);
    expect((await word(id, 'coat')).word).not.toMatch(/clocked/);
    rig.now = new Date(rig.now.getTime() + 60_000);
    await weigh(4);
    expect((await word(id, 'coat')).word).toBe('4 not clocked');
  });

  it('says when the film lies out of its band', async () => {
    const id = await coated(12, { after: { value: 98, unit: 'g' } });
    const timer = { id: randomUUID(), kind: 'dry', label: 'tray', minimumS: 600 };
    await rig.call('POST', `/api/tickets/${id}/timers`, timer);
    rig.now = new Date(rig.now.getTime() + 700_000);
    await rig.call('PUT', `/api/timers/${timer.id}/end`, { outcome: 'passed' });
    expect(await word(id, 'coat')).toMatchObject({ state: 'attention', word: '12 out of band' });
    expect((await run(id, { reason: '' })).body.faults[0].message).toMatch(/film of 12 out of band/);
  });

  it('is judged only once it is clean, and pieces that came out not good are made again', async () => {
    const id = await coated(12);
    const { body: made } = await run(id, { pieces: 12 });
    const judgement = { contrastStep: 4, evenness: 'even', piecesGood: 10, faults: [], tests: [], note: '' };
    const judge = () => rig.call('POST', `/api/runs/${made.id}/judgements`, { id: randomUUID(), ...judgement });
    expect((await judge()).body.detail).toMatch(/Clean these pieces first/);
    const cleaning = { id: randomUUID(), method: 'water and sponge', minutes: 2, residue: 'none' };
    await rig.call('POST', `/api/runs/${made.id}/cleanings`, cleaning);
    expect((await judge()).status).toBe(200);
    expect(await word(id, 'mark')).toMatchObject({ state: 'running', word: '10 of 12' });
    await rig.call('POST', `/api/tickets/${id}/weighings`, weighingBody(ids, { pieces: 2 }));
    expect((await run(id, { pieces: 2 })).status).toBe(200);
    expect(await word(id, 'mark')).toMatchObject({ state: 'done', word: '12 of 12' });
  });

  it('stores no piece that was never coated', async () => {
    const id = await coated(4);
    const store = (pieces: number) =>
      rig.call('POST', `/api/tickets/${id}/stored-coats`, { id: randomUUID(), pieces, place: 'rack', note: '' });
    const { body } = await store(5);
    expect(body.faults[0]).toMatchObject({ path: 'pieces', message: expect.stringMatching(/^4 coated pieces lie/) });
  });
});
