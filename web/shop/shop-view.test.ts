// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { useNotices } from '../stores/notices';
import { by, choose, fakeServer, item, mountInShop, SHOP } from '../testing/shop';
import RatesPanel from './RatesPanel.vue';
import ShopView from './ShopView.vue';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));
afterEach(() => vi.unstubAllGlobals());

async function open() {
  const server = fakeServer({ '/api/workshop': SHOP, 'PUT /api/workshop': { ...SHOP, version: 2 } });
  const mounted = await mountInShop(ShopView, { items: [] });
  const value = (id: string) => (mounted.page.find(by(id)).element as HTMLInputElement).value;
  const plain = (id: string) =>
    mounted.page
      .find(by(id))
      .text()
      .replace(/\u202f/g, ' ');
  return { ...mounted, server, value, plain };
}

describe('the shop', () => {
  it('shows what a job reads like in the units that are chosen, before they are kept', async () => {
    const { page, plain } = await open();
    expect(plain('shop-sample')).toBe('60 × 25 mm at 120 mm/s, lines 0.06 mm apart, 10 µm of film, 3.2 g sprayed');
    await choose(page, 'shop-lengthUnit', 'in');
    await choose(page, 'shop-filmUnit', 'mil');
    await choose(page, 'shop-speedUnit', 'mm/min');
    await choose(page, 'shop-intervalUnit', 'lines/cm');
    await choose(page, 'shop-massUnit', 'oz');
    expect(plain('shop-sample')).toBe(
      '2.362 × 0.984 in at 7200 mm/min, lines 167 lines/cm apart, 0.394 mil of film, 0.113 oz sprayed',
    );
  });

  it('takes money in whole units and shares in percent, and keeps them as they are counted', async () => {
    const { page, server, value } = await open();
    expect([value('shop-labour'), value('shop-bound'), value('shop-drift')]).toEqual(['0.4', '80', '5']);
    await page.find(by('shop-labour')).setValue('0,55');
    await page.find(by('shop-bound')).setValue('90');
    await page.find('form').trigger('submit');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({
      path: '/api/workshop',
      body: { ...SHOP, labourMinorPerMinute: 55, bound: 0.9 },
    });
    expect(useNotices().notice?.text).toMatch(/Kept/);
  });

  it('says at its field what cannot be, and sends nothing', async () => {
    const { page, server } = await open();
    await page.find(by('shop-bound')).setValue('20');
    await page.find(by('shop-name')).setValue(' ');
    await page.find('form').trigger('submit');
    await flushPromises();
    expect(page.text()).toMatch(/Workshop is missing/);
    expect(page.text()).toMatch(/must be at least 0\.5/);
    expect(server.posts()).toEqual([]);
  });

  it('offers both when somebody else changed the settings meanwhile', async () => {
    const { page, server, value } = await open();
    server.refusals['PUT /api/workshop'] = {
      type: 'version-conflict',
      title: '',
      status: 409,
      detail: 'changed',
      current: { ...SHOP, version: 5, name: 'Theirs' },
    };
    await page.find(by('shop-name')).setValue('Mine');
    await page.find('form').trigger('submit');
    await flushPromises();
    expect(page.text()).toMatch(/Somebody else changed the settings meanwhile/);
    expect(value('shop-name')).toBe('Mine');
    const press = (words: string) => page.findAll('button').find((button) => button.text() === words)!;
    delete server.refusals['PUT /api/workshop'];
    await press('Put yours over them').trigger('click');
    await flushPromises();
    expect(server.posts().at(-1)!.body).toMatchObject({ version: 5, name: 'Mine' });
    expect(page.text()).not.toMatch(/Somebody else changed/);
  });
});

describe('people of the shop', () => {
  const PEOPLE = [
    { id: 'ines', name: 'Ines Varga', role: 'lead', version: 1, retired: false },
    { id: 'tobin', name: 'Tobin Ash', role: 'operator', version: 3, retired: false },
    { id: 'old', name: 'Wim Dale', role: 'operator', version: 2, retired: true },
  ];
  async function openPeople() {
    const server = fakeServer({ '/api/workshop': SHOP, '/api/operators': PEOPLE });
    const mounted = await mountInShop(ShopView, { items: [], operators: PEOPLE });
    return { ...mounted, server };
  }

  it('are listed with who is at the bench, those who are gone apart', async () => {
    const { page } = await openPeople();
    expect(page.find(by('at-work-Ines')).text()).toMatch(/Ines Varga.*lead.*at the bench now/s);
    expect(page.find(by('at-work-Tobin')).text()).not.toMatch(/at the bench/);
    expect(page.find(by('gone-Wim')).text()).toMatch(/works here no more/);
  });

  it('are renamed, retired, taken back and added', async () => {
    const { page, server } = await openPeople();
    await page.find(`${by('at-work-Tobin')} ${by('rename-person')}`).trigger('click');
    await page.find(by('person-name')).setValue('Tobin Ashe');
    await page.find('form.person').trigger('submit');
    await flushPromises();
    const { name, role, version, retired } = server.posts()[0]!.body;
    expect([server.posts()[0]!.path, name, role, version, retired]).toEqual([
      '/api/operators/tobin',
      ...['Tobin Ashe', 'operator', 3, false],
    ]);
    await page.find(`${by('at-work-Tobin')} ${by('retire-person')}`).trigger('click');
    await page.find(`${by('gone-Wim')} ${by('take-back-person')}`).trigger('click');
    await flushPromises();
    expect(
      server
        .posts()
        .slice(1)
        .map(({ path, body }) => [path, body.retired]),
    ).toEqual([
      ['/api/operators/tobin', true],
      ['/api/operators/old', false],
    ]);
    await page.find(by('add-person')).trigger('click');
    await page.find('form.person').trigger('submit');
    await flushPromises();
    expect(page.find('form.person').text()).toMatch(/Name is missing/);
    await page.find(by('person-name')).setValue('Nell Roe');
    await page.find('form.person').trigger('submit');
    await flushPromises();
    expect(server.posts().at(-1)).toMatchObject({
      path: '/api/operators',
      body: { name: 'Nell Roe', role: 'operator' },
    });
  });
});

describe('rates of machines', () => {
  it('are typed in money a minute, kept as a new revision, and usual no more', async () => {
    const server = fakeServer({ 'PUT /api/inventory/bench': {} });
    const bench = item('machine', 'bench', {
      laserMinorPerMinute: 20,
      usual: ['laserMinorPerMinute'],
      ofKind: 'co2-55',
    });
    const { page } = await mountInShop(RatesPanel, { items: [bench] });
    expect(page.text()).toMatch(/Usual/);
    expect(page.find(by('keep-rate-bench')).attributes('disabled')).toBeDefined();
    await page.find(by('rate-bench')).setValue('0,35');
    await page.find('form').trigger('submit');
    await flushPromises();
    expect(server.posts().at(-1)!.body).toMatchObject({ body: { laserMinorPerMinute: 35, usual: [] } });
  });
});
