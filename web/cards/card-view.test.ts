// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { lightness, TYPICAL_PRINT } from '@unto/core';
import { expect, it } from 'vitest';
import { by, fakeServer, mountInShop } from '../testing/shop';
import CardView from './CardView.vue';

const MEASURED = [94, 88.5, 74, 60, 46, 33, 21];

it('says that a typical print is assumed and what that costs, then keeps what a meter says, field by field', async () => {
  const server = fakeServer();
  const { page } = await mountInShop(CardView);
  expect(page.find(by('card-basis')).text()).toBe('Typical print assumed');
  expect(page.text()).toMatch(/A contrast of 40 L\* may be off by \d+\.\d L\*/);
  expect(page.find(by('card-l-0')).text()).toBe(lightness(TYPICAL_PRINT.paper).toFixed(1));
  await page.find(by('keep-typed-card')).trigger('submit');
  await flushPromises();
  expect(page.text()).toMatch(/Measure it and type L\*/);
  expect(server.posts()).toEqual([]);
  for (const [i, l] of MEASURED.entries()) await page.find(by(`card-typed-${i}`)).setValue(String(l));
  await page.find(by('keep-typed-card')).trigger('submit');
  await flushPromises();
  const { path, body } = server.posts()[0]!;
  expect([path, body.size, body.print.basis, body.white]).toEqual(['/api/cards', 'A5', 'measured', null]);
  expect([body.print.paper, ...body.print.steps].map(lightness).map((l) => Number(l.toFixed(3)))).toEqual(MEASURED);
});

it('shows what is known, by whom', async () => {
  const print = { ...TYPICAL_PRINT, basis: 'photographed', paper: 0.8 };
  fakeServer({
    '/api/cards': [{ id: 'c', size: 'A5', print, white: 0.9, fileHash: null, at: '2026-03-02T09:00:00Z', by: 'ines' }],
  });
  const { page } = await mountInShop(CardView);
  await flushPromises();
  expect(page.find(by('card-basis')).text()).toMatch(/Photographed beside a known white.*Ines Varga/);
  expect(page.find(by('card-l-0')).text()).toBe('91.7');
});
