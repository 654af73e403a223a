import { changeableFields } from '@unto/contract';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PLAIN_SETTING } from '@unto/core';
import {
  BURNT,
  DESIGN,
  fillInventory,
  FIRED,
  openTestRig,
  storeBody,
  ticketBody,
  type TestRig,
  windowAddress,
} from '../testing/rig.js';

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

async function scrubbedCoupon(ticketId: string) {
  const id = randomUUID();
  const made = await rig.call('POST', '/api/coupons', {
    id,
    ticketId,
    substrateId: ids.substrate,
    compoundId: ids.compound,
    headId: ids.head,
    lensId: ids.lens,
    focusOffsetMm: 0,
    design: DESIGN,
  });
  expect(made.status).toBe(200);
  await rig.call('PUT', `/api/coupons/${id}/burnt`, BURNT);
  // Speeds 60, 120, 240, 480 down; powers 40, 70, 100 across.
  const outcomes = [
    'holds',
    'holds',
    'over',
    'under',
    'holds',
    'holds',
    'under',
    'under',
    'holds',
    'under',
    'under',
    'under',
  ];
  const entries = outcomes.map((outcome, cell) => ({ cell, outcome }));
  const { body } = await rig.call('POST', `/api/coupons/${id}/readings`, {
    id: randomUUID(),
    stage: 'scrubbed',
    source: 'entered',
    entries,
  });
  expect(body.stage).toBe('scrubbed');
  return { id, coupon: body };
}

describe('coupons and recipes', () => {
  it('numbers coupons, pins revisions, and lets a coupon be redesigned only until it is burnt', async () => {
    const { ticket } = await ticketOf();
    await withCompound(ticket);
    const { id, coupon } = await scrubbedCoupon(ticket.id);
    expect(coupon.design.code).toMatch(/^K-\d{3}$/);
    expect(coupon.revisions.calibration).not.toBeNull();
    const late = await rig.call('PUT', `/api/coupons/${id}`, {
      version: coupon.version,
      focusOffsetMm: 0,
      design: DESIGN,
    });
    expect(late.body.detail).toMatch(/burnt as it stands/);
  });

  it('refuses designs beyond blank, bed and head, and readings too early or beyond its cells', async () => {
    const { ticket } = await ticketOf();
    const send = (design: object) =>
      rig.call('POST', '/api/coupons', {
        id: randomUUID(),
        ticketId: ticket.id,
        substrateId: ids.substrate,
        compoundId: null,
        headId: ids.head,
        lensId: ids.lens,
        focusOffsetMm: 0,
        design: { ...DESIGN, ...design },
      });
    expect((await send({ blank: { widthMm: 10, heightMm: 10 } })).body.detail).toMatch(/The coupon needs/);
    expect((await send({ blank: { widthMm: 900, heightMm: 100 } })).body.detail).toMatch(/larger than the bed/);
    expect(
      (await send({ axes: { ...DESIGN.axes, y: { parameter: 'speed', spacing: 'list', values: [900] } } })).body.detail,
    ).toMatch(/faster than this head/);
    const { body: coupon } = await send({});
    const reading = { id: randomUUID(), stage: 'rinsed', source: 'entered', entries: [{ cell: 0, outcome: 'holds' }] };
    expect((await rig.call('POST', `/api/coupons/${coupon.id}/readings`, reading)).body.detail).toMatch(/burnt/);
    await rig.call('PUT', `/api/coupons/${coupon.id}/burnt`, BURNT);
    expect(
      (
        await rig.call('POST', `/api/coupons/${coupon.id}/readings`, {
          ...reading,
          entries: [{ cell: 99, outcome: 'holds' }],
        })
      ).body.detail,
    ).toMatch(/no cell 100/);
  });

  it('computes what a recipe promises here, freezes it, and grades it by hull, bound and revisions', async () => {
    const { ticket } = await ticketOf();
    await withCompound(ticket);
    const { id } = await scrubbedCoupon(ticket.id);
    const recipe = (change: object) => ({
      id: randomUUID(),
      ticketId: ticket.id,
      kind: 'widest',
      couponIds: [id],
      powerPercent: 85,
      speedMmPerS: 95,
      intervalMm: 0.06,
      ...PLAIN_SETTING,
      directions: 'two-way',
      ...FIRED,
      seed: 7,
      ...change,
    });
    const inside = (await rig.call('POST', '/api/recipes', recipe({}))).body;
    expect(inside.fit).toMatchObject({ seed: 7, bound: 0.8, cells: 12, insideHull: true });
    // Its outcomes were typed, not read from a picture.
    expect(inside.grade).toBe(inside.worst.value >= 0.8 ? 'proved by eye' : 'carried');
    const blown = (await rig.call('POST', '/api/recipes', recipe({ air: 'on' }))).body;
    expect(blown.grade).toBe('carried');
    expect(blown.because).toContain('air assist: on, but off on the coupon');
    expect((await rig.call('POST', '/api/recipes', recipe({ frequencyKHz: 40 }))).body.faults[0].path).toBe(
      'frequencyKHz',
    );
    const outside = (await rig.call('POST', '/api/recipes', recipe({ intervalMm: 0.1 }))).body;
    expect([outside.fit.insideHull, outside.grade, outside.number]).toEqual([false, 'carried', 3]);
    const {
      body: { records: lens },
    } = await rig.call('GET', '/api/inventory?kind=lens');
    await rig.call('PUT', `/api/inventory/${ids.lens}`, {
      version: lens[0].version,
      body: { ...storeBody('lens', ids), spotXMm: 0.17 },
    });
    expect((await rig.call('POST', '/api/recipes', recipe({}))).body.grade).toBe('carried');
    expect((await rig.call('POST', '/api/recipes', recipe({ speedMmPerS: 900 }))).body.faults[0].path).toBe(
      'speedMmPerS',
    );
  });

  it('freezes what is in force as it is fired: a later calibration or revision changes no past number', async () => {
    const { ticket } = await ticketOf();
    await withCompound(ticket);
    const { body: made } = await rig.call('POST', '/api/coupons', {
      ...{ id: randomUUID(), ticketId: ticket.id, substrateId: ids.substrate, compoundId: ids.compound },
      ...{ headId: ids.head, lensId: ids.lens, focusOffsetMm: 0, design: DESIGN },
    });
    expect(made.firing).toBeNull();
    const recalibrate = (watts: number, meteredOn: string) =>
      rig.call('POST', '/api/inventory', {
        id: randomUUID(),
        kind: 'calibration',
        body: {
          ...storeBody('calibration', ids),
          meteredOn,
          rows: [20, 100].map((percent) => ({ percent, watts: (watts * percent) / 100 })),
        },
      });
    // Between design and firing the head was metered again: what is in force at the firing counts.
    await recalibrate(40, '2026-05-01');
    await rig.call('PUT', `/api/coupons/${made.id}/burnt`, BURNT);
    await rig.call('POST', `/api/coupons/${made.id}/readings`, {
      ...{ id: randomUUID(), stage: 'scrubbed', source: 'entered', entries: [{ cell: 2, outcome: 'holds' }] },
    });
    const cells = async () =>
      (await rig.call('GET', windowAddress(ids))).body.cells.filter(({ couponId }: any) => couponId === made.id);
    const before = await cells();
    expect(before[0]).toMatchObject({ powerPercent: 100, powerW: 40, air: 'off', byEye: true });
    const [row]: any[] = await rig.sql(`SELECT firing, revisions FROM coupons WHERE id = '${made.id}'`);
    expect(row.firing.cellW[2]).toBe(40);
    expect(row.revisions.calibration).not.toBe(made.revisions.calibration);
    await recalibrate(20, '2026-06-01');
    const head = (await rig.call('GET', '/api/inventory?kind=head')).body.records.find(
      ({ id }: any) => id === ids.head,
    );
    await rig.call('PUT', `/api/inventory/${ids.head}`, { version: head.version, body: { ...head.body, ratedW: 90 } });
    expect(await cells()).toEqual(before);
    const kept = (await rig.call('GET', windowAddress(ids))).body.coupons;
    expect(kept.find(({ id }: any) => id === made.id).sameRevisions).toBe(false);
  });

  it('say where to start under another lens of the beam, and nothing of another beam', async () => {
    const { ticket } = await ticketOf();
    await withCompound(ticket);
    const elsewhere = async (id: string) => (await rig.call('GET', `/api/tickets/${id}/coupons-elsewhere`)).body;
    const add = async (kind: string, change: object) =>
      (
        await rig.call('POST', '/api/inventory', {
          ...{ id: randomUUID(), kind, body: { ...storeBody(kind as 'lens', ids), ...change } },
        })
      ).body.id as string;
    const before = (await elsewhere(ticket.id)).length;
    const lensId = await add('lens', { name: 'short lens', spotXMm: 0.1, spotYMm: 0.1 });
    const { body: made } = await rig.call('POST', '/api/coupons', {
      ...{ id: randomUUID(), ticketId: ticket.id, substrateId: ids.substrate, compoundId: ids.compound },
      ...{ headId: ids.head, lensId, focusOffsetMm: 0, design: DESIGN },
    });
    await rig.call('PUT', `/api/coupons/${made.id}/burnt`, BURNT);
    await rig.call('POST', `/api/coupons/${made.id}/readings`, {
      ...{ id: randomUUID(), stage: 'scrubbed', source: 'entered', entries: [{ cell: 2, outcome: 'holds' }] },
    });
    const found = await elsewhere(ticket.id);
    expect(found).toHaveLength(before + 1);
    expect(found.find(({ lens }: any) => lens === 'short lens')).toMatchObject({
      under: { radiusMm: 0.05 },
      cells: [{ outcome: 'holds', speedMmPerS: expect.any(Number), powerW: expect.any(Number) }],
    });
    const blue = await add('head', { name: 'Blue head', wavelengthClass: 'blue' });
    const body = ticketBody(ids, { headId: blue, lensId: await add('lens', { name: 'blue lens', headId: blue }) });
    const { body: other } = await rig.call('POST', '/api/tickets', body);
    await withCompound(other);
    // Named, with why nothing of it is carried over.
    expect(await elsewhere(other.id)).toEqual([
      expect.objectContaining({
        cells: [],
        refused: expect.stringMatching(/beam \(co2, 10600 nm\).*otherwise than blue/),
      }),
    ]);
  });
});
