import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { HEAD_CHANGE_STEPS } from '@unto/core';
import {
  DESIGN,
  fillInventory,
  openTestRig,
  runBody,
  storeBody,
  ticketBody,
  type TestRig,
  BURNT,
} from '../testing/rig.js';

let rig: TestRig;
let ids: Record<string, string>;
let ticket: string;
const cutter = { head: randomUUID(), lens: randomUUID() };

beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
  const add = (id: string, kind: 'head' | 'lens', body: object) =>
    rig.call('POST', '/api/inventory', { id, kind, body });
  await add(cutter.head, 'head', {
    ...storeBody('head', ids),
    name: 'Blue',
    wavelengthClass: 'blue',
    wavelengthNm: 455,
  });
  await add(cutter.lens, 'lens', { ...storeBody('lens', { ...ids, head: cutter.head }), name: 'Blue lens' });
  const body = ticketBody(ids);
  ticket = body.id;
  await rig.call('POST', '/api/tickets', body);
});
afterAll(() => rig.close());

const later = () => (rig.now = new Date(rig.now.getTime() + 60_000));
const page = async () => (await rig.call('GET', `/api/tickets/${ticket}`)).body;
const place = async () => (await page()).stations.find(({ station }: { station: string }) => station === 'place');
const tick = async (kind: string, code: string, station = 'place') => {
  later();
  return rig.call('POST', `/api/tickets/${ticket}/checks`, { id: randomUUID(), station, kind, code });
};
const STEPS = HEAD_CHANGE_STEPS.map(({ code }) => code);
const fit = async (headId: string, lensId: string, change: object = {}) => {
  later();
  return rig.call('POST', '/api/fittings', {
    id: randomUUID(),
    headId,
    lensId,
    ticketId: ticket,
    work: 'mark',
    steps: STEPS,
    ...change,
  });
};

describe('a ticket on two heads in turn', () => {
  it('asks focus, placing and eyewear again after the swap, and fires nothing on the wrong head', async () => {
    for (const code of ['focus', 'thickness', 'placed']) await tick('check', code);
    expect(await place()).toMatchObject({ state: 'done', word: 'in focus' });
    const cut = await fit(cutter.head, cutter.lens, { work: 'cut' });
    expect(cut.body).toMatchObject({ machineId: ids['machine'], work: 'cut', by: rig.operator });
    expect(await place()).toMatchObject({ state: 'attention', word: 'head to change' });
    expect((await page()).fitting).toMatchObject({ headId: cutter.head });
    const run = await rig.call('POST', '/api/runs', runBody(ticket));
    expect(run).toMatchObject({
      status: 409,
      body: { detail: expect.stringMatching(/^Blue with Blue lens is fitted; this is planned on CO2 with 50.8 mm/) },
    });
    const coupon = {
      ...{
        id: randomUUID(),
        ticketId: ticket,
        substrateId: ids['substrate'],
        compoundId: null,
        headId: ids['head'],
        lensId: ids['lens'],
      },
      ...{ focusOffsetMm: 0, design: DESIGN },
    };
    await rig.call('POST', '/api/coupons', coupon);
    expect((await rig.call('PUT', `/api/coupons/${coupon.id}/burnt`, BURNT)).status).toBe(409);
    await fit(ids['head']!, ids['lens']!);
    expect(await place()).toMatchObject({ state: 'open', word: '0 of 3 checked' });
    await tick('check', 'focus');
    expect(await place()).toMatchObject({ word: '1 of 3 checked' });
    expect((await rig.call('POST', '/api/runs', runBody(ticket))).status).toBe(200);
    expect((await rig.call('PUT', `/api/coupons/${coupon.id}/burnt`, BURNT)).status).toBe(200);
  });

  it('counts as fitted only with every step done, on a lens of that head', async () => {
    const half = await fit(ids['head']!, ids['lens']!, { steps: ['power-down', 'seat'] });
    expect(half.body.faults[0]).toMatchObject({ path: 'steps', message: expect.stringMatching(/Every step/) });
    expect((await fit(ids['head']!, cutter.lens)).body.faults[0]).toMatchObject({ path: 'lensId' });
    await expect(rig.sql('UPDATE fittings SET work = work')).rejects.toThrow(/append-only/);
  });
});

describe('alignment, pointer and focus', () => {
  const keep = async (kind: string, entries: object) => {
    later();
    return rig.call('POST', `/api/tickets/${ticket}/place-readings`, {
      id: randomUUID(),
      kind,
      entries,
      decision: 'taken',
      note: '',
    });
  };
  const at = (xMm: number, yMm: number) => ({ xMm, yMm });

  it('are worked out here; the pointer’s offset is there for the next ticket on this head', async () => {
    const { body: aligned } = await keep('align', { drawn: [at(0, 0), at(38, 0)], found: [at(100, 50), at(100, 88)] });
    expect(aligned[0].result.turn.value).toBeCloseTo(90, 9);
    expect(aligned[0].result.corners[2].xMm).toBeCloseTo(100 - 22, 9);
    await keep('pointer', { pairs: [{ pointerXMm: 1, pointerYMm: 2, markXMm: -31, markYMm: 6 }] });
    const other = ticketBody(ids);
    await rig.call('POST', '/api/tickets', other);
    const { body } = await rig.call('GET', `/api/tickets/${other.id}`);
    expect(body.pointer.result.x.value).toBe(-32);
    const { body: set } = await keep('set', { method: 'gauge block', offsetMm: 0.5, thicknessMm: 1.2 });
    expect(set[0].result.spot.value).toBeGreaterThan(0.165);
  });

  it('refuse one place twice, one point, and a way nobody knows', async () => {
    expect((await keep('align', { drawn: [at(0, 0), at(0, 0)], found: [at(1, 1), at(2, 2)] })).body.detail).toMatch(
      /one place/,
    );
    expect((await keep('align', { drawn: [at(0, 0)], found: [at(1, 1)] })).status).toBe(422);
    expect((await keep('set', { method: 'by ear', offsetMm: 0, thicknessMm: 1 })).status).toBe(422);
    expect((await keep('set', { method: 'twin piece', offsetMm: 0, thicknessMm: 0 })).status).toBe(422);
  });

  it('a ball is read by its diagonal, in rings', async () => {
    const { body } = await keep('round', { shape: 'sphere', nearMm: 80, farMm: 80, alongMm: 1 });
    const { strips, halfWidthMm } = body[0].result;
    expect(halfWidthMm).toBeCloseTo(Math.hypot(38, 22) / 2, 9);
    expect(strips.at(-1).toMm).toBeCloseTo(halfWidthMm, 6);
  });
});

describe('sheets', () => {
  const ENTRIES = {
    ...{
      mode: 'rows',
      sheetWidthMm: 300,
      sheetHeightMm: 200,
      labelWidthMm: null,
      labelHeightMm: null,
      gapMm: 1,
      marginMm: 5,
      keepOuts: [],
      pieceWidthMm: 38,
      pieceHeightMm: 22,
    },
    ...{ pitchXMm: null, pitchYMm: null, firstXMm: null, firstYMm: null, shiftMm: 0, testPlaces: 2, pieces: [] },
  };
  const keep = (change: object = {}) => {
    later();
    return rig.call('POST', `/api/tickets/${ticket}/sheets`, {
      id: randomUUID(),
      entries: { ...ENTRIES, ...change },
    });
  };

  it('are kept with their ticket, laid out again here', async () => {
    expect((await keep()).body).toMatchObject({ places: 56, leftOut: 0 });
    const pieces = [
      { label: 'tag', widthMm: 60, heightMm: 30, count: 40, test: false },
      { label: 'test', widthMm: 20, heightMm: 20, count: 4, test: true },
    ];
    const { body } = await keep({ mode: 'mixed', pieces });
    expect(body.places + body.leftOut).toBe(44);
    expect((await page()).sheet).toMatchObject({ places: body.places, entries: { mode: 'mixed' } });
  });

  it('refuse a sheet smaller than one blank, with the reason', async () => {
    const { status, body } = await keep({ sheetWidthMm: 30 });
    expect(status).toBe(422);
    expect(body.faults[0].message).toMatch(/Not one piece of 38 × 22 mm fits on 30 × 200 mm/);
  });
});
