import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, runBody, storeBody, ticketBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
let tobin: string;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
  tobin = randomUUID();
  await rig.call('POST', '/api/operators', { id: tobin, name: 'Tobin', role: 'operator' });
});
afterAll(() => rig.close());

let ticketId: string;
beforeEach(async () => {
  const { body } = await rig.call('POST', '/api/tickets', ticketBody(ids, { pieces: 6 }));
  ticketId = body.id;
});

const later = (seconds: number) => {
  rig.now = new Date(rig.now.getTime() + 1000 * seconds);
};
function setting() {
  const { id: _i, ticketId: _t, correctsId: _c, minutes: _m, pieces: _p, ...rest } = runBody(ticketId);
  return rest;
}
const begins = (change: object = {}) =>
  rig.call('POST', `/api/tickets/${ticketId}/markings`, {
    ...{ ...setting(), id: randomUUID(), pieces: 6, checked: ['focus', 'air'], reason: 'all in order' },
    ...change,
  });
const says = (marking: string, piece: number, change: object = {}, headers: Record<string, string> = {}) =>
  rig.call(
    'POST',
    `/api/markings/${marking}/pieces`,
    { id: randomUUID(), piece, what: 'done', why: null, ...change },
    { headers },
  );
const ends = (marking: string, runId = randomUUID()) => rig.call('PUT', `/api/markings/${marking}/end`, { runId });

describe('a run that is counted at the bench', () => {
  it('becomes a run of the pieces that were counted, with the minutes they took and what was set as it began', async () => {
    const { body: marking } = await begins();
    expect(marking).toMatchObject({ pieces: 6, counted: [], ended: false, runId: null });
    expect((await rig.call('GET', `/api/tickets/${ticketId}`)).body.marking.id).toBe(marking.id);
    later(60);
    await says(marking.id, 1);
    later(60);
    const spoilt = { what: 'set aside', why: 'moved in the jig', spot: { x: 0.9, y: 0.2 } };
    await says(marking.id, 2, spoilt);
    later(90);
    const { body: three } = await says(marking.id, 3);
    expect(three.counted.map(({ state }: { state: string }) => state)).toEqual(['done', 'set aside', 'done']);
    // Recalibrated or not, the beam fired on what stood there as it began.
    later(3600);
    const { body: ended } = await ends(marking.id);
    const { body: run } = await rig.call('GET', `/api/runs/${ended.runId}`);
    expect(run).toMatchObject({ pieces: 3, minutes: 3.5, minutesFrom: 'counted' });
    expect((await rig.call('GET', `/api/tickets/${ticketId}`)).body.marking).toBeNull();
  });

  it('counts a piece once, however many say so at once, and loses none', async () => {
    const { body: marking } = await begins();
    await Promise.all([1, 1, 2, 2, 3, 4].map((piece) => says(marking.id, piece)));
    const again = randomUUID();
    await Promise.all([says(marking.id, 5, { id: again }), says(marking.id, 5, { id: again })]);
    const { body } = await says(marking.id, 6);
    expect(body.counted).toHaveLength(6);
    expect(body.counted.every(({ state }: { state: string }) => state === 'done')).toBe(true);
  });

  it('is one a ticket at a time: a second is told of the first', async () => {
    await begins();
    const { status, body } = await begins();
    expect([status, body.type]).toEqual([409, 'wrong-stage']);
    expect(body.detail).toContain('6 pieces is being counted');
  });

  it('takes what waited for a connection at the moment it was pressed, and never before the run began', async () => {
    const { body: marking } = await begins();
    later(600);
    const { body } = await says(marking.id, 1, {}, { 'x-unto-ago': '480000' });
    expect(Date.parse(body.counted[0].at) - Date.parse(marking.startedAt)).toBe(120_000);
    const early = await says(marking.id, 2, {}, { 'x-unto-ago': '99999999999' });
    expect(early.body.counted[1].at).toBe(marking.startedAt);
    const odd = await says(marking.id, 3, {}, { 'x-unto-ago': 'soon' });
    expect(odd.status).toBe(200);
  });

  it('takes back what was said by mistake, and ends as nothing where nothing is left', async () => {
    const { body: marking } = await begins();
    await says(marking.id, 1);
    await says(marking.id, 1, { what: 'taken back' });
    const { body } = await ends(marking.id);
    expect(body).toMatchObject({ ended: true, runId: null });
    expect((await rig.call('GET', `/api/tickets/${ticketId}`)).body.runs).toEqual([]);
  });

  it('refuses a piece that is none, a fault that is not said, and one that comes after the end, in words', async () => {
    const { body: marking } = await begins();
    expect((await says(marking.id, 7)).body.faults[0]).toMatchObject({ path: 'piece' });
    expect((await says(marking.id, 2, { what: 'set aside' })).body.faults[0].path).toBe('why');
    await says(marking.id, 1);
    const runId = randomUUID();
    await ends(marking.id, runId);
    const { body } = await says(marking.id, 2);
    expect(body.detail).toContain('correct the run’s pieces in the ledger');
    // Ended once, whoever presses again.
    expect((await ends(marking.id)).body.runId).toBe(runId);
    expect((await rig.call('GET', `/api/tickets/${ticketId}`)).body.runs).toHaveLength(1);
  });

  it('keeps how the first piece stood the scrub, once there is one', async () => {
    const { body: marking } = await begins();
    const first = (result: string) =>
      rig.call('POST', `/api/markings/${marking.id}/first-piece`, { id: randomUUID(), result });
    expect((await first('held')).body.type).toBe('wrong-stage');
    await says(marking.id, 1);
    expect((await first('lost')).body.firstPiece).toBe('lost');
    expect((await first('held')).body.firstPiece).toBe('held');
  });

  it('freezes what stood on the bench as it began: a lens measured anew since changes nothing of it', async () => {
    const { body: marking } = await begins();
    await says(marking.id, 1);
    const { body: lens } = await rig.call('GET', `/api/inventory/${ids.lens}`);
    await rig.call('PUT', `/api/inventory/${ids.lens}`, {
      version: lens.item?.version ?? lens.version,
      body: { ...storeBody('lens', ids), spotXMm: 0.3, spotYMm: 0.3 },
    });
    const { body } = await ends(marking.id);
    const { body: run } = await rig.call('GET', `/api/runs/${body.runId}`);
    const before = await rig.call('GET', `/api/tickets/${ticketId}`);
    expect(run.revisions.lens).toBe(before.body.runs[0].revisions.lens);
    expect(run.revisions.lens).not.toBe((await rig.call('GET', `/api/inventory/${ids.lens}`)).body.item?.revisionId);
  });
});
