// @vitest-environment happy-dom
import { flushPromises, type VueWrapper } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import PlaceStation from './PlaceStation.vue';
import { by, item } from '../testing/shop';
import { mountOnTicket } from '../testing/ticket';
import { brokenRows, pastedRows, wholeRows, type NumberColumn } from './rows';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));
afterEach(() => vi.unstubAllGlobals());

const COLUMNS: readonly NumberColumn[] = [
  { key: 'x', label: 'x', unit: 'mm' },
  { key: 'y', label: 'y', unit: 'mm' },
];

describe('rows of readings', () => {
  it('count when they are whole, and say which are not', () => {
    const rows = [
      { x: 1, y: 2 },
      { x: 3, y: Number.NaN },
      { x: Number.NaN, y: Number.NaN },
    ];
    expect(wholeRows(COLUMNS, rows)).toEqual([{ x: 1, y: 2 }]);
    expect(brokenRows(COLUMNS, rows)).toEqual([1]);
  });

  it('come from pasted lines with tabs, semicolons or blanks, decimals with comma or point', () => {
    expect(pastedRows(COLUMNS, '1\t2,5\r\n3;4\n5 6.25')).toEqual([
      { x: 1, y: 2.5 },
      { x: 3, y: 4 },
      { x: 5, y: 6.25 },
    ]);
    expect(pastedRows(COLUMNS, '12,5')).toBeNull();
    expect(pastedRows(COLUMNS, '1\tup')![0]!['y']).toBeNaN();
  });
});

const TICKET = {
  id: 't',
  version: 1,
  title: 'Strip',
  pieces: 2,
  markWidthMm: 60,
  markHeightMm: 20,
  substrateId: 'metal',
  headId: 'head',
  lensId: 'lens',
  compoundId: null,
  foodUse: false,
};
const ITEMS = [
  item('substrate', 'metal', { family: 'stainless', layer: 'bare', thicknessMm: 0.6, diameterMm: 90 }),
  item('machine', 'machine'),
  item('head', 'head', { machineId: 'machine', wavelengthClass: 'co2', eyewear: 'the clear pair' }),
  item('lens', 'lens', { headId: 'head', spotXMm: 0.165, spotYMm: 0.165, depthOfFocusMm: 0.5, depthGrowth: 0.05 }),
];
async function open(task: string, page: object = {}) {
  const mounted = await mountOnTicket(PlaceStation, { ticket: TICKET, page, items: ITEMS });
  await mounted.page.find(by(`place-${task}`)).trigger('click');
  return mounted;
}
async function typeRows(page: VueWrapper, name: string, rows: readonly Record<string, number>[]) {
  for (const [i, row] of rows.entries()) {
    if (!page.find(by(`${name}-${i}-${Object.keys(row)[0]}`)).exists())
      await page.find(by(`${name}-add`)).trigger('click');
    for (const [key, value] of Object.entries(row)) await page.find(by(`${name}-${i}-${key}`)).setValue(String(value));
  }
}

describe('a dot hunt', () => {
  it('says what is missing, then where the waist lies and how deep the focus is', async () => {
    const { page, server } = await open('focus');
    expect(page.find(by('focus-fault')).text()).toMatch(/three dots/);
    await typeRows(
      page,
      'dot',
      [-2, -1, 0, 1, 2].map((z) => ({ heightMm: z, widthMm: Number((0.1 * Math.sqrt(1 + z * z)).toFixed(4)) })),
    );
    expect(page.find(by('focus-height')).text()).toMatch(/0[\s\S]*mm[\s\S]*Measured/);
    expect(page.find(by('focus-depth')).text()).toMatch(/0\.320mm/);
    expect(page.find(by('caustic')).exists()).toBe(true);
    await page.find(by('keep-focus')).trigger('click');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({
      path: '/api/tickets/t/place-readings',
      body: { kind: 'focus', decision: 'taken', entries: { growth: 0.05 } },
    });
    expect(server.posts()[0]!.body.entries.dots).toHaveLength(5);
  });

  it('warns of a best height outside the dots', async () => {
    const { page } = await open('focus');
    await typeRows(
      page,
      'dot',
      [1, 2, 3, 4].map((z) => ({ heightMm: z, widthMm: Number((0.1 * Math.sqrt(1 + z * z)).toFixed(4)) })),
    );
    expect(page.text()).toMatch(/outside the dots: hunt farther that way/);
  });
});

describe('flatness', () => {
  const strip = (rise: number) => [
    { xMm: 0, yMm: 0, heightMm: 0 },
    { xMm: 60, yMm: 0, heightMm: rise },
    { xMm: 60, yMm: 20, heightMm: rise },
    { xMm: 0, yMm: 20, heightMm: 0 },
    { xMm: 30, yMm: 10, heightMm: rise / 2 },
  ];

  it.each([
    [0.4, /Flat enough/, 'Take it as it lies', 'taken'],
    [0.9, /Refocus\. One height reaches 100 %: set the focus to 0\.45\smm/, 'Refocused to 0.45', 'refocused'],
    [1.8, /Clamp it, or mark in steps[\s\S]*2 steps of focus reach all of it/, 'Mark in 2 steps', 'in steps'],
    [9, /Not like this\. It would take \d+ steps/, 'Clamped, read again', 'clamped'],
  ])('a rise of %d mm: %s', async (rise, advice, label, decision) => {
    const { page, server } = await open('flatness');
    await typeRows(page, 'height', strip(rise));
    expect(page.find(by('flatness-advice')).text()).toMatch(advice);
    expect(page.find(by('warp-map')).exists()).toBe(true);
    expect(page.find(by('keep-flatness')).text()).toContain(label);
    await page.find(by('keep-flatness')).trigger('click');
    await flushPromises();
    expect(server.posts()[0]!.body).toMatchObject({ kind: 'flatness', decision, entries: { focusMm: 0 } });
  });

  it('lets a piece be rejected, and names readings that contradict', async () => {
    const { page, server } = await open('flatness');
    await typeRows(page, 'height', [...strip(1.8), { xMm: 60, yMm: 0, heightMm: 3 }]);
    expect(page.find(by('flatness-fault')).text()).toMatch(/Readings 2 and 6 are of one place and differ by 1\.20 mm/);
    await page.findAll('.rows .link')[5]!.trigger('click');
    await page.find(by('reject-piece')).trigger('click');
    await flushPromises();
    expect(server.posts()[0]!.body).toMatchObject({ decision: 'rejected' });
  });

  it('begins on what was read last', async () => {
    const entries = { readings: strip(0.4), focusMm: 0.2 };
    const { page } = await open('flatness', {
      placeReadings: [
        { id: 'r', kind: 'flatness', entries, decision: 'taken', at: '2026-03-01T09:00:00Z', by: 'ines' },
      ],
    });
    expect((page.find(by('focus-at')).element as HTMLInputElement).value).toBe('0.2');
    expect(page.find(by('in-focus')).text()).toMatch(/100%/);
    await page.find(by('place-checks')).trigger('click');
    expect(page.find(by('place-history')).text()).toMatch(/flatness, taken/);
  });
});

describe('round parts and centres', () => {
  it('turn artwork into degrees, and say what lying still would take', async () => {
    const { page } = await open('round');
    expect(page.find(by('mm-per-degree')).text()).toMatch(/0\.7854mm\/°/);
    expect(page.find(by('degrees')).text()).toMatch(/76\.39°/);
    // R 45, ± 0.5 mm: chord 18.9 mm; 60 mm wide falls 11.46 mm: twelve strips a side.
    expect(page.find(by('lying-still')).text()).toMatch(/18\.9\smm[\s\S]*60\smm take 12 heights, in 23 strips/);
    await page.find(by('far-mm')).setValue('95');
    expect(page.find(by('round-fault')).text()).toMatch(/were the two swapped/);
    await page.find(by('far-mm')).setValue('80');
    expect(page.find(by('taper')).text()).toMatch(/tilt the part by[\s\S]*13 % wider/);
  });

  it('find the centre of a rim and keep it', async () => {
    const { page, server } = await open('centre');
    await typeRows(page, 'rim', [
      { xMm: 50, yMm: 10 },
      { xMm: 10, yMm: 50 },
      { xMm: -30, yMm: 10 },
    ]);
    expect(page.find(by('centre-diameter')).text()).toMatch(/80\.00mm/);
    expect(page.find(by('rim-plot')).exists()).toBe(true);
    await page.find(by('keep-centre')).trigger('click');
    await flushPromises();
    expect(server.posts()[0]!.body).toMatchObject({
      kind: 'centre',
      entries: { points: [{ xMm: 50 }, { xMm: 10 }, { xMm: -30 }] },
    });
  });
});
