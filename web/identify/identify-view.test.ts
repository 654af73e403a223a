// @vitest-environment happy-dom
import { flushPromises, type VueWrapper } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { by, fakeServer, item, mountInShop } from '../testing/shop';
import IdentifyView from './IdentifyView.vue';

afterEach(() => vi.unstubAllGlobals());

const ITEMS = [
  item('substrate', 'stainless', { name: '304 sheet', family: 'stainless', layer: 'bare' }),
  item('substrate', 'painted', { name: 'Painted sheet', family: 'steel', layer: 'painted' }),
  item('blank', 'mystery', { name: 'Mystery box', substrateId: null }),
];
async function open(path = '/identify') {
  const server = fakeServer({ '/api/workshop': {}, '/api/inventory?retired=1': ITEMS });
  const mounted = await mountInShop(IdentifyView, { items: ITEMS, path });
  return { ...mounted, server };
}
const answer = (page: VueWrapper, test: string, word: string) =>
  page.find(`${by(`test-${test}`)} input[value="${word}"]`).setValue();
const first = (page: VueWrapper) => page.find(`${by('guesses')} li .name`).text();

describe('what is this part?', () => {
  it('begins with a test that spares the part, and with the dangers not ruled out', async () => {
    const { page } = await open();
    expect(page.find(by('next-test')).text()).toMatch(/It spares the part/);
    expect(page.find(by('dangers')).text()).toMatch(/Ask a qualified person before lasering an unknown part/);
    expect(page.find(by('identify-keep')).attributes('disabled')).toBeDefined();
  });

  it('narrows down with every answer, and takes an answer back', async () => {
    const { page } = await open();
    await answer(page, 'colour', 'yellow or gold');
    await answer(page, 'solvent', 'a clear skin goes tacky');
    expect(first(page)).toBe('brass, lacquered');
    await page.find(`${by('test-solvent')} .clear`).trigger('click');
    expect(first(page)).toBe('brass, bare');
  });

  it('weighs a part in, says what its density is, and when it fits nothing', async () => {
    const { page } = await open();
    await page.find(by('weigh-mass')).setValue('19,2');
    for (const [key, value] of [
      ['lengthMm', '50'],
      ['widthMm', '40'],
      ['thicknessMm', '1.2'],
    ] as const)
      await page.find(by(`weigh-${key}`)).setValue(value);
    expect(page.find(by('density')).text()).toMatch(/^8\s?g\/cm³ ± \d %$/);
    await page.find(by('weigh-mass')).setValue('192');
    expect(page.find(by('unfit')).text()).toMatch(/fits nothing known here; it is kept but not counted/);
    await page.find(by('weigh-by-water')).trigger('click');
    expect(page.find(by('density')).text()).toBe('');
  });

  it('keeps it for a blank, with the substrate somebody chose', async () => {
    const { page, server, router } = await open('/identify?blank=mystery');
    await answer(page, 'magnet', 'does not pull');
    await answer(page, 'scratch', 'same metal through');
    await answer(page, 'colour', 'bright silver');
    await answer(page, 'edge', 'as the surface');
    expect(first(page)).toMatch(/stainless, 304/);
    expect((page.find(by('identify-label')).element as HTMLInputElement).value).toBe('Mystery box');
    await page.find(by('identify-keep')).trigger('click');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({
      path: '/api/identifications',
      body: {
        blankId: 'mystery',
        guessKey: 'stainless-304',
        substrateId: null,
        weighed: null,
        words: { magnet: 'does not pull' },
      },
    });
    expect(router.currentRoute.value.fullPath).toBe('/stores/mystery');
  });

  it('lets a person take another guess than the first', async () => {
    const { page, server } = await open();
    await page.find(by('identify-label')).setValue('tag');
    await answer(page, 'colour', 'bright silver');
    await page.find(by('guess-aluminium')).setValue();
    expect(page.find(by('identify-keep')).text()).toBe('Take it to be aluminium, bare');
    await page.find(by('identify-keep')).trigger('click');
    await flushPromises();
    expect(server.posts()[0]!.body).toMatchObject({ guessKey: 'aluminium', label: 'tag' });
  });

  it('shows a refusal at its field and forgets nothing', async () => {
    const { page, server } = await open();
    await answer(page, 'colour', 'black');
    server.refusals['POST /api/identifications'] = {
      type: 'invalid-input',
      title: '',
      status: 422,
      detail: 'no',
      faults: [{ path: 'label', message: 'What is looked at is missing.' }],
    };
    await page.find(by('identify-keep')).trigger('click');
    await flushPromises();
    expect(page.text()).toMatch(/What is looked at is missing/);
    expect(page.find<HTMLInputElement>(`${by('test-colour')} input[value="black"]`).element.checked).toBe(true);
  });

  it('keeps its answers over a reload until they are sent', async () => {
    const { page } = await open();
    await answer(page, 'magnet', 'pulls strongly');
    const kept = localStorage.getItem('unto-draft-identify-loose')!;
    expect(JSON.parse(kept)).toEqual([[['words'], { magnet: 'pulls strongly' }]]);
  });
});
