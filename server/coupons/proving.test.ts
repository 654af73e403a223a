import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { PLAIN_SETTING, usualRules } from '@unto/core';
import type { Controller, ControllerJob, ControllerReport } from '@unto/contract';
import { couponRules } from '@unto/domain';
import {
  BURNT,
  DESIGN,
  fillInventory,
  FIRED,
  openTestRig,
  storeBody,
  ticketBody,
  type TestRig,
} from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

/** A controller of the test: what it was sent, and what it says next. */
class TestController implements Controller {
  sent: ControllerJob[] = [];
  acted: string[] = [];
  away = false;
  says: Partial<ControllerReport> = {};

  private answer(): ControllerReport {
    if (this.away) throw new Error('away');
    const id = this.sent.at(-1)?.id ?? '';
    const base = {
      id,
      state: id ? 'running' : 'idle',
      elapsedS: 3,
      totalS: 90,
      cellsDone: [],
      cell: null,
      message: '',
    };
    return { ...base, ...this.says } as ControllerReport;
  }
  send = async (job: ControllerJob) => {
    this.sent.push(job);
    return this.answer();
  };
  report = async () => this.answer();
  act = async (action: string) => {
    this.acted.push(action);
    return this.answer();
  };
}
let head: TestController;
beforeEach(() => {
  head = new TestController();
  rig.devices.controller = head;
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
const start = (coupon: { id: string; version: number }) =>
  rig.call('POST', `/api/coupons/${coupon.id}/burns`, {
    id: randomUUID(),
    version: coupon.version,
    laserOn: 'M3',
    air: 'off',
    extraction: 'on',
  });
const look = (burn: { id: string }) => rig.call('PUT', `/api/burns/${burn.id}/look`);
const row = async (id: string) =>
  (
    await rig.sql<{ state: string; attempt: number; cells_done: number[] }>(`SELECT * FROM burns WHERE id = '${id}'`)
  )[0]!;

describe('a coupon on the controller', () => {
  it('is sent as its own program with what lies under the head, followed, and burnt when it is done', async () => {
    const coupon = await newCoupon();
    const { body: sent } = await start(coupon);
    expect(sent.burn).toMatchObject({ state: 'running', elapsedS: 3, totalS: 90 });
    const [job] = head.sent;
    expect(job!.program).toMatch(/^\(coupon K-\d+, 12 cells\)/);
    expect(job!.setup).toMatchObject({ key: coupon.design.code, family: 'stainless', ratedW: 55, radiusMm: 0.0825 });
    expect(job!.setup).toMatchObject({ batch: coupon.ticketId ?? '', focusMm: 0 });
    expect(job!.setup.blocks[0]).toMatchObject({ fromMm: 0, compound: 'Corvid Film', powder: false });
    expect((await start(coupon)).body.detail).toMatch(/sent already/);
    head.says = { cellsDone: [0, 1], cell: 2, elapsedS: 40 };
    expect((await look(sent.burn)).body.burn).toMatchObject({ cellsDone: [0, 1], cell: 2, elapsedS: 40 });
    head.says = { state: 'done', cellsDone: Array.from({ length: 12 }, (_, i) => i) };
    const { body: done } = await look(sent.burn);
    expect([done.stage, done.burn.state, done.burntCells]).toEqual(['burnt', 'done', null]);
    expect(await row(sent.burn.id)).toMatchObject({ state: 'done', attempt: 1 });
  });

  it('pauses, goes on and stops; a stop leaves what was burnt to be settled', async () => {
    const { body } = await start(await newCoupon());
    head.says = { state: 'paused' };
    const act = (action: string) => rig.call('PUT', `/api/burns/${body.burn.id}/act`, { action });
    expect((await act('pause')).body.burn.state).toBe('paused');
    head.says = { state: 'stopped', cellsDone: [] };
    expect((await act('stop')).body.burn.state).toBe('stopped');
    expect(head.acted).toEqual(['pause', 'stop']);
    const none = await rig.call('PUT', `/api/burns/${body.burn.id}/settle`, { as: 'partly' });
    expect(none.body.detail).toMatch(/no cell was burnt whole/i);
  });

  it('that drops in the middle keeps what was seen, and burns the other cells when asked', async () => {
    const coupon = await newCoupon();
    const { body } = await start(coupon);
    head.says = { cellsDone: [0, 1, 2, 3] };
    await look(body.burn);
    head.away = true;
    expect((await look(body.burn)).body.burn).toMatchObject({ state: 'dropped', cellsDone: [0, 1, 2, 3] });
    expect((await start(coupon)).status).toBe(409);
    expect((await rig.call('PUT', `/api/burns/${body.burn.id}/act`, { action: 'stop' })).body.detail).toMatch(
      /own switch/,
    );
    head.away = false;
    head.says = { cellsDone: [4] };
    const { body: again } = await rig.call('PUT', `/api/burns/${body.burn.id}/settle`, { as: 'resume' });
    expect(again.burn).toMatchObject({ state: 'running', cellsDone: [0, 1, 2, 3, 4] });
    const { program } = head.sent.at(-1)!;
    expect(program).not.toMatch(/\(label|\(cell 4 /);
    expect(program).toMatch(/\(cell 5 /);
    expect(await row(body.burn.id)).toMatchObject({ attempt: 2, cells_done: [0, 1, 2, 3, 4] });
  });

  it('taken as partly done, takes outcomes of the burnt cells alone', async () => {
    const { body } = await start(await newCoupon());
    head.says = { state: 'stopped', cellsDone: [0, 1, 2] };
    await look(body.burn);
    const { body: settled } = await rig.call('PUT', `/api/burns/${body.burn.id}/settle`, { as: 'partly' });
    expect([settled.stage, settled.burntCells]).toEqual(['burnt', [0, 1, 2]]);
    const read = (cell: number) =>
      rig.call('POST', `/api/coupons/${settled.id}/readings`, {
        id: randomUUID(),
        stage: 'rinsed',
        source: 'entered',
        entries: [{ cell, outcome: 'holds' }],
      });
    expect((await read(5)).body.faults[0].message).toMatch(/Cell 6 was never burnt/);
    expect((await read(2)).status).toBe(200);
  });

  it('is refused over a wet coat, on a busy head, without a controller, and on a head that takes no G-code', async () => {
    const coupon = await newCoupon();
    head.says = { id: `${randomUUID()} 1`, state: 'running' };
    expect((await start(coupon)).body.detail).toMatch(/busy/);
    head.says = {};
    const clock = { id: randomUUID(), kind: 'dry', label: 'coupon', minimumS: 600 };
    await rig.call('POST', `/api/tickets/${coupon.ticketId}/timers`, clock);
    expect((await start(coupon)).body.detail).toMatch(/Never fire a wet coat/);
    await rig.call('PUT', `/api/timers/${clock.id}/end`, { outcome: 'dropped' });
    rig.devices.controller = null;
    expect((await start(coupon)).body).toMatchObject({ status: 502, detail: expect.stringMatching(/No controller/) });
    rig.devices.controller = head;
    const galvo = {
      id: randomUUID(),
      kind: 'machine',
      body: { ...storeBody('machine'), name: 'Post', motion: 'galvo' },
    };
    await rig.call('POST', '/api/inventory', galvo);
    const own = { machine: galvo.id, head: randomUUID(), lens: randomUUID() };
    for (const kind of ['head', 'lens'] as const)
      await rig.call('POST', '/api/inventory', { id: own[kind], kind, body: storeBody(kind, { ...ids, ...own }) });
    const { body: other } = await rig.call('POST', '/api/coupons', {
      ...{ id: randomUUID(), ticketId: null, substrateId: ids.substrate, compoundId: null, focusOffsetMm: 0 },
      ...{ headId: own.head, lensId: own.lens, design: DESIGN },
    });
    expect((await start(other)).body.detail).toMatch(/takes no G-code/);
    expect(await rig.sql(`SELECT id FROM burns WHERE coupon_id IN ('${coupon.id}', '${other.id}')`)).toEqual([]);
  });
});

const JPEG = Buffer.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3]);

/** A burnt coupon, and a picture of it whose cells have some contrasts. */
async function burntCoupon() {
  const coupon = await newCoupon();
  return (await rig.call('PUT', `/api/coupons/${coupon.id}/burnt`, BURNT)).body;
}
let files = 0;
async function keptFile(): Promise<string> {
  files += 1;
  const response = await fetch(`${rig.base}/api/files?name=p.jpg`, {
    method: 'POST',
    headers: { 'content-type': 'image/jpeg', 'x-unto-operator': rig.operator },
    body: Buffer.concat([JPEG, Buffer.from([files])]),
  });
  return ((await response.json()) as { hash: string }).hash;
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
        fileHash: fileHash ?? (await keptFile()),
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
        { cell: 0, outcome: 'under', proposed: 'under' },
        { cell: 1, outcome: 'holds', proposed: 'under', reason: 'dirt on it, wiped off' },
        { cell: 6, outcome: 'holds', proposed: 'holds' },
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
    const hash = await keptFile();
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
    let scene: unknown;
    rig.devices.camera = { take: async (asked) => ((scene = asked), JPEG) };
    expect((await ask()).body).toMatchObject({ mediaType: 'image/jpeg' });
    expect(scene).toMatchObject({ kind: 'coupon', stage: 'rinsed', setup: { key: coupon.design.code } });
    rig.devices.camera = { take: () => Promise.reject(new Error('gone')) };
    expect((await ask()).body).toMatchObject({
      status: 502,
      detail: expect.stringMatching(/what was read before is kept/i),
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

describe('papers', () => {
  const pages = async (path: string) => {
    const response = await fetch(rig.base + path);
    const text = Buffer.from(await response.arrayBuffer()).toString('latin1');
    return { type: response.headers.get('content-type'), text };
  };

  it('are PDFs at true scale: card, step scale, working sheet', async () => {
    const coupon = await newCoupon({ bareStrip: true, anchors: true });
    const card = await pages('/api/card.pdf?size=A4');
    expect(card.type).toBe('application/pdf');
    expect(card.text).toMatch(/^%PDF-/);
    // A4 landscape in points of 1/72 in: 297 × 210 mm.
    expect(card.text).toMatch(/MediaBox \[0 0 841.88\d* 595.27\d*\]/);
    expect((await pages('/api/step-scale.pdf')).text).toMatch(/^%PDF-/);
    expect((await pages(`/api/coupons/${coupon.id}/sheet.pdf`)).text).toMatch(/^%PDF-/);
    expect((await pages('/api/card.svg')).text).toMatch(/width="210mm" height="148mm"/);
  });
});
