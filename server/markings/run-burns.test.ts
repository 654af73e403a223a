import { randomUUID } from 'node:crypto';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Marking } from '@unto/contract';
import { readProgram } from '../../simulators/burn/index.js';
import { fillInventory, openTestRig, runBody, ticketBody, type TestRig } from '../testing/rig.js';
import { TestHead } from '../testing/test-head.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
let head: TestHead;
beforeAll(async () => {
  rig = await openTestRig({ works: true });
  ids = await fillInventory(rig);
});
beforeEach(() => {
  rig.devices.controller = head = new TestHead();
  rig.scenes.length = 0;
});
/** The head is free for the next. */
afterEach(() => rig.sql(`UPDATE burns SET state = 'nothing' WHERE state NOT IN ('done', 'partly', 'not sent')`));
afterAll(() => rig.close());

/** Four places of 20 × 10 mm in two rows. */
const SHEET = {
  ...{ mode: 'rows', sheetWidthMm: 50, sheetHeightMm: 26, labelWidthMm: null, labelHeightMm: null, gapMm: 2 },
  ...{ marginMm: 2, keepOuts: [], pieceWidthMm: 20, pieceHeightMm: 10, pitchXMm: null, pitchYMm: null },
  ...{ firstXMm: null, firstYMm: null, shiftMm: 0, testPlaces: 0, pieces: [] },
};
const LAYOUT = {
  ...{ artworkId: null, xMm: 0, yMm: 0, turnDeg: 0, work: 'both', outlineFirst: false, numberFrom: 1, numberStep: 1 },
  fields: [{ kind: 'letters', says: '{n}', xMm: 3, yMm: 3, heightMm: 3, widthMm: 14, align: 'left' }],
  table: { columns: [], rows: [] },
};

/** A run of six pieces that is counted, on a jig of four. */
async function begun({ firstPieceStop = false, change = {} }: { firstPieceStop?: boolean; change?: object } = {}) {
  const { body: shop } = await rig.call('GET', '/api/workshop');
  await rig.call('PUT', '/api/workshop', { ...shop, firstPieceStop });
  const { body: ticket } = await rig.call('POST', '/api/tickets', ticketBody(ids, { pieces: 6 }));
  await rig.call('POST', `/api/tickets/${ticket.id}/sheets`, { id: randomUUID(), entries: SHEET });
  await rig.call('POST', `/api/tickets/${ticket.id}/layouts`, { id: randomUUID(), entries: LAYOUT });
  const { id: _i, ticketId: _t, correctsId: _c, minutes: _m, pieces: _p, ...setting } = runBody(ticket.id);
  const { body } = await rig.call('POST', `/api/tickets/${ticket.id}/markings`, {
    ...{ ...setting, id: randomUUID(), pieces: 6, checked: [], reason: 'all in order', ...change },
  });
  return { ticketId: ticket.id as string, marking: body as Marking };
}
const send = (id: string) => rig.call('POST', `/api/markings/${id}/burns`, { id: randomUUID() });
const now = async (ticketId: string) => (await rig.call('GET', `/api/tickets/${ticketId}`)).body.marking as Marking;
const becomes = (ticketId: string, ...states: string[]) =>
  rig.until(
    () => now(ticketId),
    ({ burn }) => states.includes(burn!.state),
  );
const counted = ({ counted: all }: Marking) => all.map(({ piece, state, why }) => [piece, state, why]);

describe('a counted run on the controller', () => {
  it('is sent a load at a time, each piece in its place of the jig, and counted as the controller tells of it', async () => {
    const { ticketId, marking } = await begun();
    await send(marking.id);
    await becomes(ticketId, 'running');
    const { gcode } = head.sent[0]!;
    expect([...gcode.matchAll(/\(piece (\d)/g)].map(([, n]) => Number(n))).toEqual([1, 2, 3, 4]);
    const burnt = readProgram(gcode).filter(({ power }) => power > 0);
    const second = burnt.filter(({ cell }) => cell === 1);
    expect(Math.min(...second.map(({ x0 }) => x0))).toBeGreaterThan(24);
    expect(rig.scenes).toMatchObject([
      {
        at: 'head',
        setup: { key: marking.id, blank: { widthMm: 20 } },
        pieces: { length: 6, 1: { part: 1, xMm: 24 } },
      },
    ]);
    head.says = { cellsDone: [0, 1], cell: 2 };
    const two = await rig.until(
      () => now(ticketId),
      (one) => one.counted.length === 2,
    );
    expect(counted(two)).toEqual([
      [1, 'done', null],
      [2, 'done', null],
    ]);
    head.says = { state: 'done', cellsDone: [0, 1, 2, 3] };
    await becomes(ticketId, 'done');
    expect((await send(marking.id)).body.burn).toMatchObject({ state: 'queued', parts: [4, 5] });
    head.says = { state: 'done', cellsDone: [4, 5] };
    await rig.until(
      () => now(ticketId),
      (one) => one.counted.length === 6,
    );
    expect(head.sent).toHaveLength(2);
    expect((await send(marking.id)).body.detail).toMatch(/Every piece of this run is counted/);
  });

  it('lets stand what somebody said of a piece, and sets aside the one that was under the beam as it stopped', async () => {
    const { ticketId, marking } = await begun();
    await send(marking.id);
    await becomes(ticketId, 'running');
    const says = { id: randomUUID(), piece: 1, what: 'set aside', why: 'out of focus' };
    await rig.call('POST', `/api/markings/${marking.id}/pieces`, says);
    head.says = { state: 'stopped', cellsDone: [0, 1], cell: 2 };
    const stopped = await becomes(ticketId, 'stopped');
    expect(counted(stopped)).toEqual([
      [1, 'set aside', 'out of focus'],
      [2, 'done', null],
      [3, 'set aside', 'interrupted'],
    ]);
    expect((await rig.call('PUT', `/api/markings/${marking.id}/end`, { runId: randomUUID() })).body.detail).toMatch(
      /settle that run first/,
    );
    const { tasks } = (await rig.call('GET', '/api/today')).body;
    expect(tasks.find(({ key }: { key: string }) => key === `burn-${stopped.burn!.id}`)).toMatchObject({
      title: expect.stringMatching(/^Stopped: ticket \d+/),
      to: `/tickets/${ticketId}/mark`,
    });
    head.whenSent = { state: 'done', cellsDone: [3] };
    await rig.call('PUT', `/api/run-burns/${stopped.burn!.id}/settle`, { as: 'resume', seen: null });
    const rest = await becomes(ticketId, 'done');
    expect([...head.sent[1]!.gcode.matchAll(/\(piece (\d)/g)].map(([, n]) => n)).toEqual(['4']);
    expect(counted(rest).at(-1)).toEqual([4, 'done', null]);
  });

  it('switched off in the middle: pieces are as somebody found them, and the next counts as interrupted', async () => {
    const { ticketId, marking } = await begun();
    await send(marking.id);
    await becomes(ticketId, 'running');
    head.says = { cellsDone: [0], cell: 1 };
    await rig.until(
      () => now(ticketId),
      (one) => one.counted.length === 1,
    );
    head.says = { program: '', state: 'idle' };
    const { burn } = await becomes(ticketId, 'unknown');
    const settle = (seen: number | null) =>
      rig.call('PUT', `/api/run-burns/${burn!.id}/settle`, { as: 'partly', seen });
    expect((await settle(null)).body.faults[0].path).toBe('seen');
    expect(counted((await settle(2)).body)).toEqual([
      [1, 'done', null],
      [2, 'done', null],
      [3, 'set aside', 'interrupted'],
    ]);
  });

  it('sends the first alone where the shop stops for it, and nothing more before somebody looked at it', async () => {
    const { ticketId, marking } = await begun({ firstPieceStop: true });
    await send(marking.id);
    await becomes(ticketId, 'running');
    expect([...head.sent[0]!.gcode.matchAll(/\(piece (\d)/g)].map(([, n]) => n)).toEqual(['1']);
    head.says = { state: 'done', cellsDone: [0] };
    await becomes(ticketId, 'done');
    expect((await send(marking.id)).body.detail).toMatch(/how the first piece stood/);
    const stood = (result: string) =>
      rig.call('POST', `/api/markings/${marking.id}/first-piece`, { id: randomUUID(), result });
    await stood('lost');
    expect((await send(marking.id)).body.detail).toMatch(/first piece was lost: end this run/);
    await stood('held');
    expect((await send(marking.id)).body.burn.parts).toEqual([1, 2, 3]);
  });

  it('is by what was set as it began, and is refused where that is no program, or nothing is laid out', async () => {
    const { ticketId, marking } = await begun({ change: { powerMode: 'constant' } });
    await rig.call('POST', `/api/tickets/${ticketId}/layouts`, {
      ...{ id: randomUUID(), entries: { ...LAYOUT, fields: [{ ...LAYOUT.fields[0], says: 'LATER {n}' }] } },
    });
    await send(marking.id);
    await becomes(ticketId, 'running');
    expect(head.sent[0]!.gcode).toMatch(/^M3 S0$/m);
    expect(head.sent[0]!.gcode).not.toMatch(/LATER/);
    const bare = await rig.call('POST', '/api/tickets', ticketBody(ids, { pieces: 2 }));
    const { id: _i, ticketId: _t, correctsId: _c, minutes: _m, pieces: _p, ...setting } = runBody(bare.body.id);
    const plain = await rig.call('POST', `/api/tickets/${bare.body.id}/markings`, {
      ...{ ...setting, id: randomUUID(), pieces: 2, checked: [], reason: 'all in order' },
    });
    expect((await send(plain.body.id)).body.detail).toMatch(/Nothing is laid out/);
  });
});
