import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { PLAIN_SETTING, usualRules } from '@unto/core';
import { couponRules } from '@unto/domain';
import {
  BURNT,
  DESIGN,
  fillInventory,
  FIRED,
  openTestRig,
  ticketBody,
  type TestRig,
  keptFile,
} from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig({ works: true });
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

beforeEach(() => {
  rig.devices.camera = null;
});

async function newCoupon(change: object = {}) {
  const ticket = ticketBody(ids);
  await rig.call('POST', '/api/tickets', ticket);
  const { body } = await rig.call('POST', '/api/coupons', {
    id: randomUUID(),
    ticketId: ticket.id,
    substrateId: ids.substrate,
    compoundId: ids.compound,
    headId: ids.head,
    lensId: ids.lens,
    focusOffsetMm: 0,
    design: { ...DESIGN, ...change },
  });
  return body;
}
const JPEG = Buffer.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3]);

/** A burnt coupon, and a picture of it whose cells have some contrasts. */
async function burntCoupon() {
  const coupon = await newCoupon();
  return (await rig.call('PUT', `/api/coupons/${coupon.id}/burnt`, BURNT)).body;
}
let files = 0;
async function nextPicture(): Promise<string> {
  files += 1;
  return keptFile(rig, 'p.jpg', Buffer.concat([JPEG, Buffer.from([files])]));
}
const cell = (index: number, contrast: number | null, change: object = {}) => ({
  ...{ cell: index, unreadable: contrast === null ? 'glare' : null },
  ...{ lightness: contrast === null ? null : 70 - contrast, bareLightness: contrast === null ? null : 70 },
  ...{ contrast, deltaE: contrast, coverage: contrast === null ? null : 1, evenness: contrast === null ? null : 0.95 },
  ...{
    chroma: contrast === null ? null : 3,
    grain: contrast === null ? null : 1,
    edgeUm: contrast === null ? null : 90,
    halo: contrast === null ? null : 0,
  },
  ...change,
});
async function pictured(
  couponId: string,
  stage: string,
  contrasts: (number | null)[],
  fileHash?: string,
  change: (index: number) => object = () => ({}),
  code: object = {},
) {
  const [{ own }] = (await rig.sql<{ own: string }>(
    `SELECT design ->> 'code' AS own FROM coupons WHERE id = '${couponId}'`,
  )) as [{ own: string }];
  const picture = {
    id: randomUUID(),
    stage,
    entries: {
      ...{
        fileHash: fileHash ?? (await nextPicture()),
        card: 'A5',
        reprojectionErrorMm: 0.03,
        mmPerPx: 0.11,
        blurUm: 230,
      },
      ...{ unevenness: 1.2, byHand: false, code: own, noise: 0.4, edgeFloorUm: 80, ...code },
      corners: [0, 1, 2, 3].map((i) => ({ x: 10 * i, y: 5 })),
      cells: contrasts.map((contrast, i) => cell(i, contrast, change(i))),
    },
  };
  return { picture, ...(await rig.call('POST', `/api/coupons/${couponId}/pictures`, picture)) };
}
const FULL = Array.from({ length: 12 }, () => 50);

describe('pictures of a coupon', () => {
  it('are kept with every cell, and what they propose is worked out again from their measures', async () => {
    const coupon = await burntCoupon();
    const { body: first } = await pictured(coupon.id, 'rinsed', FULL);
    expect(first.pictures[0]).toMatchObject({ stage: 'rinsed', entries: { cells: { length: 12 } } });
    const after = FULL.map((_, i) => (i < 4 ? 4 : i === 11 ? null : 49));
    const { picture } = await pictured(coupon.id, 'scrubbed', after);
    const rules = usualRules('dark on light');
    const reading = (entries: object[]) =>
      rig.call('POST', `/api/coupons/${coupon.id}/readings`, {
        ...{ id: randomUUID(), stage: 'scrubbed', source: 'picture', pictureId: picture.id, rules, entries },
      });
    const refused = await reading([{ cell: 0, outcome: 'holds' }]);
    expect(refused.body.faults[0].message).toMatch(/Cell 1 was taken as other than the picture proposes: say why/);
    const unread = await reading([{ cell: 11, outcome: 'holds' }]);
    expect(unread.body.faults[0].message).toMatch(/other than the picture can tell/);
    const { body } = await reading([
      { cell: 0, outcome: 'under' },
      { cell: 1, outcome: 'holds', reason: 'dirt on it, wiped off' },
      { cell: 6, outcome: 'holds' },
    ]);
    expect(body.stage).toBe('scrubbed');
    const [kept] = await rig.sql<{ entries: unknown; rules: unknown; picture_id: string }>(
      `SELECT entries, rules, picture_id FROM readings WHERE coupon_id = '${coupon.id}'`,
    );
    expect(kept).toEqual({
      entries: [
        { cell: 0, outcome: 'under', proposed: 'under', kept: 0.08 },
        { cell: 1, outcome: 'holds', proposed: 'under', kept: 0.08, reason: 'dirt on it, wiped off' },
        { cell: 6, outcome: 'holds', proposed: 'holds', kept: 0.98 },
      ],
      rules,
      picture_id: picture.id,
    });
  });

  it('with a scorched cell propose too much by its tint, unless the rules ask no tint of it', async () => {
    const coupon = await burntCoupon();
    const brown = (i: number) => (i === 3 ? { chroma: 19 } : {});
    const { picture } = await pictured(coupon.id, 'scrubbed', FULL, undefined, brown);
    const reading = (rules: object) =>
      rig.call('POST', `/api/coupons/${coupon.id}/readings`, {
        ...{ id: randomUUID(), stage: 'scrubbed', source: 'picture', pictureId: picture.id, rules },
        entries: [{ cell: 3, outcome: 'holds' }],
      });
    expect((await reading(usualRules('dark on light'))).body.faults[0].message).toMatch(/Cell 4 was taken as other/);
    const { chroma: _, ...without } = usualRules('dark on light');
    const { status, body: refused } = await reading(without);
    expect([status, refused.faults[0].message]).toEqual([422, expect.stringMatching(/Chroma/)]);
    const { body } = await reading(couponRules('dark on light', { colour: 'copper tone' }));
    expect(body.readings[0].entries).toEqual([{ cell: 3, outcome: 'holds', proposed: 'holds' }]);
  });

  it('are refused before the coupon is burnt, as before and after at once, of another coupon, or with cells missing', async () => {
    const designed = await newCoupon();
    expect((await pictured(designed.id, 'rinsed', FULL)).body.detail).toMatch(/not burnt yet/);
    const [one, other] = [await burntCoupon(), await burntCoupon()];
    const hash = await nextPicture();
    expect((await pictured(one.id, 'rinsed', FULL, hash)).status).toBe(200);
    expect((await pictured(one.id, 'scrubbed', FULL, hash)).body.faults[0].message).toMatch(/kept as rinsed/);
    expect((await pictured(other.id, 'rinsed', FULL, hash)).body.faults[0].message).toMatch(/read for K-\d+ already/);
    expect((await pictured(other.id, 'rinsed', FULL.slice(1))).body.faults[0].message).toMatch(/has 12 cells/);
    expect((await pictured(other.id, 'rinsed', FULL, 'a'.repeat(64))).body.faults[0].message).toMatch(/not kept here/);
    expect(await rig.sql(`SELECT id FROM coupon_pictures WHERE coupon_id = '${other.id}'`)).toEqual([]);
    await expect(rig.sql(`DELETE FROM coupon_pictures WHERE coupon_id = '${one.id}'`)).rejects.toThrow();
  });

  it('whose code cannot be read are kept once somebody looked at the coupon; of another code never', async () => {
    const coupon = await burntCoupon();
    const withCode = (code: object) => pictured(coupon.id, 'rinsed', FULL, undefined, undefined, code);
    const [, digits] = coupon.design.code.split('-');
    const asked = await withCode({ code: `?-${digits}` });
    expect([asked.status, asked.body.faults[0]]).toEqual([
      422,
      { path: 'entries.code', message: expect.stringMatching(new RegExp(`is this ${coupon.design.code}\\?`)) },
    ]);
    const other = { code: `L-${digits}`, codeConfirmed: true };
    expect((await withCode(other)).body.faults[0].message).toMatch(/shows L-\d+, not K-/);
    expect((await withCode({ code: `?-${digits}`, codeConfirmed: true })).status).toBe(200);
  });

  it('are taken by the camera with the blank before it; a camera that goes away loses nothing', async () => {
    const coupon = await burntCoupon();
    const ask = () => rig.call('POST', `/api/coupons/${coupon.id}/camera`, { stage: 'rinsed' });
    expect((await ask()).body.detail).toMatch(/No camera is tied/);
    rig.devices.camera = { takePicture: async () => JPEG };
    expect((await rig.cameOf(ask())).picture).toMatchObject({ mediaType: 'image/jpeg' });
    expect(rig.scenes).toMatchObject([
      { at: 'camera', kind: 'coupon', stage: 'rinsed', setup: { key: coupon.design.code } },
    ]);
    rig.devices.camera = { takePicture: () => Promise.reject(new Error('gone')) };
    expect(await rig.cameOf(ask())).toMatchObject({
      ...{ state: 'failed', picture: null, fault: expect.stringMatching(/what was read before is kept/i) },
    });
  });
});

describe('a step test on the one piece there is', () => {
  const REST = { ...PLAIN_SETTING, directions: 'two-way', ...FIRED };
  const step = (ticketId: string, speedMmPerS: number, outcome: string) =>
    rig.call('POST', `/api/tickets/${ticketId}/test-steps`, {
      ...{ id: randomUUID(), powerPercent: 90, speedMmPerS, intervalMm: 0.06, outcome, note: 'inside the foot' },
      ...REST,
    });
  const recipe = (ticketId: string, speedMmPerS: number) =>
    rig.call('POST', '/api/recipes', {
      ...{ id: randomUUID(), ticketId, kind: 'step test', couponIds: [], powerPercent: 90, speedMmPerS },
      ...{ intervalMm: 0.06, seed: 0 },
      ...REST,
    });

  it('ends at the first cell that holds, and proves that setting for that piece alone', async () => {
    const ticket = ticketBody(ids, { pieces: 1 });
    await rig.call('POST', '/api/tickets', ticket);
    await step(ticket.id, 480, 'lost');
    const { body } = await step(ticket.id, 300, 'holds');
    expect(body.map(({ outcome }: { outcome: string }) => outcome)).toEqual(['lost', 'holds']);
    expect((await step(ticket.id, 200, 'over')).body.detail).toMatch(/ended at the cell that held/);
    expect((await recipe(ticket.id, 480)).body.faults[0].message).toMatch(/No tiny cell held at this setting/);
    expect((await recipe(ticket.id, 300)).body).toMatchObject({
      kind: 'step test',
      grade: 'proved by eye',
      worst: null,
    });
    const batch = ticketBody(ids, { pieces: 4 });
    await rig.call('POST', '/api/tickets', batch);
    await step(batch.id, 300, 'holds');
    expect((await recipe(batch.id, 300)).body.faults[0].message).toMatch(/Prove a batch on a coupon/);
    await expect(rig.sql(`DELETE FROM test_steps WHERE ticket_id = '${ticket.id}'`)).rejects.toThrow();
  });
});
