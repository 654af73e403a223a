// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { layoutCoupon, predictCells, TYPICAL_PRINT, type CellMeasure } from '@unto/core';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { by, fakeServer, item, mountInShop } from '../testing/shop';
import CouponView from './CouponView.vue';
import { designOf, firstDraft } from './design-form';

const HEAD = { topSpeedMmPerS: 600, firingThresholdPercent: 7 };
const design = designOf({ ...firstDraft(HEAD), x: { ...firstDraft(HEAD).x, count: 3 } }, null, 'K-031');
const layout = layoutCoupon(design, { bed: { widthMm: 700, heightMm: 500 }, ...HEAD });
const BENCH = {
  power: { ratedW: 55 },
  motion: { kind: 'gantry' as const, accelerationMmPerS2: 5000, rapidMmPerS: 600 },
  ...{ spotXMm: 0.16, spotYMm: 0.16, conductivity: 0.0162, diffusivity: 4.05 },
};
/** What the worker answers next, and what it was asked. */
const told = vi.hoisted(() => ({
  ...{ sure: true, contrast: 50, refusal: '', crossed: '', asked: [] as any[] },
  /** Set, it holds answers back until it is called. */
  release: null as null | (() => void),
  slow: false,
}));
const measure = (cell: number): CellMeasure => ({
  ...{ cell, unreadable: cell === 2 ? 'glare' : null, bareLightness: 60, deltaE: 44, coverage: 0.98 },
  lightness: cell === 2 ? null : 60 - told.contrast,
  contrast: cell === 2 ? null : told.contrast,
  ...{ chroma: 3, evenness: 0.94, grain: 1, edgeUm: 90, halo: 0.01 },
});
vi.mock('idb-keyval', () => import('../testing/memory-storage'));
vi.mock('../workers/useComputations', () => ({
  useComputations: () => ({
    stop: () => undefined,
    core: {
      design: async () => ({
        ok: true,
        value: { layout, predictions: predictCells(layout, BENCH), runTimeS: 200, runUpMm: 20, labelDose: 5 },
      }),
      openCoupon: async () =>
        told.refusal
          ? { ok: false, code: 'reading.no-card', message: told.refusal }
          : { ok: true, value: { width: 2000, height: 1500 } },
      readCoupon: async (task: any) => {
        told.asked.push(task);
        if (told.slow) await new Promise<void>((resolve) => (told.release = resolve));
        if (told.crossed) return { ok: false, code: 'reading.points', message: told.crossed };
        const sure = told.sure || task.corners !== null;
        return {
          ok: true,
          value: { reading: readingOf(sure, task.corners), level: new Blob(['x']), levelPxMm: 0.1, tookMs: 400 },
        };
      },
    },
  }),
}));
const CORNERS = [
  { x: 1, y: 9 },
  { x: 9, y: 9 },
  { x: 9, y: 1 },
  { x: 1, y: 1 },
];
const readingOf = (sure: boolean, corners: unknown) => ({
  ...{
    card: 'A5',
    print: TYPICAL_PRINT,
    missing: [],
    reprojectionErrorMm: 0.02,
    mmPerPx: 0.1,
    blurUm: 230,
    unevenness: 1.2,
    sure,
  },
  ...{ corners: corners ?? CORNERS, code: { text: 'K-031', agrees: true }, noise: 0.5, edgeFloorUm: 80 },
  cells: sure ? layout.cells.map(({ index }) => measure(index)) : [],
});

const REVISIONS = {
  ...{ machine: 'machine-r1', head: 'head-r1', lens: 'lens-r1', substrate: 'metal-r1', compound: 'film-r1' },
  calibration: null,
};
const COUPON = {
  ...{ id: 'c1', version: 2, ticketId: 't1', substrateId: 'metal', compoundId: 'film', headId: 'head', lensId: 'lens' },
  ...{ focusOffsetMm: 0, design, stage: 'burnt', revisions: REVISIONS, createdAt: '2026-03-02T09:00:00Z', by: 'ines' },
  ...{
    burntAt: '2026-03-02T10:00:00Z',
    burntCells: null,
    burn: null,
    pictures: [] as object[],
    readings: [] as object[],
  },
};
const ITEMS = [
  item('machine', 'machine', {
    ...{ motion: 'gantry', bedWidthMm: 700, bedHeightMm: 500, topSpeedMmPerS: 600, accelerationMmPerS2: 5000 },
  }),
  item('head', 'head', { machineId: 'machine', ratedW: 55, firingThresholdPercent: 7 }),
  item('lens', 'lens', { headId: 'head', spotXMm: 0.16, spotYMm: 0.16, depthOfFocusMm: 0.5, depthGrowth: 0.05 }),
  item('substrate', 'metal', { family: 'brass', ground: 'light', conductivity: 0.12, diffusivity: 37 }),
  item('compound', 'film'),
];
const HASH = 'b'.repeat(64);
const LEVEL = 'c'.repeat(64);
const STRAIGHT = 'K-031%2C+rinsed%2C+straight.jpg';
const JPEG = new Uint8Array([0xff, 0xd8, 0xff, 0xd9]);

async function open(coupon: object = {}, tone = 'dark on light') {
  const server = fakeServer({
    '/api/coupons/c1': { ...COUPON, ...coupon },
    '/api/tickets/t1': { ticket: { id: 't1', aim: { tone } } },
    'POST /api/files?name=p.jpg': { hash: HASH, name: 'p.jpg', mediaType: 'image/jpeg', bytes: 4 },
    [`POST /api/files?name=${STRAIGHT}`]: { hash: LEVEL, name: 'straight', mediaType: 'image/jpeg', bytes: 1 },
  });
  const mounted = await mountInShop(CouponView, { props: { id: 'c1' }, items: ITEMS });
  await flushPromises();
  return { ...mounted, server };
}
async function bring(page: Awaited<ReturnType<typeof open>>['page']) {
  const input = page.find(by('picture-file'));
  Object.defineProperty(input.element, 'files', { value: [new File([JPEG], 'p.jpg')], configurable: true });
  await input.trigger('change');
  await vi.waitFor(() => {
    if (!page.find(by('reading-about')).exists() && !page.find(by('picture-fault')).exists()) throw new Error('waits');
  });
  await flushPromises();
}
const text = (page: Awaited<ReturnType<typeof open>>['page'], id: string) => page.find(by(id)).text();

beforeEach(() => {
  Object.assign(told, { sure: true, contrast: 50, refusal: '', crossed: '', asked: [], release: null, slow: false });
  URL.createObjectURL = () => 'blob:picture';
  URL.revokeObjectURL = () => undefined;
});

describe('a picture of a coupon', () => {
  it('is read, shown with what it rests on, and kept with what it proposes', async () => {
    const { page, server } = await open();
    await bring(page);
    expect(text(page, 'reading-about')).toMatch(
      /card A5 found, straightened, light levelled · 0\.1\d* mm a pixel · 23 of 24/,
    );
    expect(text(page, 'keep-readings')).toBe('Keep 23 readings, scrub next');
    await page.find(by('keep-readings')).trigger('click');
    await flushPromises();
    const [, straight, picture, reading] = server.posts();
    expect(straight!.path).toContain(STRAIGHT);
    expect(picture).toMatchObject({
      path: '/api/coupons/c1/pictures',
      body: {
        stage: 'rinsed',
        entries: { fileHash: HASH, byHand: false, cells: { length: 24 }, level: { fileHash: LEVEL, pxMm: 0.1 } },
      },
    });
    expect(reading!.body).toMatchObject({ source: 'picture', pictureId: picture!.body.id, rules: { contrast: 20 } });
    // The cell in glare is left out: nobody said anything about it.
    expect(reading!.body.entries.map(({ cell }: { cell: number }) => cell)).not.toContain(2);
  });

  it('that is kept is shown straight as it was kept, and its photograph fetched only to move its corners', async () => {
    const entries = {
      ...readingOf(true, null),
      ...{ fileHash: HASH, byHand: false, level: { fileHash: LEVEL, pxMm: 0.1 }, code: 'K-031' },
    };
    const kept = { id: 'p1', couponId: 'c1', stage: 'rinsed', entries, at: COUPON.burntAt, by: 'ines' };
    const { page, server } = await open({ stage: 'rinsed', pictures: [kept] });
    await page.find(by('stage-rinsed')).trigger('click');
    expect(page.find('image').attributes('href')).toBe(`/api/files/${LEVEL}`);
    const fetched = () => server.heard.filter(({ path }) => path === `/api/files/${HASH}`);
    expect([fetched().length, told.asked.length]).toEqual([0, 0]);
    server.answers[`/api/files/${HASH}`] = {};
    await page.find(by('move-handles')).trigger('click');
    await vi.waitFor(() => expect(page.find(by('handle-0')).exists()).toBe(true));
    expect([fetched().length, told.asked.length]).toEqual([1, 0]);
  });

  it('goes by the aim: a mark lighter than its ground is none where a dark one is wanted', async () => {
    told.contrast = -30;
    const dark = await open();
    await bring(dark.page);
    expect(text(dark.page, 'cell-proposal')).toMatch(/contrast -30 under 20/);
    const light = await open({}, 'light on dark');
    await bring(light.page);
    expect(text(light.page, 'cell-proposal')).toMatch(/within all limits/);
  });

  it('taken against is kept only with its reason', async () => {
    const { page, server } = await open();
    await bring(page);
    await page.find(by('outcome-over')).trigger('click');
    expect(page.find(by('keep-readings')).attributes('disabled')).toBeDefined();
    await page.find(by('reason')).setValue('sunken');
    await page.find(by('keep-readings')).trigger('click');
    await flushPromises();
    const reading = server.posts().at(-1)!.body;
    expect(reading.entries[0]).toEqual({ cell: 0, outcome: 'over', reason: 'sunken' });
  });

  it('without its corner marks shows handles, and is read by those that somebody moved', async () => {
    told.sure = false;
    const { page } = await open();
    await bring(page);
    expect(text(page, 'picture-fault')).toMatch(/put the four handles on them/);
    const handle = page.find(by('handle-0'));
    await handle.trigger('keydown', { key: 'ArrowRight', shiftKey: true });
    await handle.trigger('keyup', { key: 'ArrowRight' });
    await vi.waitFor(() => expect(told.asked).toHaveLength(2));
    await flushPromises();
    expect(told.asked[1].corners[0]).toEqual({ x: 11, y: 9 });
    expect(page.find(by('reading-about')).exists()).toBe(true);
    await page.find(by('move-handles')).trigger('click');
    expect(page.find(by('coupon-grid')).exists()).toBe(true);
  });

  it('keeps a handle moved while the last place was still being read: the answer that came too late is let go', async () => {
    told.sure = false;
    const { page } = await open();
    await bring(page);
    const right = async () => {
      await page.find(by('handle-0')).trigger('keydown', { key: 'ArrowRight', shiftKey: true });
      await page.find(by('handle-0')).trigger('keyup', { key: 'ArrowRight' });
    };
    told.slow = true;
    await right();
    await vi.waitFor(() => expect(told.release).not.toBeNull());
    const late = told.release!;
    told.slow = false;
    await right();
    late();
    await flushPromises();
    expect(page.find(by('handle-0')).attributes('aria-label')).toMatch(/mark, 21, 9;/);
    await vi.waitFor(() => expect(told.asked).toHaveLength(3));
    await flushPromises();
    expect(told.asked[2].corners[0]).toEqual({ x: 21, y: 9 });
    expect(page.find(by('handle-0')).attributes('aria-label')).toMatch(/mark, 21, 9;/);
  });

  it('by corners that cross is refused in words, and nothing read before can be kept under them', async () => {
    const { page } = await open();
    await bring(page);
    await page.find(by('move-handles')).trigger('click');
    told.crossed = 'The corners cross: they run from the lower left one counter-clockwise.';
    await page.find(by('handle-1')).trigger('keydown', { key: 'ArrowUp', shiftKey: true });
    await page.find(by('handle-1')).trigger('keyup', { key: 'ArrowUp' });
    await vi.waitFor(() => expect(text(page, 'picture-fault')).toMatch(/corners cross/));
    expect(page.find(by('keep-readings')).exists()).toBe(false);
    expect(page.find(by('handle-1')).exists()).toBe(true);
  });

  it('refused says why and leaves the marks by eye as they were', async () => {
    const { page } = await open();
    await page.find(by('brush-under')).trigger('click');
    await page.find(by('cell-1')).trigger('pointerdown');
    told.refusal = 'No reference card is in this picture.';
    await bring(page);
    expect(text(page, 'picture-fault')).toMatch(/No reference card/);
    expect(text(page, 'keep-outcomes')).toBe('Keep 1 outcome');
  });
});

describe('a coupon partly burnt', () => {
  it('proposes nothing for the cells that were never burnt', async () => {
    const { page } = await open({ burntCells: [0, 1, 3] });
    await bring(page);
    expect(text(page, 'keep-readings')).toBe('Keep 3 readings, scrub next');
  });
});
