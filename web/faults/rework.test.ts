// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import UpkeepPanel from '../inventory/UpkeepPanel.vue';
import { by, fakeServer, mountInShop } from '../testing/shop';
import FaultPlace from './FaultPlace.vue';
import QuestionsPanel from './QuestionsPanel.vue';
import RegionDraw from './RegionDraw.vue';
import ReworkPanel from './ReworkPanel.vue';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));
beforeEach(() => localStorage.clear());
afterEach(() => vi.unstubAllGlobals());

const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const PAGE = { ticketId: id(1), subjectId: id(7), kind: 'run', markWidthMm: 160, markHeightMm: 14 };
const panel = (change: object = {}) => ({
  ...{ page: PAGE, caseId: id(9), way: 'redo the region', pieces: [2], spots: [{ x: 0.5, y: 0.95 }] },
  ...{ faults: ['pale along one edge'], made: [], drawing: null, ...change },
});
async function open(change: object = {}) {
  const server = fakeServer({ [`POST /api/tickets/${id(1)}/reworks`]: [] });
  const { page } = await mountInShop(ReworkPanel, { props: panel(change) });
  await flushPromises();
  return { page, server };
}
const valueOf = (page: any, testId: string) => Number(page.find(by(testId)).element.value);
async function types(page: any, testId: string, text: string): Promise<void> {
  await page.find(by(testId)).setValue(text);
  await page.find(by(testId)).trigger('blur');
  await flushPromises();
}

describe('pieces made anew', () => {
  it('offers the edge that is pale, where it was pressed, as wide as the mark', async () => {
    const { page } = await open();
    expect(valueOf(page, 'region-width')).toBe(160);
    expect(valueOf(page, 'region-y')).toBe(0);
    expect(valueOf(page, 'region-height')).toBeLessThan(14);
  });

  it('offers the corner, or the whole mark where nobody pressed any', async () => {
    const corner = await open({ faults: ['faint in one corner'], spots: [{ x: 0.97, y: 0.05 }] });
    expect(valueOf(corner.page, 'region-x')).toBeGreaterThan(80);
    const none = await open({ spots: [] });
    expect([valueOf(none.page, 'region-width'), valueOf(none.page, 'region-height')]).toEqual([160, 14]);
  });

  it('sends region, focus and two points as they were typed', async () => {
    const { page, server } = await open();
    await types(page, 'region-height', '4');
    await types(page, 'rework-focus', '0.4');
    await page.find(by('align-rework')).trigger('click');
    await flushPromises();
    for (const [testId, text] of [
      ['found-0-x', '10'],
      ['found-0-y', '5'],
      ['found-1-x', '170'],
      ['found-1-y', '5.2'],
    ] as const)
      await types(page, testId, text);
    await page.find('form#rework').trigger('submit');
    await flushPromises();
    expect(server.posts()[0]!.body).toMatchObject({
      ...{ runId: id(7), caseId: id(9), way: 'redo the region', pieces: [2], focusMm: 0.4 },
      region: { heightMm: 4, widthMm: 160 },
      alignment: {
        found: [
          { xMm: 10, yMm: 5 },
          { xMm: 170, yMm: 5.2 },
        ],
      },
    });
  });

  it('asks for no region where all of it is made anew', async () => {
    const { page } = await open({ way: 'strip and start again' });
    expect(page.find(by('region-draw')).exists()).toBe(false);
  });

  it('shows what waits and what is done, each with where to go', async () => {
    const waits = {
      ...{ id: id(8), caseId: id(9), pieces: [2], way: 'redo the region', doneRunId: null },
      region: { xMm: 0, yMm: 0, widthMm: 160, heightMm: 4 },
    };
    const { page } = await open({ made: [waits, { ...waits, id: id(6), doneRunId: id(5) }] });
    expect(page.find('form').exists()).toBe(false);
    expect(page.find(by('rework-gcode')).attributes('href')).toBe(`/api/reworks/${id(8)}/program/gcode`);
    expect(page.text()).toContain('Done in this run');
  });
});

const drawn = (component: any) => {
  const svg = component.find('svg');
  svg.element.getBoundingClientRect = () => ({ left: 0, top: 0, width: 320, height: 100 }) as DOMRect;
  svg.element.setPointerCapture = () => {};
  return svg;
};

describe('a region', () => {
  it('is drawn by dragging, in mm from the lower left, whichever way', async () => {
    const region = { xMm: 0, yMm: 0, widthMm: 1, heightMm: 1 };
    const component = mount(RegionDraw, { props: { modelValue: region, widthMm: 160, heightMm: 14, drawing: null } });
    const svg = drawn(component);
    await svg.trigger('pointerdown', { clientX: 160, clientY: 0, pointerId: 1 });
    await svg.trigger('pointermove', { clientX: 80, clientY: 50 });
    await svg.trigger('pointerup');
    await svg.trigger('pointermove', { clientX: 0, clientY: 100 });
    const sent = component.emitted('update:modelValue')!;
    expect(sent).toHaveLength(1);
    expect(sent[0]![0]).toEqual({ xMm: 40, yMm: 7, widthMm: 40, heightMm: 7 });
  });

  it('never leaves the mark', async () => {
    const region = { xMm: 0, yMm: 0, widthMm: 1, heightMm: 1 };
    const component = mount(RegionDraw, { props: { modelValue: region, widthMm: 160, heightMm: 14, drawing: null } });
    const svg = drawn(component);
    await svg.trigger('pointerdown', { clientX: -40, clientY: -40, pointerId: 1 });
    await svg.trigger('pointermove', { clientX: 900, clientY: 900 });
    expect(component.emitted('update:modelValue')![0]![0]).toEqual({ xMm: 0, yMm: 0, widthMm: 160, heightMm: 14 });
  });
});

describe('where a fault lies', () => {
  it('is pressed on the mark as it was laid out, else on the area that it takes', async () => {
    const drawing = { widthMm: 160, heightMm: 14, paths: [{ as: 'marked', evenodd: null, d: 'M0 0L160 0L160 14Z' }] };
    const props = { modelValue: [], widthMm: 160, heightMm: 14, words: 'piece 2', drawing };
    const component = mount(FaultPlace, { props: props as never });
    expect(component.find(by('mark-drawing')).attributes('viewBox')).toBe('0 0 160 14');
    expect(component.find('path').attributes('d')).toBe('M0 0L160 0L160 14Z');
    await component.setProps({ drawing: null } as never);
    expect(component.find(by('mark-drawing')).exists()).toBe(false);
    expect(component.find('rect.mark').exists()).toBe(true);
  });

  it('is pressed, and pressed away again', async () => {
    const props = { modelValue: [] as object[], widthMm: 160, heightMm: 14, words: 'piece 2', drawing: null };
    const component = mount(FaultPlace, { props: props as never });
    const svg = drawn(component);
    await svg.trigger('click', { clientX: 80, clientY: 90 });
    const [[spots]] = component.emitted('update:modelValue') as [[{ x: number; y: number }[]]];
    expect(spots).toEqual([{ x: 0.25, y: 0.9 }]);
    await component.setProps({ modelValue: spots } as never);
    await drawn(component).trigger('click', { clientX: 82, clientY: 91 });
    expect(component.emitted('update:modelValue')!.at(-1)).toEqual([[]]);
  });
});

describe('questions that the shop asks', () => {
  const question = {
    ...{ id: id(3), station: 'place', text: 'Heights read', compoundId: null, substrateId: null, longerThanMm: 110 },
    ...{ caseId: null, at: '2026-03-01T10:00:00.000Z', by: 'ines', ended: false },
  };

  it('say of which tickets, and end only with a reason', async () => {
    const server = fakeServer({ '/api/questions': [question], [`POST /api/questions/${id(3)}/end`]: [] });
    const { page } = await mountInShop(QuestionsPanel);
    await flushPromises();
    expect(page.text()).toMatch(/Place:.*Heights read.*marks from 110/s);
    await page.find('button').trigger('click');
    await page.find(by('end-why')).setValue('the parts are short now');
    await page.find('form').trigger('submit');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({
      path: `/api/questions/${id(3)}/end`,
      body: { why: 'the parts are short now' },
    });
  });

  it('are not in sight where there never was one', async () => {
    fakeServer({ '/api/questions': [] });
    const { page } = await mountInShop(QuestionsPanel);
    await flushPromises();
    expect(page.find(by('questions')).exists()).toBe(false);
  });
});

describe('upkeep', () => {
  const kept = (change: object = {}) => ({ itemId: id(4), done: [], hoursSinceCleaned: null, hours: 12.5, ...change });

  it('says the hours of beam, and takes a note with what was done', async () => {
    const server = fakeServer({
      [`/api/inventory/${id(4)}/upkeep`]: kept(),
      [`POST /api/inventory/${id(4)}/upkeep`]: kept({ hoursSinceCleaned: 0 }),
    });
    const { page } = await mountInShop(UpkeepPanel, { props: { itemId: id(4), kind: 'lens' } });
    await flushPromises();
    expect(page.text()).toMatch(/12\.5.h.*of logged runs in all/s);
    // A lens has no source to renew.
    expect(page.find(by('upkeep-source renewed')).exists()).toBe(false);
    await page.find('input').setValue('haze');
    await page.find(by('upkeep-cleaned')).trigger('click');
    await flushPromises();
    expect(server.posts()[0]!.body).toMatchObject({ what: 'cleaned', note: 'haze' });
  });

  it('offers a head its source, and counts since then', async () => {
    const done = [{ id: id(5), what: 'source renewed', note: '', at: '2026-03-01T10:00:00.000Z', by: 'ines' }];
    fakeServer({ [`/api/inventory/${id(4)}/upkeep`]: kept({ done, hoursSinceCleaned: 3 }) });
    const { page } = await mountInShop(UpkeepPanel, { props: { itemId: id(4), kind: 'head' } });
    await flushPromises();
    expect(page.find(by('upkeep-source renewed')).exists()).toBe(true);
    expect(page.text()).toMatch(/3.h.*of beam since it was cleaned.*since its source was renewed/s);
  });
});
