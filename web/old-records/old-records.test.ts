// @vitest-environment happy-dom
import { flushPromises, type VueWrapper } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { by, choose, fakeServer, mountInShop } from '../testing/shop';
import OldRecordsView from './OldRecordsView.vue';

afterEach(() => vi.unstubAllGlobals());

const SHEET =
  'Speed\tOn\tPower\tSpray\tHow\n200\tstainless\t95\tCorvid Film\tblack\n150\tsplorg\t90\tCorvid Film\tpale\n';

async function open() {
  const server = fakeServer({ 'POST /api/stated-settings/several': [] });
  const mounted = await mountInShop(OldRecordsView);
  return { ...mounted, server };
}
async function paste(page: VueWrapper<any>, text: string): Promise<void> {
  await page.find(by('old-text')).setValue(text);
  await flushPromises();
}

describe('old records', () => {
  it('are pasted, their columns told, what is missing said once, and kept as stated', async () => {
    const { page, server, router } = await open();
    await paste(page, SHEET);
    // “On” says nothing by itself: somebody says that it is the material.
    expect(page.find(by('old-keep')).attributes('disabled')).toBeDefined();
    await choose(page, 'old-column-1', 'material');
    await choose(page, 'old-beam', 'co2');
    expect(page.find(by('old-faults')).text()).toMatch(/Line 3:.*No material is known by “splorg”/);
    expect(page.find(by('old-keep')).text()).toBe('Keep 1 of 2 lines');
    await choose(page, 'old-word-splorg', 'zinc');
    expect(page.find(by('old-faults')).exists()).toBe(false);
    await choose(page, 'old-unit-0', 'mm/min');
    await page.find(by('old-keep')).trigger('click');
    await flushPromises();
    const { settings } = server.posts().at(-1)!.body as { settings: Record<string, any>[] };
    expect(settings.map(({ family, speed, note }) => [family, speed, note])).toEqual([
      ['stainless', { value: 200, unit: 'mm/min' }, 'How: black'],
      ['zinc', { value: 150, unit: 'mm/min' }, 'How: pale'],
    ]);
    expect(new Set(settings.map(({ id }) => id)).size).toBe(2);
    expect(router.currentRoute.value.path).toBe('/practice');
  });

  it('keep their ids when they are sent again, and stay where they are refused', async () => {
    const { page, server, router } = await open();
    server.refusals['POST /api/stated-settings/several'] = {
      ...{ type: 'invalid-input', title: '', status: 422, detail: 'Not so.' },
    };
    await paste(page, 'material,power,speed,beam\nbrass,90,200,co2\n');
    const send = async () => {
      await page.find(by('old-keep')).trigger('click');
      await flushPromises();
      return (server.posts().at(-1)!.body as { settings: { id: string }[] }).settings[0]!.id;
    };
    expect(await send()).toBe(await send());
    expect(router.currentRoute.value.path).toBe('/');
    expect((page.find(by('old-text')).element as HTMLTextAreaElement).value).toMatch(/brass/);
  });

  it('say what is wrong with what is no table', async () => {
    const { page } = await open();
    await paste(page, `${','.repeat(80)}x\n1,2`);
    expect(page.find(by('old-fault')).text()).toMatch(/at most 60/);
  });
});
