import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PLAIN_SETTING } from '@unto/core';
import {
  BURNT,
  DESIGN,
  fillInventory,
  openTestRig,
  runBody,
  ticketBody,
  weighingBody,
  type TestRig,
  keptFile,
} from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

const post = (path: string, body: object) => rig.call('POST', path, { id: randomUUID(), ...body });
const later = (seconds: number) => (rig.now = new Date(rig.now.getTime() + 1000 * seconds));

/** A ticket with its compound chosen. */
async function newTicket(change: object = {}): Promise<any> {
  const { body: ticket } = await rig.call('POST', '/api/tickets', ticketBody(ids, { pieces: 12, ...change }));
  const {
    id: _i,
    number: _n,
    createdAt: _c,
    changedAt: _h,
    layoutId: _l,
    sweptWidthMm: _w,
    sweptHeightMm: _s,
    ...fields
  } = ticket;
  const chosen = { ...fields, compoundId: ids['compound'], choiceReason: 'usual' };
  await rig.call('PUT', `/api/tickets/${ticket.id}`, chosen);
  return ticket;
}
const coat = (ticket: any, change: object = {}) =>
  post(`/api/tickets/${ticket.id}/weighings`, weighingBody(ids, { id: randomUUID(), pieces: 6, ...change }));
async function clock(ticket: any, kind: string, minimumS: number, ranS = minimumS): Promise<void> {
  const { body } = await post(`/api/tickets/${ticket.id}/timers`, { kind, label: 'tray', minimumS });
  later(ranS);
  await rig.call('PUT', `/api/timers/${body.id}/end`, { outcome: 'passed' });
}
async function ran(ticket: any, change: object = {}): Promise<any> {
  const { body, status } = await rig.call('POST', '/api/runs', runBody(ticket.id, change));
  expect(body.faults ?? status).toBe(200);
  return body;
}
async function judged(run: any, change: object = {}): Promise<void> {
  await post(`/api/runs/${run.id}/cleanings`, { method: 'water and sponge', minutes: 3, residue: 'trace' });
  await post(`/api/runs/${run.id}/judgements`, {
    ...{ contrastStep: 3, evenness: 'patchy', piecesGood: 4, faults: ['patchy'], tests: [], note: '', ...change },
  });
}
const pageOf = async (kind: string, id: string) => (await rig.call('GET', `/api/faults/of/${kind}/${id}`)).body;

describe('what the record says of a run', () => {
  it('is its coat as it was weighed, dried, shaken and looked at, in the order things happened', async () => {
    const ticket = await newTicket();
    await clock(ticket, 'shake', 75);
    await coat(ticket, { roomHumidity: 72, roomC: 21 });
    await post(`/api/tickets/${ticket.id}/coat-readings`, {
      ...{ kind: 'inspection', entries: { showing: 'patches', runs: 'none', lumps: 'a few', lamp: null }, note: '' },
    });
    await clock(ticket, 'dry', 300, 420);
    const run = await ran(ticket);
    const { record } = await pageOf('run', run.id);
    expect(record.coat).toMatchObject({
      ...{ driedS: 420, shaken: true, humidity: 72, pastTime: false, stored: false },
      findings: expect.arrayContaining(['thin', 'lumps']),
    });
    expect(record.coat.film.low).toBeLessThan(record.coat.film.value);
    expect(record.coat.film.high).toBeGreaterThan(record.coat.film.value);
    // What is read after it was fired is no fact of it.
    await clock(ticket, 'dry', 10);
    expect((await pageOf('run', run.id)).record.coat.driedS).toBe(420);
  });

  it('says where nobody weighed, clocked or looked', async () => {
    const ticket = await newTicket();
    await coat(ticket);
    const run = await ran(ticket);
    const { record } = await pageOf('run', run.id);
    expect(record.coat).toMatchObject({ driedS: null, shaken: false, findings: null, humidity: null });
    expect(record.part).toMatchObject({
      metal: true,
      vitreous: false,
      bareTicked: false,
      degreased: false,
      notBare: null,
    });
    expect(record.place).toMatchObject({ heightsRead: false, focusFound: false, focusTicked: false, offMm: null });
    expect(record.setting).toMatchObject({ window: null, asProved: false, drifts: false });
    expect(record.lensHours).toBeNull();
  });

  it('knows what was ticked and placed before it was fired', async () => {
    const ticket = await newTicket();
    for (const code of ['bare', 'clean'])
      await post(`/api/tickets/${ticket.id}/checks`, { station: 'prepare', kind: 'check', code });
    await post(`/api/tickets/${ticket.id}/checks`, { station: 'place', kind: 'check', code: 'focus' });
    const heights = [0, 1, 2, 3].map((i) => ({ xMm: 38 * (i % 2), yMm: 22 * (i >> 1), heightMm: i === 3 ? 1.4 : 0 }));
    await post(`/api/tickets/${ticket.id}/place-readings`, {
      ...{ kind: 'flatness', entries: { readings: heights, focusMm: 0 }, decision: 'rejected', note: '' },
    });
    await coat(ticket);
    const run = await ran(ticket);
    const page = await pageOf('run', run.id);
    expect(page.record.part).toMatchObject({ bareTicked: true, degreased: true });
    expect(page.record.place).toMatchObject({ heightsRead: true, focusTicked: true });
    expect(page.surface.readings).toHaveLength(4);
    const { body } = await post('/api/faults', {
      ...{ kind: 'run', subjectId: run.id, pieces: [3], faults: ['faint in one corner'], note: '' },
      spots: [{ x: 0.98, y: 0.04 }],
    });
    expect(body.record.place.offMm).toBeGreaterThan(1.2);
  });

  it('counts lots by what was judged of them, and other runs of the ticket that look so', async () => {
    const ticket = await newTicket({ pieces: 24 });
    await coat(ticket, { pieces: 12 });
    const [first, second] = [await ran(ticket), await ran(ticket)];
    await judged(first);
    await judged(second);
    const { record, others, proposals } = await pageOf('run', second.id);
    expect(others).toEqual([{ pieces: 6, bad: 2, faults: ['patchy'] }]);
    expect(record.coat.lot.made).toBeGreaterThanOrEqual(12);
    expect(record.wash).toMatchObject({ residue: 'trace', cooled: null });
    expect(proposals).toEqual([expect.objectContaining({ fault: 'patchy', words: 'said at Judge' })]);
    const { body } = await post('/api/faults', {
      ...{ kind: 'run', subjectId: second.id, pieces: [1, 2], faults: ['patchy'], spots: [], note: '' },
    });
    expect(body.record.pieces).toEqual({ made: 12, alike: 4, samePlace: false });
  });

  it('proposes what was placed on a piece, with its place', async () => {
    const ticket = await newTicket();
    await coat(ticket);
    const run = await ran(ticket);
    await post(`/api/runs/${run.id}/piece-faults`, { piece: 2, fault: 'grainy', spot: { x: 0.2, y: 0.7 } });
    const { proposals } = await pageOf('run', run.id);
    expect(proposals).toEqual([{ fault: 'grainy', piece: 2, spot: { x: 0.2, y: 0.7 }, words: 'placed on piece 2' }]);
  });

  it('offers what making it anew would take, by what was timed and weighed', async () => {
    const ticket = await newTicket();
    await coat(ticket);
    const run = await ran(ticket, { minutes: 12 });
    const { work } = await pageOf('run', run.id);
    expect(work.markMinutes).toBeCloseTo(2, 9);
    expect(work.compoundG).toBeGreaterThan(0);
    expect(work.compoundMinor).toBeGreaterThan(0);
    expect(work.labourMinorPerMinute).toBeGreaterThan(0);
  });
});

describe('a fault of a coupon', () => {
  async function coupon(): Promise<any> {
    const ticket = await newTicket();
    await coat(ticket);
    const { body } = await post('/api/coupons', {
      ...{ ticketId: ticket.id, substrateId: ids['substrate'], compoundId: ids['compound'], headId: ids['head'] },
      ...{ lensId: ids['lens'], focusOffsetMm: 0, design: DESIGN },
    });
    return body;
  }

  it('waits until it is burnt', async () => {
    const made = await coupon();
    expect((await rig.call('GET', `/api/faults/of/coupon/${made.id}`)).body.detail).toContain('not burnt yet');
  });

  it('is looked for with what was noted as it was fired; all washed off is proposed', async () => {
    const made = await coupon();
    await rig.call('PUT', `/api/coupons/${made.id}/burnt`, BURNT);
    for (const stage of ['rinsed', 'scrubbed'])
      await post(`/api/coupons/${made.id}/readings`, {
        ...{ stage, source: 'entered' },
        entries: Array.from({ length: 12 }, (_, cell) => ({ cell, outcome: 'under' })),
      });
    const page = await pageOf('coupon', made.id);
    expect(page.record).toMatchObject({ air: 'off', extraction: 'on', setting: { asProved: null } });
    expect(page.work).toBeNull();
    expect(page.proposals).toEqual([expect.objectContaining({ fault: 'washed off whole' })]);
    const { body } = await post('/api/faults', {
      ...{ kind: 'coupon', subjectId: made.id, pieces: [], faults: ['washed off whole'], spots: [], note: '' },
    });
    expect(body).toMatchObject({ kind: 'coupon', subjectId: made.id });
    const named = await post('/api/faults', {
      ...{ kind: 'coupon', subjectId: made.id, pieces: [1], faults: ['grainy'], spots: [], note: '' },
    });
    expect(named.body.faults[0].message).toContain('Only a run has pieces');
    expect((await rig.call('GET', `/api/faults/of/coupon/${randomUUID()}`)).status).toBe(404);
  });
});

describe('a fault of a coat that was not fired', () => {
  it('is looked for among what coats do, and proposed by its picture', async () => {
    const ticket = await newTicket();
    await coat(ticket);
    const hash = await keptFile(rig, 'coat.jpg', Buffer.from([0xff, 0xd8, 0xff, 0xe0, 9, 9]));
    const film = Array.from({ length: 44 * 28 }, (_, i) => (i % 44 > 30 && i / 44 > 18 ? 0.4 : 1));
    const { body: pictures } = await post(`/api/tickets/${ticket.id}/coat-pictures`, {
      ...{ weighingId: null, decision: 'accepted', note: '' },
      entries: {
        ...{ fileHash: hash, widthMm: 44, heightMm: 28, bare: { x: 1, y: 2 }, good: null },
        corners: [0, 1, 2, 3].map((x) => ({ x, y: x })),
        map: { columns: 44, rows: 28, cellMm: 1, noise: 0.01, bareRead: true, lightFrom: 'surround', film },
      },
    });
    const page = await pageOf('coat', pictures[0].id);
    expect(page.record.setting).toBeNull();
    expect(page.proposals[0]).toMatchObject({ fault: 'patchy', words: 'picture of the coat: thin spot' });
    const { body: found } = await post('/api/faults', {
      ...{ kind: 'coat', subjectId: pictures[0].id, pieces: [], faults: ['patchy'], spots: [], note: '' },
    });
    const settle = (causes: string[]) =>
      post(`/api/faults/${found.id}/findings`, { causes, way: null, remedies: [], note: '' });
    expect((await settle(['too much energy'])).body.faults[0].message).toContain('cannot have been');
    expect((await settle(['uneven spray'])).status).toBe(200);
  });
});

describe('the program of a rework', () => {
  it('is only its region, laid where two points of the old mark say', async () => {
    const ticket = await newTicket();
    const field = { kind: 'letters', says: 'No {n}', xMm: 3, yMm: 3, heightMm: 5, widthMm: null, align: 'left' };
    await post(`/api/tickets/${ticket.id}/layouts`, {
      entries: {
        ...{
          artworkId: null,
          xMm: 0,
          yMm: 0,
          turnDeg: 0,
          work: 'both',
          outlineFirst: false,
          numberFrom: 1,
          numberStep: 1,
        },
        ...{ fields: [field], table: { columns: [], rows: [] } },
      },
    });
    const taken = await post('/api/recipes', {
      ...{ ticketId: ticket.id, kind: 'stated', couponIds: [], seed: 1, ...PLAIN_SETTING, directions: 'two-way' },
      ...{ powerPercent: 80, speedMmPerS: 120, intervalMm: 0.1, air: 'off', extraction: 'on', powerMode: 'constant' },
    });
    expect(taken.body.faults ?? taken.status).toBe(200);
    await coat(ticket);
    const run = await ran(ticket);
    const made = async (change: object) => {
      const { body } = await post(`/api/tickets/${ticket.id}/reworks`, {
        ...{ runId: run.id, caseId: null, way: 'redo the region', pieces: [2], focusMm: null, note: '' },
        ...{ region: { xMm: 0, yMm: 0, widthMm: 40, heightMm: 20 }, alignment: null, ...change },
      });
      return rig.base + `/api/reworks/${body.at(-1).id}/program/gcode`;
    };
    const points = (xMm: number, yMm: number) => [
      { xMm, yMm },
      { xMm: xMm + 30, yMm },
    ];
    const plain = await (await fetch(await made({}))).text();
    const moved = await (
      await fetch(await made({ alignment: { drawn: points(0, 0), found: points(100, 50) } }))
    ).text();
    const firstMove = (text: string) => /G0 X([\d.-]+) Y([\d.-]+)/.exec(text)!.slice(1).map(Number);
    const [from, to] = [firstMove(plain), firstMove(moved)];
    expect(to[0]! - from[0]!).toBeCloseTo(100, 1);
    expect(to[1]! - from[1]!).toBeCloseTo(50, 1);
    // A part where nothing of it lies has no program.
    const empty = await fetch(await made({ region: { xMm: 30, yMm: 15, widthMm: 2, heightMm: 2 } }));
    expect(empty.status).toBe(422);
    const two = await fetch(await made({ pieces: [1, 2], alignment: { drawn: points(0, 0), found: points(0, 0) } }));
    expect(((await two.json()) as { faults: { message: string }[] }).faults[0]!.message).toContain('a rework of each');
  });
});
