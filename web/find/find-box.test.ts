// @vitest-environment happy-dom
import { flushPromises, type VueWrapper } from '@vue/test-utils';
import type { Found } from '@unto/contract';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { by, fakeServer, mountInShop } from '../testing/shop';
import FindBox from './FindBox.vue';
import { recent } from './recent';

const found = (kind: Found['kind'], title: string): Found => ({
  ...{ kind, title, text: 'about it', at: '2026-03-01T09:00:00.000Z' },
  to: `/${kind}/${title}`,
});
const ANSWERS = [found('ticket', 'Orchid tags'), found('coupon', 'K-012'), found('store', 'Corvid Film')];

beforeEach(() => vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] }));
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
  recent.value = [];
});

async function open() {
  fakeServer({
    '/api/find': ANSWERS,
    '/api/find?q=': ANSWERS,
    '/api/find?q=orchid': ANSWERS.slice(0, 1),
    '/api/find?q=none': [],
  });
  const mounted = await mountInShop(FindBox, { props: { modelValue: false }, attach: true });
  await reopen(mounted.page);
  return mounted;
}
async function reopen(page: VueWrapper<any>): Promise<void> {
  await page.setProps({ modelValue: false });
  await page.setProps({ modelValue: true });
  await flushPromises();
}
const shown = (page: VueWrapper<any>) => page.findAll(by('found')).map((one) => one.text());
const chosen = (page: VueWrapper<any>) => page.find('[aria-selected="true"]').text();
async function type(page: VueWrapper<any>, text: string): Promise<void> {
  await page.find(by('find-field')).setValue(text);
  await vi.advanceTimersByTimeAsync(200);
  await flushPromises();
}
const key = (page: VueWrapper<any>, name: string) => page.find(by('find-field')).trigger(`keydown.${name}`);

describe('one field that finds', () => {
  it('shows what changed last before anything was opened, and goes through it by the arrows', async () => {
    const { page } = await open();
    expect(shown(page)).toHaveLength(3);
    await key(page, 'down');
    expect(chosen(page)).toMatch(/K-012/);
    await key(page, 'up');
    await key(page, 'up');
    expect(chosen(page)).toMatch(/Corvid Film/);
  });

  it('opens what is chosen, and shows that first the next time', async () => {
    const { page, router } = await open();
    await type(page, 'orchid');
    expect(shown(page)).toHaveLength(1);
    await key(page, 'enter');
    await flushPromises();
    expect(router.currentRoute.value.path).toBe('/ticket/Orchid tags');
    expect(recent.value.map(({ title }) => title)).toEqual(['Orchid tags']);
    await reopen(page);
    expect(page.text()).toMatch(/Opened last/);
  });

  it('says so where nothing holds the words', async () => {
    const { page } = await open();
    await type(page, 'none');
    expect(shown(page)).toEqual([]);
    expect(page.text()).toMatch(/Nothing holds all of these words/);
  });
});
