// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import type { SheetEntries } from '@unto/contract';
import { workOutSheet } from '@unto/domain';
import { afterEach, describe, expect, it, vi } from 'vitest';
import PrepareStation from './PrepareStation.vue';
import { by, item, choose } from '../testing/shop';
import { mountOnTicket } from '../testing/ticket';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));
const saved = vi.hoisted(() => [] as { name: string; type: string; content: string }[]);
vi.mock('../ui/save-file', () => ({
  saveFile: (name: string, type: string, content: string) => saved.push({ name, type, content }),
}));
vi.mock('../workers/useComputations', () => ({
  useComputations: () => ({
    stop: () => undefined,
    core: { sheet: async (entries: SheetEntries) => ({ ok: true, value: workOutSheet(entries) }) },
  }),
}));
let kept: () => unknown = () => null;
afterEach(() => {
  vi.unstubAllGlobals();
  saved.length = 0;
});

const TICKET = {
  id: 't',
  number: 7,
  version: 1,
  title: 'Tags',
  pieces: 24,
  markWidthMm: 30,
  markHeightMm: 14,
  coatMarginMm: 4,
  substrateId: 'metal',
  headId: 'head',
  lensId: 'lens',
  compoundId: null,
  foodUse: false,
};
const blank = item('blank', 'blank', { substrateId: 'metal', widthMm: 40, heightMm: 25 });

async function open(family: string, change: object = {}, items = [blank]) {
  const substrate = item('substrate', 'metal', { family, layer: 'bare', thicknessMm: 1 });
  const { page, server } = await mountOnTicket(PrepareStation, {
    ticket: TICKET,
    page: { yieldBefore: { good: 90, made: 100, of: 'this pairing' }, ...change },
    items: [substrate, item('machine', 'machine'), ...items],
  });
  kept = () => server.posts().at(-1)?.body;
  return page;
}
const spares = (page: Awaited<ReturnType<typeof open>>) => Number(/\d+/.exec(page.find(by('tile-spares')).text())![0]);
async function sheet(page: Awaited<ReturnType<typeof open>>, width: string, height: string) {
  await page.find(by('prepare-sheet')).trigger('click');
  await page.find(by('sheet-width')).setValue(width);
  await page.find(by('sheet-height')).setValue(height);
}

describe('pieces to have ready', () => {
  it('are the job, what goes wrong at the rate on record, and the coupon', async () => {
    const page = await open('stainless');
    // 24 wanted at 0.9: 90 % sure from 29 made (standard binomial tables), the record's spread and the coupon on top.
    expect(spares(page)).toBeGreaterThanOrEqual(5);
    expect(spares(page)).toBeLessThanOrEqual(8);
    expect(page.find(by('tile-ready')).text()).toContain(String(24 + spares(page)));
    expect(page.find(by('tile-spares')).text()).toMatch(/Measured/);
    expect(page.text()).toMatch(/at the rate of this pairing/);
  });

  it('are one more for glass that cracks, one fewer once a setting is proved, and only usual where nothing was made', async () => {
    const metal = spares(await open('stainless'));
    const glass = await open('glass');
    expect(spares(glass)).toBe(metal + 1);
    expect(glass.text()).toMatch(/one more because glass cracks/);
    expect(spares(await open('stainless', { recipes: [{ grade: 'proved' }] }))).toBe(metal - 1);
    const none = await open('stainless', { yieldBefore: { good: 0, made: 0, of: 'this shop' } });
    expect(none.find(by('tile-spares')).text()).toMatch(/Usual/);
    const hopeless = await open('stainless', { yieldBefore: { good: 0, made: 40, of: 'this pairing' } });
    expect(hopeless.find(by('spares-fault')).text()).toMatch(/no number of spares would do\. Prove the setting first/);
    expect(hopeless.find(by('tile-ready')).text()).not.toMatch(/\d/);
  });
});

describe('a sheet', () => {
  it('is measured against its label: half an inch under costs a column', async () => {
    const page = await open('stainless');
    await sheet(page, '292', '200');
    await page.find(by('label-width')).setValue('304.8');
    await page.find(by('label-height')).setValue('203.2');
    // (304.8 − 10 + 1) ÷ 41 = 7.2 and (203.2 − 10 + 1) ÷ 26 = 7.5 would give 49; 283 ÷ 41 = 6.9.
    expect(page.find(by('sheet-label')).text()).toMatch(
      /12\.8\smm under across, 3\.2\smm under up its label, which promises 49 pieces/,
    );
    expect(page.find(by('sheet-gives')).text()).toMatch(/^4[0-8] pieces/);
  });

  it('of mixed sizes is nested by the worker, kept, and may be stopped at the best so far', async () => {
    const page = await open('stainless');
    await sheet(page, '300', '200');
    await choose(page, 'sheet-mode', 'mixed');
    expect(page.find(by('sheet-fault')).text()).toMatch(/Type the sizes/);
    await page.find(by('size-add')).trigger('click');
    for (const [key, value] of Object.entries({ widthMm: 60, heightMm: 40, count: 10, test: 1 }))
      await page.find(by(`size-0-${key}`)).setValue(String(value));
    await page.find(by('nest')).trigger('click');
    await flushPromises();
    expect(page.find(by('sheet-gives')).text()).toMatch(/10 pieces: 2 sizes, 1 of them for testing, all placed/);
    expect(page.findAll(by('test-place'))).toHaveLength(1);
    await page.find(by('keep-sheet')).trigger('click');
    await flushPromises();
    expect(kept()).toMatchObject({
      entries: {
        mode: 'mixed',
        pieces: [
          { count: 9, test: false },
          { count: 1, test: true },
        ],
      },
    });
  });

  it('waits for a measure, then says what it gives and how many are needed', async () => {
    const page = await open('stainless');
    await page.find(by('prepare-sheet')).trigger('click');
    expect(page.find(by('sheet-fault')).text()).toMatch(/Measure the sheet/);
    expect(page.find(by('sheet-svg')).attributes('disabled')).toBeDefined();
    await sheet(page, '300', '200');
    // Blank of 40 × 25: (290 + 1) ÷ 41 = 7.1, (190 + 1) ÷ 26 = 7.3.
    expect(page.find(by('sheet-gives')).text()).toMatch(/^49 pieces: 7 × 7; 82 % of the sheet\./);
    expect(page.find(by('sheet-gives')).text()).toMatch(/with spares take 1 sheet\.$/);
    expect(page.find('svg').exists()).toBe(true);
  });

  it('leaves out what lies under a clamp, and goes out as SVG and DXF with the places left', async () => {
    const page = await open('stainless');
    await sheet(page, '300', '200');
    await page.find(by('keep-out-add')).trigger('click');
    for (const [key, value] of Object.entries({ xMm: 0, yMm: 0, widthMm: 20, heightMm: 20 }))
      await page.find(by(`keep-out-0-${key}`)).setValue(String(value));
    expect(page.find(by('sheet-gives')).text()).toMatch(/48 pieces[\s\S]*1 lost to keep-outs and margin/);
    await page.find(by('sheet-svg')).trigger('click');
    await page.find(by('sheet-dxf')).trigger('click');
    expect(saved.map(({ name }) => name)).toEqual(['sheet-7.svg', 'sheet-7.dxf']);
    expect(saved[0]!.content).toMatch(/width="300mm"/);
    expect(saved[1]!.content).toMatch(/EOF\s*$/);
  });

  it('is refused with a reason when no piece fits, and takes the coat for a piece where no blank is known', async () => {
    const page = await open('stainless', {}, []);
    await sheet(page, '20', '20');
    expect(page.find(by('sheet-fault')).text()).toMatch(/fits/);
    expect((page.find(by('piece-width')).element as HTMLInputElement).value).toBe('38');
    expect((page.find(by('piece-height')).element as HTMLInputElement).value).toBe('22');
  });
});
