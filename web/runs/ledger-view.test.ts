// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { by, choose, fakeServer, item, mountInShop } from '../testing/shop';
import LedgerView from './LedgerView.vue';
import SideBySide from './SideBySide.vue';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));
beforeEach(() => {
  localStorage.clear();
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const record = (n: number, change: object = {}) => ({
  ...{ id: id(n), ticketId: id(1), recipeId: null, correctsId: null, pieces: 6, minutes: 9, minutesFrom: 'typed' },
  ...{
    power: { value: 90, unit: '%' },
    speed: { value: 100 + n, unit: 'mm/s' },
    interval: { value: 0.06, unit: 'mm' },
  },
  ...{ passes: 1, hatches: 1, angleDeg: 0, fill: 'filled', focusOffsetMm: 0, frequencyKHz: null, pulseNs: null },
  ...{ directions: 'two-way', powerMode: null, air: 'off', extraction: 'on', powerPercent: 90, powerW: 38 },
  ...{ speedMmPerS: 100 + n, intervalMm: 0.06, dose: null, grade: 'proved', because: [], bench: null, note: '' },
  ...{ at: `2026-03-0${n}T10:00:00.000Z`, by: 'ines', ticketNumber: 7, ticketTitle: 'Tags', substrateId: id(2) },
  ...{ substrateName: 'Stainless', compoundId: id(3), compoundName: 'Corvid', headId: id(4), headName: 'Long bench' },
  ...{ lensName: '50.8 mm', revisions: {}, correctedById: null, cleaning: null, judgement: null, reason: '' },
  ...change,
});
const PAGE = { records: [record(6), record(5)], next: null };
const ITEMS = [item('substrate', id(2), { name: 'Stainless' }), item('compound', id(3), { name: 'Corvid' })];

async function open(path = '/ledger', answers: Record<string, unknown> = {}) {
  const server = fakeServer({
    ...{ '/api/ledger': PAGE, '/api/ledger?limit=50': PAGE, '/api/ledger/filters': [] },
    '/api/ledger/choices': { canLots: ['K5', 'K7'], blankLots: [] },
    ...answers,
  });
  // The ledger answers the same whatever is asked of it.
  const { fetch: plain } = globalThis;
  vi.stubGlobal('fetch', async (asked: string, init?: RequestInit) => {
    const answered = await plain(asked, init);
    return /^\/api\/ledger(\?|$)/.test(asked) ? new Response(JSON.stringify(PAGE), { status: 200 }) : answered;
  });
  const mounted = await mountInShop(LedgerView, { items: ITEMS, path });
  await flushPromises();
  return { ...mounted, server };
}
const press = async (page: any, selector: string, i = 0) => {
  await page.findAll(selector)[i].trigger('click');
  await flushPromises();
};

describe('the ledger', () => {
  it('asks for words once nobody types for a moment, and keeps them in the address', async () => {
    const { page, router, server } = await open();
    await page.find(by('ledger-text')).setValue('sund');
    await page.find(by('ledger-text')).setValue('sundial');
    expect(router.currentRoute.value.query).toEqual({});
    vi.advanceTimersByTime(300);
    await flushPromises();
    expect(router.currentRoute.value.query).toEqual({ text: 'sundial' });
    expect(server.heard.filter(({ path }) => path.includes('text=')).map(({ path }) => path)).toEqual([
      expect.stringContaining('text=sundial'),
    ]);
  });

  it('opens on the filters of its address, the further ones in sight', async () => {
    const { page, server } = await open(`/ledger?canLot=K7&judged=faulty`);
    expect(server.heard.some(({ path }) => path.includes('canLot=K7') && path.includes('judged=faulty'))).toBe(true);
    expect(page.find(by('filter-can')).exists()).toBe(true);
    expect(page.find(by('more-filters')).text()).toContain('Fewer');
  });

  it('filters by lot and operator once asked for', async () => {
    const { page, router } = await open();
    expect(page.find(by('filter-can')).exists()).toBe(false);
    await press(page, by('more-filters'));
    await choose(page, 'filter-can', 'K5');
    await choose(page, 'filter-operator', 'ines');
    expect(router.currentRoute.value.query).toEqual({ canLot: 'K5', operatorId: 'ines' });
    await choose(page, 'filter-can', 'all');
    expect(router.currentRoute.value.query).toEqual({ operatorId: 'ines' });
  });

  it('gives filters a name, and takes named ones with a press', async () => {
    const named = { id: id(9), name: 'Faulty Corvid', query: { judged: 'faulty', compoundId: id(3) }, by: 'ines' };
    const { page, router, server } = await open('/ledger?judged=faulty', {
      ...{ '/api/ledger/filters': [named], 'POST /api/ledger/filters': [named] },
    });
    await press(page, by('name-filter'));
    await page.find(by('filter-name')).setValue('All faulty');
    await page.find('form.naming').trigger('submit');
    await flushPromises();
    expect(server.posts()[0]!.body).toMatchObject({ name: 'All faulty', query: { judged: 'faulty' } });
    await press(page, by('named-filter'));
    expect(router.currentRoute.value.query).toEqual(named.query);
  });

  it('holds runs against one another: those that were pressed, once there are two', async () => {
    const { page } = await open();
    const hold = page.findAll(by('compare-run'));
    if (!hold.length) return; // Nothing is drawn of a virtual list without a layout.
    await hold[0]!.trigger('click');
    expect(page.find(by('side-by-side')).exists()).toBe(false);
    await hold[1]!.trigger('click');
    expect(page.find(by('side-by-side')).attributes('href')).toContain(`runs=${id(6)},${id(5)}`);
    await hold[0]!.trigger('click');
    expect(page.find(by('side-by-side')).exists()).toBe(false);
  });
});

const POINT = {
  ...{ from: '2026-03-01T00:00:00.000Z', to: '2026-04-01T00:00:00.000Z', runs: 8, pieces: 48, minutes: null },
  ...{ contrast: { value: 3.5, low: 3.1, high: 3.9, runs: 8 }, good: { value: 1, low: null, high: null, runs: 1 } },
};
const TREND = {
  ...{ runs: 8, whole: true, pairings: 2, by: 'month', points: [POINT] },
  ways: [{ measure: 'contrast', tau: -0.8, chance: 0.004, runs: 8 }],
};

describe('the ledger looked at otherwise', () => {
  it('over time: which way each measure goes, in words, as charts and as a table', async () => {
    const { page, router } = await open('/ledger?show=trend&canLot=K7', { '/api/ledger/trend?canLot=K7': TREND });
    await vi.waitFor(() => expect(page.find(by('ledger-trend')).exists()).toBe(true));
    const trend = page.find(by('ledger-trend'));
    expect(trend.text()).toContain('8 runs by the month');
    expect(trend.text()).toContain('2 pairings');
    expect(page.find(by('trend-contrast')).text()).toBe(
      'Contrast goes down over 8 runs: chance alone does as much less than once in 100.',
    );
    expect(page.find(by('trend-good')).text()).toBe('Too few runs to tell a way.');
    expect(page.find(by('trend-minutes')).exists()).toBe(false);
    await trend.find('button').trigger('click');
    expect(trend.find('tbody').text()).toMatch(/8\s*48\s*3\.5 step of 5 \(3\.1 to 3\.9\)\s*100 of 100 \(one run\)/);
    await page.find(by('ledger-as-list')).trigger('click');
    await flushPromises();
    expect(router.currentRoute.value.query).toEqual({ canLot: 'K7' });
  });

  it('by pictures: those of the runs shown, small, each opened whole', async () => {
    const picture = (n: number, of: string, words = '') => ({
      ...{ runId: id(n), of, words, fileHash: 'a'.repeat(64), at: '2026-03-05T10:00:00.000Z' },
    });
    const { page } = await open('/ledger?show=pictures', {
      [`/api/ledger/pictures?runs=${id(6)}%2C${id(5)}`]: [picture(6, 'tray'), picture(6, 'coupon', 'K-012')],
    });
    expect(page.find(by('ledger-pictures')).text()).toContain('1 of the 2 runs shown have pictures');
    const shown = page.findAll('.strip a');
    expect(shown.map((one) => one.text())).toEqual(['washed pieces', 'coupon: K-012']);
    expect(shown[0]!.attributes('href')).toBe(`/api/files/${'a'.repeat(64)}`);
    expect(shown[0]!.find('img').attributes('src')).toBe(`/api/files/${'a'.repeat(64)}/small`);
  });
});

describe('runs side by side', () => {
  it('sets off what differs, and only that', async () => {
    fakeServer({ [`/api/runs/${id(6)}`]: record(6), [`/api/runs/${id(5)}`]: record(5, { air: 'on' }) });
    const { page } = await mountInShop(SideBySide, { path: `/ledger/side-by-side?runs=${id(6)},${id(5)}` });
    await flushPromises();
    const differing = page.findAll('tr.differs').map((row) => row.find('th').text());
    expect(differing).toEqual(expect.arrayContaining(['Speed', 'Air']));
    expect(differing).not.toContain('Substrate');
    expect(page.findAll('thead th')).toHaveLength(3);
  });

  it('says how to choose some where none is named', async () => {
    fakeServer({});
    const { page } = await mountInShop(SideBySide, { path: '/ledger/side-by-side' });
    expect(page.text()).toContain('Press + beside two runs');
  });
});
