import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DESIGN, fillInventory, openTestRig, storeBody, ticketBody, type TestRig } from '../testing/rig.js';

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
  const { id, number: _n, createdAt: _c, changedAt: _d, ...fields } = ticket;
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
  await rig.call('PUT', `/api/coupons/${id}/burnt`, { version: 1 });
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
    await rig.call('PUT', `/api/coupons/${coupon.id}/burnt`, { version: 1 });
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
      passes: 1,
      focusOffsetMm: 0,
      seed: 7,
      ...change,
    });
    const inside = (await rig.call('POST', '/api/recipes', recipe({}))).body;
    expect(inside.fit).toMatchObject({ seed: 7, bound: 0.8, cells: 12, insideHull: true });
    expect(['proved', 'carried']).toContain(inside.grade);
    expect(inside.grade).toBe(inside.worst.value >= 0.8 ? 'proved' : 'carried');
    const outside = (await rig.call('POST', '/api/recipes', recipe({ intervalMm: 0.1 }))).body;
    expect([outside.fit.insideHull, outside.grade, outside.number]).toEqual([false, 'carried', 2]);
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
});
