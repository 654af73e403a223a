// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import PlaceStation from './PlaceStation.vue';
import { by, item, choose } from '../testing/shop';
import { mountOnTicket } from '../testing/ticket';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));
const saved = vi.hoisted(() => [] as { name: string; content: string }[]);
vi.mock('../ui/save-file', () => ({
  saveFile: (name: string, _type: string, content: string) => saved.push({ name, content }),
}));
afterEach(() => {
  vi.unstubAllGlobals();
  saved.length = 0;
});

const TICKET = {
  ...{ id: 't', number: 7, version: 1, title: 'Sign', pieces: 2, markWidthMm: 40, markHeightMm: 30, coatMarginMm: 3 },
  ...{
    substrateId: 'metal',
    headId: 'infrared',
    lensId: 'lens-ir',
    compoundId: null,
    foodUse: false,
    choiceReason: 'x',
  },
};
const head = (id: string, change: object) => item('head', id, { machineId: 'machine', ...change });
const lens = (id: string, headId: string, depthOfFocusMm: number) =>
  item('lens', id, { headId, spotXMm: 0.03, spotYMm: 0.03, depthOfFocusMm, depthGrowth: 0.1 });
const ITEMS = [
  item('substrate', 'metal', { family: 'stainless', layer: 'bare', thicknessMm: 1.5 }),
  item('machine', 'machine', { motion: 'gantry', fullScaleS: 1000, topSpeedMmPerS: 250 }),
  head('infrared', { wavelengthClass: 'near-infrared', eyewear: 'the green pair' }),
  head('blue', { wavelengthClass: 'blue', eyewear: 'the orange pair' }),
  lens('lens-ir', 'infrared', 0.8),
  lens('lens-blue', 'blue', 2),
];
const FITTING = {
  ...{ id: 'f', machineId: 'machine', headId: 'blue', lensId: 'lens-blue', ticketId: 't', work: 'cut', steps: [] },
  ...{ at: '2026-03-02T09:00:00.000Z', by: 'ines' },
};

async function open(task: string, page: object = {}) {
  const mounted = await mountOnTicket(PlaceStation, { ticket: TICKET, page, items: ITEMS });
  await mounted.page.find(by(`place-${task}`)).trigger('click');
  return mounted;
}
type Mounted = Awaited<ReturnType<typeof open>>['page'];
const text = (page: Mounted, id: string) => page.find(by(id)).text().replaceAll(/\s+/g, ' ');
const type = (page: Mounted, id: string, value: string) => page.find(by(id)).setValue(value);

describe('heads', () => {
  it('says what is fitted, and what ticks count no more', async () => {
    const old = {
      id: 'c',
      ticketId: 't',
      station: 'place',
      kind: 'check',
      code: 'focus',
      at: '2026-03-02T08:00:00.000Z',
      by: 'ines',
    };
    const { page } = await open('checks', { fitting: FITTING, checks: [old] });
    expect(text(page, 'other-head')).toMatch(/blue is fitted, not infrared\. Nothing is fired/);
    expect((page.find(by('check-focus')).element as HTMLInputElement).checked).toBe(false);
    await page.find(by('to-head')).trigger('click');
    expect(text(page, 'fitted')).toMatch(
      /blue with lens-blue is fitted, for cutting[\s\S]*This ticket marks with infrared/,
    );
  });

  it('is changed step by step, with the eyewear of the head that comes', async () => {
    const { page, server } = await open('head', { fitting: FITTING });
    expect(page.text()).toMatch(/the other pair put away: the green pair/);
    expect(page.find(by('fit')).attributes('disabled')).toBeDefined();
    for (const step of ['power-down', 'plug', 'seat', 'eyewear', 'refocus'])
      await page.find(by(`step-${step}`)).setValue(true);
    await page.find(by('fit')).trigger('click');
    await flushPromises();
    expect(server.posts().at(-1)).toMatchObject({
      path: '/api/fittings',
      body: { headId: 'infrared', lensId: 'lens-ir', work: 'mark', ticketId: 't' },
    });
  });
});

describe('focus', () => {
  it('is hunted on a shallow head, and an offset that was not proved is said', async () => {
    const { page, server } = await open('focus', {
      recipes: [{ focusOffsetMm: 0.5, intervalMm: 0.05, grade: 'proved' }],
    });
    expect(page.text()).toMatch(/only ± 0\.8 mm deep: a lever or stick is too coarse/);
    expect(page.find(by('offset-off')).exists()).toBe(false);
    await type(page, 'focus-offset', '-0.2');
    expect(text(page, 'offset-off')).toMatch(/proved at 0\.5.mm: another offset is another setting/);
    await page.find(by('keep-set')).trigger('click');
    await flushPromises();
    expect(server.posts().at(-1)!.body).toMatchObject({
      kind: 'set',
      entries: { method: 'dot hunt', offsetMm: -0.2, thicknessMm: 1.5 },
    });
  });
});

describe('a pre-cut piece', () => {
  const pointer = {
    ...{ id: 'p', kind: 'pointer', ticketId: 'o', headId: 'infrared', lensId: 'lens-ir', decision: 'taken', note: '' },
    result: { x: { value: -32, unit: 'mm' }, y: { value: 4, unit: 'mm' } },
  };

  it('is turned and moved by two points, the pointer’s offset taken into account', async () => {
    const { page, server } = await open('align', { pointer });
    for (const [id, value] of [
      ['0-drawnX', 0],
      ['0-drawnY', 0],
      ['1-drawnX', 40],
      ['1-drawnY', 0],
    ] as const)
      await type(page, `align-${id}`, String(value));
    for (const [id, value] of [
      ['0-foundX', 132],
      ['0-foundY', 46],
      ['1-foundX', 132],
      ['1-foundY', 86.1],
    ] as const)
      await type(page, `align-${id}`, String(value));
    expect(text(page, 'align-turn')).toMatch(/90\.00/);
    expect(text(page, 'align-x')).toMatch(/100\.00/);
    expect(text(page, 'align-longer')).toMatch(/0\.1.mm longer than its drawing, half of it left at each end/);
    expect(page.find(by('align-plot')).exists()).toBe(true);
    await type(page, 'align-1-foundY', '88');
    expect(text(page, 'align-longer')).toMatch(/touch both points again/);
    await page.find(by('by-pointer')).setValue(false);
    expect(text(page, 'align-x')).toMatch(/132\.00/);
    await page.find(by('keep-align')).trigger('click');
    await flushPromises();
    expect(server.posts().at(-1)!.body).toMatchObject({
      kind: 'align',
      entries: { found: [{ xMm: 132 }, { xMm: 132 }] },
    });
  });

  it('and the centre of a rim is found where the beam falls, not where the pointer stood', async () => {
    const { page } = await open('centre', { pointer });
    for (const [i, [x, y]] of [
      [40, 0],
      [0, 40],
      [-40, 0],
    ].entries()) {
      await type(page, `rim-${i}-xMm`, String(x));
      await type(page, `rim-${i}-yMm`, String(y));
    }
    expect(text(page, 'centre-x')).toMatch(/-32\.000/);
    expect(text(page, 'centre-y')).toMatch(/4\.0000/);
    await page.find(by('by-pointer')).setValue(false);
    expect(text(page, 'centre-diameter')).toMatch(/80\.00/);
    expect(text(page, 'centre-x')).not.toMatch(/32/);
  });

  it('gets a trial outline as a program, and the pointer its offset', async () => {
    const { page, server } = await open('align');
    await type(page, 'outline-power', '15');
    await page.find(by('outline-gcode')).trigger('click');
    expect(saved[0]).toMatchObject({ name: 'outline-7.gcode' });
    expect(saved[0]!.content).toMatch(/G1 X50\.2 Y9\.8 F3000 S150/);
    await type(page, 'outline-power', '150');
    expect(text(page, 'outline-fault')).toMatch(/between 0 and 100/);
    expect(page.find(by('outline-gcode')).attributes('disabled')).toBeDefined();
    const cells = { pointerXMm: '10', pointerYMm: '10', markXMm: '-22', markYMm: '14' };
    for (const [key, value] of Object.entries(cells)) await type(page, `pointer-0-${key}`, value);
    expect(text(page, 'pointer-offset')).toMatch(/-32\.0, 4\.00\smm/);
    await page.find(by('keep-pointer')).trigger('click');
    await flushPromises();
    expect(server.posts().at(-1)!.body.kind).toBe('pointer');
  });
});

describe('a ball', () => {
  it('is marked in rings of focus, and has no seam', async () => {
    const { page } = await open('round');
    await type(page, 'near-mm', '60');
    await choose(page, 'round-shape', 'sphere');
    expect(page.find(by('seam')).exists()).toBe(false);
    // Half the diagonal of 40 × 30 is 25 mm: 30 − √(900 − 625) = 13.42 mm, nine heights of ± 0.8 mm.
    expect(text(page, 'lying-still')).toMatch(/the artwork takes 9 heights, in 9 rings/);
    expect(page.find(by('strips')).findAll('li')).toHaveLength(9);
  });
});
