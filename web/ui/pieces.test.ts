// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { decisive, GRADES, makeFigure, supporting } from '@unto/core';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { defineComponent, ref, type Component } from 'vue';
import CheckList from '../station/CheckList.vue';
import { useEvidence } from '../evidence/evidence';
import { useNotices } from '../stores/notices';
import { useNow } from '../stores/now';
import { useOutbox } from '../stores/outbox';
import { set } from '../testing/memory-storage';
import { by, fakeServer, item, mountInShop, stock } from '../testing/shop';
import { mountOnTicket } from '../testing/ticket';
import CautionStrip from '../station/CautionStrip.vue';
import TimerRing from '../timers/TimerRing.vue';
import EnteredField from './EnteredField.vue';
import EvidenceSheet from '../evidence/EvidenceSheet.vue';
import FigureTile from '../evidence/FigureTile.vue';
import { GRADE_WORDS } from './format';
import GradeMark from '../evidence/GradeMark.vue';
import NoticeBar from '../app/NoticeBar.vue';
import NumberField from './NumberField.vue';
import OperatorPicker from '../app/OperatorPicker.vue';
import OutboxStrip from '../app/OutboxStrip.vue';
import StationLine from '../station/StationLine.vue';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const FIGURE = makeFigure({
  formula: 'arealDose',
  value: 3.6,
  unit: 'J/mm²',
  interval: { low: 3.2, high: 4, level: 0.9 },
  inputs: [
    decisive('power', 'measured', { value: 9.9, unit: 'W' }),
    decisive('coupon', 'carried', { ref: { kind: 'coupon', id: 'k7' } }),
    supporting('prior', 'guess'),
  ],
});

describe('a grade', () => {
  it.each(GRADES)('%s is said by word and by a shape of its own', async (grade) => {
    const { page } = await mountInShop(GradeMark, { props: { grade } });
    expect(page.text()).toBe(GRADE_WORDS[grade].word);
    expect(page.find('path').attributes('d')).toBeTruthy();
    expect(page.element.tagName).toBe('SPAN');
  });

  it('opens what its figure rests on, and says so to a screen reader', async () => {
    const { page } = await mountInShop(GradeMark, { props: { figure: FIGURE, title: 'Dose' } });
    expect(page.find('button').attributes('aria-label')).toBe('Carried: what Dose rests on');
    await page.find('button').trigger('click');
    expect(useEvidence().open).toEqual({ title: 'Dose', figure: FIGURE });
  });

  it('in a column keeps its words for the screen reader behind the number', async () => {
    const { page } = await mountInShop(GradeMark, { props: { figure: FIGURE, title: 'Dose', short: true } });
    expect(page.find('.visually-hidden').text()).toBe('Carried: what Dose rests on');
    expect(page.find('button').attributes('aria-label')).toBeUndefined();
  });
});

describe('the evidence sheet', () => {
  it('shows value, interval, formula in words and every input, those that only widen marked', async () => {
    const { page } = await mountInShop(EvidenceSheet, { attach: true });
    useEvidence().show('Dose', FIGURE);
    await flushPromises();
    const text = document.body.textContent!;
    expect(text).toMatch(/3\.60 J\/mm²/);
    expect(text).toMatch(/3\.20–4\.00 J\/mm²\s*holds 90 times in 100/);
    expect(text).toMatch(/dose = passes × power ÷ \(speed × line interval\)/);
    expect(text).toMatch(/prior · widens the interval only/);
    expect(document.querySelector('a[href="/coupons/k7"]')).not.toBeNull();
    page.unmount();
  });
});

describe('a figure set large', () => {
  it('has label, value, unit, interval and grade, and a dash without a figure', async () => {
    const { page } = await mountInShop(FigureTile, { props: { label: 'dose', figure: FIGURE } });
    expect(page.text()).toMatch(/dose[\s\S]*3\.60J\/mm²[\s\S]*3\.20–4\.00[\s\S]*Carried/);
    expect((await mountInShop(FigureTile, { props: { label: 'dose', figure: null } })).page.text()).toMatch(/dose\s*–/);
  });
});

describe('a number as typed', () => {
  it('takes comma or point, and turns what is no number into one that is refused', async () => {
    const { page } = await mountInShop(NumberField, { props: { label: 'Speed', modelValue: Number.NaN } });
    const said = () => page.emitted('update:modelValue')!.at(-1)![0];
    for (const [typed, value] of [
      ['1,5', 1.5],
      ['12.25', 12.25],
      ['fast', Number.NaN],
      ['', Number.NaN],
    ] as const) {
      await page.find('input').setValue(typed);
      expect(said()).toEqual(value);
    }
  });

  it('may stay empty where it is optional, and keeps what was typed on the screen', async () => {
    const { page } = await mountInShop(NumberField, { props: { label: 'Keeps', modelValue: 3, optional: true } });
    expect((page.find('input').element as HTMLInputElement).value).toBe('3');
    await page.find('input').setValue(' ');
    expect(page.emitted('update:modelValue')!.at(-1)![0]).toBeNull();
    await page.find('input').setValue('2,50');
    expect((page.find('input').element as HTMLInputElement).value).toBe('2,50');
  });

  it('ties its fault to its field', async () => {
    const { page } = await mountInShop(NumberField, {
      props: { label: 'Speed', modelValue: 0, fault: 'Speed must be above 0.' },
    });
    const input = page.find('input');
    expect(input.attributes('aria-invalid')).toBe('true');
    expect(page.find(`#${input.attributes('aria-describedby')}`).text()).toBe('Speed must be above 0.');
  });

  it('carries a unit of the operator’s choice', async () => {
    const model = ref({ value: 90, unit: '%' });
    const Host = defineComponent({
      components: { EnteredField },
      setup: () => ({ model, units: ['%', '0-1000'] }),
      template: '<EnteredField v-model="model" label="Power" :units="units" test-id="power" />',
    });
    const { page } = await mountInShop(Host);
    await page.find('input').setValue('850');
    expect(model.value).toEqual({ value: 850, unit: '%' });
    expect(page.find('[aria-label="Unit of power"]').exists()).toBe(true);
  });
});

describe('the station line', () => {
  it('says each state by shape and word, and marks the open station', async () => {
    const stations = [
      { station: 'choose', state: 'done', word: 'Corvid Film' },
      { station: 'coat', state: 'running', word: 'drying' },
      { station: 'judge', state: 'attention', word: 'faults seen' },
      { station: 'mark', state: 'open', word: '0 of 6' },
    ];
    const { page } = await mountInShop(StationLine, { props: { ticketId: 't', stations, open: 'coat' } });
    const links = page.findAll('a');
    expect(links.map((link) => link.find('svg').attributes('class'))).toEqual(['done', 'running', 'attention', 'open']);
    expect(links[1]!.attributes('aria-current')).toBe('step');
    expect(links[2]!.text()).toMatch(/Judge[\s\S]*faults seen/);
    expect(links[0]!.attributes('href')).toBe('/tickets/t/choose');
  });
});

describe('a clock', () => {
  it('fills with time and says when to look', async () => {
    vi.useFakeTimers({ now: new Date('2026-03-01T10:02:00Z') });
    const clock = { startedAt: '2026-03-01T10:00:00Z', minimumS: 240, kind: 'dry' };
    const { page } = await mountInShop(TimerRing, { props: { timer: clock, of: true } });
    useNow().now = Date.now();
    await page.vm.$nextTick();
    expect(page.attributes('aria-label')).toBe('2:00 left');
    expect(page.text()).toMatch(/2:00\s*of 4:00/);
    const [drawn, round] = page.find('.run').attributes('stroke-dasharray')!.split(' ').map(Number);
    expect(drawn! / round!).toBeCloseTo(0.5, 6);
    useNow().now = Date.parse('2026-03-01T10:05:00Z');
    await page.vm.$nextTick();
    expect(page.text()).toMatch(/look/);
    expect(page.attributes('aria-label')).toBe('time is up');
  });
});

const TICKET = {
  id: 't',
  version: 1,
  title: 'Tags',
  pieces: 6,
  substrateId: 'metal',
  headId: 'head',
  lensId: 'lens',
  compoundId: 'powder',
  foodUse: false,
};
const BENCH = [
  item('substrate', 'metal', { family: 'stainless', layer: 'bare' }),
  item('machine', 'machine'),
  item('head', 'head', {
    name: 'Small bench infrared',
    machineId: 'machine',
    wavelengthClass: 'near-infrared',
    eyewear: 'the green pair',
  }),
  item('lens', 'lens', { headId: 'head' }),
  item('compound', 'powder', { form: 'metal powder-drying', handling: 'loose powder', solventBased: true }),
];
function onTicket(component: Component, props: object, checks: object[] = []) {
  return mountOnTicket(component, { ticket: TICKET, props, page: { checks }, items: BENCH });
}

describe('cautions at their station', () => {
  it('come one at a time, name the head and its eyewear, and are acknowledged once', async () => {
    const { page, server } = await onTicket(CautionStrip, { station: 'mark' });
    expect(page.find(by('caution')).text()).toMatch(
      /Small bench infrared fitted[\s\S]*the green pair[\s\S]*ask a laser-safety person/,
    );
    expect(page.text()).toMatch(/4 more after this one/);
    await page.find(by('understood')).trigger('click');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({
      path: '/api/tickets/t/checks',
      body: { station: 'mark', kind: 'caution', code: 'eyewear-near-infrared' },
    });
  });

  it('leave a line to look them up once all are understood', async () => {
    const known = ['eyewear-near-infrared', 'unattended', 'reflection', 'powder', 'metal-fume'].map((code) => ({
      kind: 'caution',
      code,
      station: 'mark',
    }));
    const { page } = await onTicket(CautionStrip, { station: 'mark' }, known);
    expect(page.find(by('caution')).exists()).toBe(false);
    expect(page.find('summary').text()).toBe('5 cautions understood here');
    expect(page.text()).toMatch(/gloves and respirator/);
  });
});

describe('a list of checks', () => {
  it('ticks off what was looked at, and takes a tick back', async () => {
    const items = [
      { code: 'bare', text: 'Bare metal' },
      { code: 'clean', text: 'Clean and dry' },
    ];
    const { page, server } = await onTicket(CheckList, { station: 'prepare', checks: items }, [
      { kind: 'check', station: 'prepare', code: 'bare', at: '2026-03-01T09:00:00Z', by: 'ines' },
    ]);
    expect(page.find(by('check-bare')).exists()).toBe(true);
    await page.find(by('check-clean')).setValue(true);
    await flushPromises();
    await page.find(by('check-bare')).setValue(false);
    await flushPromises();
    expect(server.posts().map(({ body }) => [body.kind, body.code])).toEqual([
      ['check', 'clean'],
      ['taken back', 'bare'],
    ]);
  });
});

describe('what waits and what was said', () => {
  it('shows entries that wait in order and what was refused with its reason', async () => {
    const server = fakeServer();
    const { page } = await mountInShop(OutboxStrip);
    expect(page.text()).toBe('');
    const entry = { method: 'POST', path: '/api/runs', body: { id: 'a' }, operator: 'ines' };
    const refused = { type: 'invalid-input', title: '', status: 422, detail: 'Power must be at most 100.' };
    const waits = {
      ...entry,
      key: '2',
      body: { id: 'b', of: 'a' },
      label: 'a run of 6 pieces',
      touches: [],
      refused: null,
    };
    await set('1', { ...entry, key: '1', label: 'a cleaning', touches: [], refused });
    await set('2', waits);
    await useOutbox().load();
    await flushPromises();
    expect(page.find(by('outbox')).text()).toMatch(/waiting to be sent[\s\S]*a run of 6 pieces/);
    expect(page.find(by('outbox')).text()).toMatch(/a cleaning[\s\S]*Power must be at most 100/);
    await page.findAll('button').at(-1)!.trigger('click');
    await flushPromises();
    // Letting the refused one go frees the way for what waited.
    expect(useOutbox().queue).toEqual([]);
    expect(server.posts().map(({ path }) => path)).toEqual(['/api/runs']);
  });

  it('offers an undo, and goes away by itself', async () => {
    vi.useFakeTimers();
    const { page } = await mountInShop(NoticeBar);
    const undo = vi.fn();
    useNotices().say('Taken: Corvid Film.', 'plain', undo);
    await page.vm.$nextTick();
    expect(page.text()).toMatch(/Taken: Corvid Film\./);
    await page.find(by('notice-undo')).trigger('click');
    expect(undo).toHaveBeenCalledOnce();
    expect(useNotices().notice).toBeNull();
    useNotices().say('Kept.');
    vi.advanceTimersByTime(6100);
    expect(useNotices().notice).toBeNull();
  });
});

describe('who is at the bench', () => {
  it('is picked in two presses', async () => {
    fakeServer();
    const { page, shop } = await mountInShop(OperatorPicker, { attach: true });
    stock({
      operators: [...shop.operators, { id: 'tobin', name: 'Tobin Ash', role: 'operator', version: 1, retired: false }],
    });
    const { useOperatorPicker } = await import('../stores/operator-picker');
    useOperatorPicker().open = true;
    await flushPromises();
    document.querySelector<HTMLElement>(by('person-Tobin'))!.click();
    await flushPromises();
    expect(shop.operatorId).toBe('tobin');
    expect(useOperatorPicker().open).toBe(false);
    page.unmount();
  });
});
