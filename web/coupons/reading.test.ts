// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import {
  layoutCoupon,
  predictCells,
  usualRules,
  type CellMeasure,
  type CouponDesign,
  type OutcomeRules,
} from '@unto/core';
import type { Coupon, CouponPictureEntries } from '@unto/contract';
import { createPinia, setActivePinia } from 'pinia';
import PrimeVue from 'primevue/config';
import { beforeEach, describe, expect, it } from 'vitest';
import { nextTick, ref, type Component } from 'vue';
import { by } from '../testing/shop';
import CellPanel from './CellPanel.vue';
import { designOf, draftOf, firstDraft } from './design-form';
import KeptMap from './KeptMap.vue';
import MeasureMaps from './MeasureMaps.vue';
import { keptShare, SHOWN_MEASURES, shownNumber } from './measures';
import OutcomeButtons from './OutcomeButtons.vue';
import RulesPanel from './RulesPanel.vue';
import { useEyeMarks } from './useEyeMarks';

const HEAD = { topSpeedMmPerS: 600, firingThresholdPercent: 7 };
const LIMITS = { bed: { widthMm: 700, heightMm: 500 }, ...HEAD };
const design = designOf(firstDraft(HEAD), null, 'K-031');
const layout = layoutCoupon(design, LIMITS);
const BENCH = {
  power: { ratedW: 55 },
  motion: { kind: 'gantry' as const, accelerationMmPerS2: 5000, rapidMmPerS: 600 },
  ...{ spotXMm: 0.16, spotYMm: 0.16, conductivity: 0.0162, diffusivity: 4.05 },
};
const measure = (cell: number, contrast: number | null): CellMeasure => ({
  ...{ cell, unreadable: contrast === null ? 'glare' : null, lightness: contrast && 70 - contrast, bareLightness: 70 },
  ...{
    contrast,
    deltaE: contrast,
    coverage: contrast === null ? null : 0.97,
    evenness: contrast === null ? null : 0.91,
  },
  ...{ chroma: 3, grain: 1.2, edgeUm: 96, halo: 0.02 },
});
const entries = (contrast: (cell: number) => number | null): CouponPictureEntries => ({
  ...{
    fileHash: 'a'.repeat(64),
    card: 'A5',
    print: null,
    reprojectionErrorMm: 0.02,
    mmPerPx: 0.1,
    blurUm: 230,
    unevenness: 1.2,
    byHand: false,
    level: null,
  },
  ...{ corners: [], code: 'K-031', noise: 0.5, edgeFloorUm: 80 },
  cells: layout.cells.map(({ index }) => measure(index, contrast(index))),
});
const rinsed = entries(() => 50);
const scrubbed = entries((cell) => (cell === 3 ? null : cell < 20 ? 48 : 5));

function shown(component: Component, props: object) {
  return mount(component, { props, global: { plugins: [PrimeVue] } } as never);
}
beforeEach(() => {
  localStorage.clear();
  setActivePinia(createPinia());
});

describe('measures', () => {
  it('say what the scrub left, and nothing where nothing can be said', () => {
    expect(keptShare({ rinsed, scrubbed }, 0)).toBeCloseTo(0.96, 9);
    expect(keptShare({ rinsed, scrubbed }, 3)).toBeNull();
    expect(keptShare({ rinsed: null, scrubbed }, 0)).toBeNull();
    expect(keptShare({ rinsed: entries(() => 1), scrubbed }, 0)).toBeNull();
  });

  it('turn contrast by the aim, and show a dash for what is not there', () => {
    const contrast = SHOWN_MEASURES[0]!;
    expect(contrast.of(measure(0, -15), 'light on dark')).toBe(15);
    expect(contrast.of(measure(0, null), 'dark on light')).toBeNull();
    expect([shownNumber(null, 1), shownNumber(0.9712, 2)]).toEqual(['–', '0.97']);
  });
});

const picture = (read: CouponPictureEntries) => ({
  ...{ hash: 'h', keptAs: null, at: null, photo: null, corners: [], sure: true, missing: [], tookS: 0.4 },
  entries: read,
  level: { url: 'blob:level', pxMm: 0.1 },
});

describe('a cell', () => {
  const props = {
    layout,
    prediction: predictCells(layout, BENCH)[0]!,
    index: 0,
    pictures: { rinsed: picture(rinsed), scrubbed: picture(scrubbed) },
    tone: 'dark on light',
    outcome: 'holds',
    proposed: { outcome: 'holds', because: '96 % kept, within all limits', sure: true },
    reason: '',
    grade: 'guess',
  };

  it('shows both pictures at one scale, its measures before and after, and why it is proposed', () => {
    const panel = shown(CellPanel, props);
    expect(panel.text()).toMatch(/40 %, 60 mm\/s, 0\.06 mm/);
    const crops = panel.findAll('.crops svg');
    expect(crops).toHaveLength(2);
    expect(crops[0]!.attributes('viewBox')).toBe(crops[1]!.attributes('viewBox'));
    const [contrast] = panel.findAll('tbody tr');
    expect(contrast!.findAll('td').map((cell) => cell.text())).toEqual(['contrast ΔL*', '50.0', '48.0', '96 %']);
    expect(panel.find(by('cell-proposal')).text()).toBe('Proposed: 96 % kept, within all limits.');
  });

  it('that cannot be read says why and gives no figures', () => {
    const panel = shown(CellPanel, { ...props, index: 3, outcome: null, proposed: null });
    expect(panel.text()).toMatch(/Scrubbed picture: this cell cannot be read, glare lies on it/);
    expect(panel.findAll('tbody tr')[0]!.findAll('td')[2]!.text()).toBe('–');
  });

  it('taken against the picture names what was proposed and the reason', () => {
    const panel = shown(CellPanel, { ...props, outcome: 'over', reason: 'scorched' });
    expect(panel.find(by('cell-proposal')).text()).toMatch(/against the picture \(96 % kept.*\): scorched/);
  });
});

describe('outcomes by hand', () => {
  it('ask for a reason only where they differ from what is proposed', async () => {
    const buttons = shown(OutcomeButtons, { outcome: 'holds', proposed: 'holds', taken: null });
    expect(buttons.find(by('reason')).exists()).toBe(false);
    await buttons.find(by('outcome-over')).trigger('click');
    expect(buttons.emitted('take')).toEqual([['over']]);
    await buttons.setProps({ outcome: 'over', taken: { outcome: 'over', reason: '' } });
    expect(buttons.find(by('reason')).exists()).toBe(true);
    await buttons.findAll('.reason')[1]!.trigger('click');
    expect(buttons.emitted('reason')).toEqual([['dirt or water on it']]);
  });
});

describe('maps', () => {
  it('give what every cell kept in per cent, and select the cell pressed', async () => {
    const map = shown(KeptMap, { layout, entries: { rinsed, scrubbed }, selected: 0 });
    const texts = map.findAll('text').map((one) => one.text());
    expect(texts).toHaveLength(56);
    expect([texts[0], texts[3], texts[40]]).toEqual(['96', '–', '10']);
    await map.findAll('g')[7]!.trigger('click');
    expect(map.emitted('select')).toEqual([[7]]);
  });

  it('show every measure before and after on one scale, with a place for what was not pictured', () => {
    const maps = shown(MeasureMaps, {
      layout,
      entries: { rinsed, scrubbed: null },
      tone: 'dark on light',
      selected: 0,
    });
    expect(maps.findAll('section')).toHaveLength(SHOWN_MEASURES.length);
    expect(maps.findAll('svg')).toHaveLength(SHOWN_MEASURES.length);
    expect(maps.text()).toMatch(/contrast 0\.0 – 50\.0 ΔL\*[\s\S]*no picture/);
  });
});

describe('rules', () => {
  it('are as usual until moved, in the units they are read in, and come back', async () => {
    const rules = ref<OutcomeRules>({ ...usualRules('dark on light') });
    const panel = shown(RulesPanel, {
      modelValue: rules.value,
      usual: usualRules('dark on light'),
      'onUpdate:modelValue': (now: OutcomeRules) => (rules.value = now),
    });
    expect(panel.find('summary').text()).toBe('Rules, as usual');
    const retention = panel.find<HTMLInputElement>(by('rule-retention'));
    expect(retention.element.value).toBe('85');
    await retention.setValue('70');
    expect(rules.value.retention).toBeCloseTo(0.7, 9);
    await panel.setProps({ modelValue: rules.value });
    expect(panel.find('summary').text()).toBe('Rules, moved');
    await panel.find(by('rule-contrast')).setValue('x');
    expect(rules.value.contrast).toBe(20);
  });
});

describe('marks by eye', () => {
  const marksOf = () => {
    const coupon = ref({ id: 'c1', readings: [] } as unknown as Coupon);
    const eye = useEyeMarks(coupon, ref('scrubbed'), ref(usualRules('dark on light')));
    eye.restore();
    return eye;
  };

  it('follow the step scale by the rules, are sent with their steps, and survive a reload', async () => {
    const eye = marksOf();
    eye.step(0, 3);
    eye.step(1, 2);
    eye.mark(2, 'over');
    expect(eye.changed.value).toEqual([
      { cell: 0, outcome: 'holds', step: 3 },
      { cell: 1, outcome: 'under', step: 2 },
      { cell: 2, outcome: 'over' },
    ]);
    await nextTick();
    expect(marksOf().changed.value).toEqual(eye.changed.value);
    // Marked anew, a cell has no step any more.
    eye.mark(0, 'under');
    expect(eye.changed.value[0]).toEqual({ cell: 0, outcome: 'under' });
  });
});

describe('a design and its draft', () => {
  it('go back and forth without loss', () => {
    const whole: CouponDesign = {
      ...design,
      axes: {
        ...design.axes,
        block: { parameter: 'passes', spacing: 'list', values: [1, 2] },
      },
      ...{ anchors: true, bareStrip: true, hatches: 2, order: 'shuffled' as const, gapMm: 1.4 },
    };
    expect(designOf(draftOf(whole, 0.5), null, 'K-031')).toEqual(whole);
    expect(draftOf(whole, 0.5).focusOffsetMm).toBe(0.5);
  });
});
