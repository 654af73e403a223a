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

const newTicket = async () => (await rig.call('POST', '/api/tickets', ticketBody(ids, { pieces: 48 }))).body.id;
const draws = (run: string, scrub: number) => rig.call('POST', `/api/runs/${run}/draws`, { id: randomUUID(), scrub });
const stood = (run: string, piece: number, result: string) =>
  rig.call('POST', `/api/runs/${run}/piece-checks`, {
    ...{ id: randomUUID(), piece, test: 'abrasive pad', strokes: 40, result },
  });

describe('a sample of a run', () => {
  it('is drawn at random, grows by more and never loses what was drawn', async () => {
    const run = runBody(await newTicket(), { pieces: 24 });
    await rig.call('POST', '/api/runs', run);
    const { body: first } = await draws(run.id, 6);
    expect(first.drawn).toHaveLength(6);
    const { body: more } = await draws(run.id, 11);
    expect(more.drawn).toHaveLength(11);
    expect(more.drawn).toEqual(expect.arrayContaining(first.drawn));
    expect((await draws(run.id, 25)).body.faults[0].message).toContain('24 pieces of this run may be scrubbed');
    expect((await rig.call('GET', `/api/runs/${run.id}/sample`)).body.scrub).toBe(11);
    expect((await rig.call('GET', `/api/runs/${randomUUID()}/sample`)).status).toBe(404);
  });

  it('keeps what each piece stood, the newest of it', async () => {
    const run = runBody(await newTicket());
    await rig.call('POST', '/api/runs', run);
    await stood(run.id, 2, 'lost');
    const { body } = await stood(run.id, 2, 'slightly paler');
    expect(body.checks).toEqual([
      expect.objectContaining({ piece: 2, test: 'abrasive pad', strokes: 40, result: 'slightly paler' }),
    ]);
    expect((await stood(run.id, 7, 'lost')).body.faults[0].path).toBe('piece');
    // What was lost under the pad is not good, whatever is typed.
    await stood(run.id, 3, 'lost');
    const cleaned = { id: randomUUID(), method: 'water and sponge', minutes: 1, residue: 'none' };
    await rig.call('POST', `/api/runs/${run.id}/cleanings`, cleaned);
    const judged = (piecesGood: number) =>
      rig.call('POST', `/api/runs/${run.id}/judgements`, {
        ...{ id: randomUUID(), contrastStep: 4, evenness: 'even', piecesGood, faults: [], tests: [], note: '' },
      });
    expect((await judged(6)).body.faults[0].message).toBe(
      'One piece lost the mark in a test: at most 5 of 6 can be good.',
    );
    expect((await judged(5)).status).toBe(200);
  });

  it('leaves out of the draw what was set aside as the run was counted', async () => {
    const ticket = await newTicket();
    const { id: _i, ticketId: _t, correctsId: _c, minutes: _m, pieces: _p, ...setting } = runBody(ticket);
    const { body: marking } = await rig.call('POST', `/api/tickets/${ticket}/markings`, {
      ...{ ...setting, id: randomUUID(), pieces: 6, checked: [] },
    });
    const says = (piece: number, what: string, why: string | null = null) =>
      rig.call('POST', `/api/markings/${marking.id}/pieces`, { id: randomUUID(), piece, what, why });
    // The third is never reached: of the run the fourth is the third.
    await says(1, 'done');
    await says(2, 'set aside', 'scorched');
    await says(4, 'done');
    const runId = randomUUID();
    await rig.call('PUT', `/api/markings/${marking.id}/end`, { runId });
    const { body } = await draws(runId, 2);
    expect([body.aside, body.drawn]).toEqual([[2], [1, 3]]);
  });

  it('knows what its pieces are called, how the first stood its scrub, and where somebody placed a fault', async () => {
    const ticket = await newTicket();
    const field = { kind: 'letters', says: 'BED {n}', xMm: 2, yMm: 2, heightMm: 4, widthMm: null, align: 'left' };
    const entries = {
      ...{ artworkId: null, xMm: 0, yMm: 0, turnDeg: 0, work: 'both', outlineFirst: false, fields: [field] },
      ...{ table: { columns: [], rows: [] }, numberFrom: 1, numberStep: 1 },
    };
    const laid = await rig.call('POST', `/api/tickets/${ticket}/layouts`, { id: randomUUID(), entries });
    expect(laid.status, JSON.stringify(laid.body)).toBe(200);
    const { id: _i, ticketId: _t, correctsId: _c, minutes: _m, pieces: _p, ...setting } = runBody(ticket);
    const begin = (numbers: string) =>
      rig.call('POST', `/api/tickets/${ticket}/markings`, {
        ...{ ...setting, id: randomUUID(), pieces: 3, numbers, checked: [] },
      });
    expect((await begin('4-5')).body.faults[0].message).toBe('Those are 2 pieces; the run is of 3.');
    expect((await begin('5, 6, 900')).body.faults[0].message).toMatch(/there is no 900/);
    expect((await begin('two')).body.faults[0].path).toBe('numbers');
    const { body: marking } = await begin('4-5, 2');
    expect(marking.numbers).toEqual([4, 5, 2]);
    for (const piece of [1, 3])
      await rig.call('POST', `/api/markings/${marking.id}/pieces`, {
        id: randomUUID(),
        piece,
        what: 'done',
        why: null,
      });
    await rig.call('POST', `/api/markings/${marking.id}/first-piece`, { id: randomUUID(), result: 'paler' });
    const runId = randomUUID();
    await rig.call('PUT', `/api/markings/${marking.id}/end`, { runId });
    const fault = (piece: number, seen: string | null, spot: object | null = null) =>
      rig.call('POST', `/api/runs/${runId}/piece-faults`, { id: randomUUID(), piece, fault: seen, spot });
    expect((await fault(3, 'grainy')).body.faults[0].path).toBe('piece');
    await fault(1, 'grainy');
    await fault(1, null);
    const { body } = await fault(2, 'faint in one corner', { x: 0.95, y: 0.05 });
    expect(body.names).toEqual(['BED 4', 'BED 2']);
    expect(body.faults).toEqual([
      expect.objectContaining({ piece: 2, fault: 'faint in one corner', spot: { x: 0.95, y: 0.05 } }),
    ]);
    expect(body.checks).toEqual([expect.objectContaining({ piece: 1, result: 'slightly paler', strokes: null })]);
  });
});
