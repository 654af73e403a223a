// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import type { OddCell } from '@unto/core';
import { afterEach, expect, it, vi } from 'vitest';
import { by, fakeServer, mountInShop } from '../testing/shop';
import OddCells from './OddCells.vue';

afterEach(() => vi.unstubAllGlobals());

const coupons = [
  { id: 'k8', code: 'K-008' },
  { id: 'k9', code: 'K-009' },
];
const cell = (couponId: string | null, place: number) => ({ couponId, cell: place, outcome: 'holds' });
const cells = [cell('k8', 36), cell('k9', 4), cell(null, 0), cell('k8', 1), cell('k9', 7)];
const oddAt = (...chances: number[]): OddCell[] => chances.map((chance, index) => ({ index, chance }));
const shown = (odd: readonly OddCell[]) => mountInShop(OddCells, { props: { coupons, cells, odd } });

it('asks for nothing where every cell goes with those around, or only a run does not', async () => {
  for (const odd of [[], [{ index: 2, chance: 0.001 }]]) {
    const { page } = await shown(odd);
    expect(page.find(by('odd-cells')).exists()).toBe(false);
  }
});

it('names the oddest with how seldom they come out so, and how many more there are', async () => {
  const { page } = await shown(oddAt(0.001, 0.01, 0.001, 0.018, 0.019));
  const text = page.find(by('odd-cells')).text().replaceAll(/\s+/g, ' ');
  expect(text).toMatch(/^4 cells disagree/);
  expect(text).toMatch(/Cell 37 of K-008: read as “holds”, which by the cells around comes out there less than once/);
  expect(text).toMatch(/Cell 5 of K-009: .* about once in 100/);
  expect(text).toMatch(/Cell 2 of K-008: .* about twice in 100/);
  expect(text).toMatch(/1 more after these/);
});

it('keeps what somebody says who looked again, as a reading of its own, and answers for nobody', async () => {
  const server = fakeServer();
  const { page } = await shown(oddAt(0.001));
  expect(page.findAll('[aria-pressed="true"]')).toHaveLength(0);
  await page.find(by('again-K-008-37-holds')).trigger('click');
  await flushPromises();
  expect(server.posts()).toMatchObject([
    {
      path: '/api/coupons/k8/readings',
      body: { stage: 'scrubbed', source: 'again', entries: [{ cell: 36, outcome: 'holds' }] },
    },
  ]);
});
