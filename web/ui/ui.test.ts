// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { createTicket, type Problem } from '@unto/contract';
import { flushPromises, mount } from '@vue/test-utils';
import { defineComponent, h, inject, ref } from 'vue';
import { ApiProblem } from '../api/client';
import {
  formatTimer,
  formatDuration,
  formatFigure,
  formatMoney,
  formatNumber,
  GRADE_WORDS,
  parseNumber,
  withUnit,
} from './format';
import { isTyping, KEYS } from './keys';
import { useDraft } from './useDraft';
import { FORM, useForm, type Form, type FormContext } from './useForm';

const plain = (text: string) => text.replace(/\u202f/g, ' ');

describe('numbers as written', () => {
  it('keep what was entered and no idle zeros', () => {
    expect(formatNumber(0.08)).toBe('0.08');
    expect(formatNumber(100)).toBe('100');
    expect(formatNumber(12.34567)).toBe('12.35');
    expect(plain(formatNumber(123456))).toBe('123 456');
    expect(formatNumber(0)).toBe('0');
    expect(formatNumber(Number.NaN)).toBe('–');
  });

  it('show computed figures with their zeros', () => {
    expect(formatFigure(10, 3)).toBe('10.0');
    expect(formatFigure(0.004411, 2)).toBe('0.0044');
    expect(plain(formatFigure(5330, 3))).toBe('5330');
    expect(plain(formatFigure(53301, 3))).toBe('53 300');
    expect(formatFigure(0)).toBe('0');
  });

  it('carry their unit after a thin space, a 0-1000 scale in words', () => {
    expect(withUnit(123, 'mm/s')).toBe('123\u202fmm/s');
    expect(withUnit(850, '0-1000')).toBe('850 of 1000');
    expect(plain(formatMoney(1234.4, 'CR'))).toBe('12.34 CR');
  });

  it.each([
    ['1,5', 1.5],
    [' 1 000.25 ', 1000.25],
    ['-4', -4],
    ['1e-3', 0.001],
    ['', Number.NaN],
    ['12mm', Number.NaN],
    ['1.2.3', Number.NaN],
  ])('read “%s”', (typed, value) => expect(parseNumber(typed)).toEqual(value));

  it.each([
    [0, '0:00'],
    [59.2, '1:00'],
    [160, '2:40'],
    [4920, '1:22 h'],
    [-5, '0:00'],
  ])('show %s s on a clock as %s', (seconds, text) => expect(plain(formatTimer(seconds))).toBe(text));

  it('say times as people do', () => {
    expect(plain(formatDuration(75))).toBe('75 s');
    expect(plain(formatDuration(240))).toBe('4:00 min');
    expect(plain(formatDuration(7800))).toBe('2 h 10');
  });

  it('have a word and a meaning for every grade', () => {
    for (const { word, text } of Object.values(GRADE_WORDS))
      expect([word.length > 3, text.length > 5]).toEqual([true, true]);
  });
});

const EMPTY = {
  id: '0b6a0f0e-6c5c-4d33-9f29-8f3f1a6f0001',
  title: '',
  pieces: 1,
  markWidthMm: Number.NaN,
  markHeightMm: 22,
  coatMarginMm: 3,
  substrateId: '0b6a0f0e-6c5c-4d33-9f29-8f3f1a6f0002',
  headId: '0b6a0f0e-6c5c-4d33-9f29-8f3f1a6f0003',
  lensId: '0b6a0f0e-6c5c-4d33-9f29-8f3f1a6f0004',
  aim: { tone: 'dark on light', strength: 'clear', work: 'fill' },
  foodUse: false,
  wantedOn: null,
  note: '',
};
/** A form stands in a component, as on every page. */
function ticketForm(change: object, draft?: string): Form<typeof EMPTY> {
  let form!: Form<typeof EMPTY>;
  const options = { focusFault: () => undefined, ...(draft ? { draft } : {}) };
  mount({
    setup: () => {
      form = useForm(createTicket, () => ({ ...structuredClone(EMPTY), ...change }), options);
      return () => null;
    },
  });
  return form;
}
const problem = (change: Partial<Problem>): Problem => ({
  type: 'invalid-input',
  title: '',
  status: 422,
  detail: 'No.',
  ...change,
});

describe('forms', () => {
  it('show no fault before a field was left or the form sent', async () => {
    const form = ticketForm({});
    expect(form.faults.value).toEqual({});
    expect(await form.submit(async () => expect.unreachable())).toBe(false);
    expect(form.faults.value).toMatchObject({
      title: 'What is marked is missing.',
      markWidthMm: 'Width of the mark must be a number.',
    });
  });

  it('put what the server refuses at its field until that is changed', async () => {
    const form = ticketForm({ title: 'Tags', markWidthMm: 38 });
    const refused = problem({ faults: [{ path: 'lensId', message: 'It was retired.' }] });
    expect(await form.submit(() => Promise.reject(new ApiProblem(refused)))).toBe(false);
    expect(form.faults.value).toEqual({ lensId: 'It was retired.' });
    form.values.value.lensId = '0b6a0f0e-6c5c-4d33-9f29-8f3f1a6f0009';
    await flushPromises();
    expect(form.faults.value).toEqual({});
  });

  it('say what belongs to no field over the form, and let other errors through', async () => {
    const form = ticketForm({ title: 'Tags', markWidthMm: 38 });
    await form.submit(() => Promise.reject(new ApiProblem(problem({ detail: 'Not now.' }))));
    expect(form.general.value).toBe('Not now.');
    await expect(form.submit(() => Promise.reject(new Error('broken')))).rejects.toThrow('broken');
    expect(form.busy.value).toBe(false);
    form.reset();
    expect(form.general.value).toBe('');
  });

  it('hand over plain values, once at a time', async () => {
    const form = ticketForm({ title: 'Tags', markWidthMm: 38 });
    let calls = 0;
    const slow = async (values: object) => {
      calls += 1;
      expect(structuredClone(values)).toEqual(values);
      await new Promise((resolve) => setTimeout(resolve, 5));
    };
    const both = await Promise.all([form.submit(slow), form.submit(slow)]);
    expect([both, calls]).toEqual([[true, false], 1]);
  });

  it('say that what was entered waits, and call nothing faulty', async () => {
    const form = ticketForm({ title: 'Tags', markWidthMm: 38 });
    expect(await form.submit(async () => null)).toBe(true);
    expect([form.waiting.value, form.general.value, form.faults.value]).toEqual([true, '', {}]);
    await form.submit(async () => ({ id: 'kept' }));
    expect(form.waiting.value).toBe(false);
  });

  it('keep what is typed over a reload until it was sent', async () => {
    localStorage.clear();
    const form = ticketForm({}, 'a-draft');
    form.values.value.title = 'Half a title';
    await flushPromises();
    const again = ticketForm({}, 'a-draft');
    expect(again.values.value.title).toBe('Half a title');
    again.values.value.markWidthMm = 38;
    await flushPromises();
    await again.submit(async () => ({}));
    expect(ticketForm({}, 'a-draft').values.value.title).toBe('');
  });

  it('say what was typed before, start over when told, and hold back no offer that has moved since', async () => {
    localStorage.clear();
    const form = ticketForm({ pieces: 24 }, 'a-draft');
    form.values.value.title = 'Tags';
    form.values.value.markWidthMm = Number.NaN;
    form.values.value.aim.strength = 'faint' as never;
    await flushPromises();
    // Half of the pieces are done meanwhile: what nobody typed is offered anew.
    const again = ticketForm({ pieces: 12 }, 'a-draft');
    expect(again.values.value).toMatchObject({ title: 'Tags', pieces: 12, aim: { strength: 'faint', work: 'fill' } });
    again.reset();
    expect(again.values.value.title).toBe('');
    expect(localStorage.getItem('unto-draft-a-draft')).toBeNull();
    again.values.value.pieces = 5;
    await flushPromises();
    again.values.value.pieces = 12;
    await flushPromises();
    expect(localStorage.getItem('unto-draft-a-draft')).toBeNull();
  });

  it('bring back answers by name, one that is not a number too', async () => {
    localStorage.clear();
    const answers = () => ref({ words: {} as Record<string, string>, mass: { value: 3, unit: 'g' } });
    const typed = answers();
    useDraft('answers', typed);
    typed.value.words = { magnet: 'pulls' };
    typed.value.mass.value = Number.NaN;
    await flushPromises();
    const again = answers();
    expect(useDraft('answers', again).restored.value).toBe(true);
    expect(again.value).toEqual({ words: { magnet: 'pulls' }, mass: { value: Number.NaN, unit: 'g' } });
  });

  it('bring back nothing from a damaged draft or for a field that is gone', async () => {
    for (const kept of ['{"title":"old"}', 'nonsense', '[["title"]]', '[[["gone"],1],[["aim","gone"],2],[[],3]]']) {
      localStorage.setItem('unto-draft-a-draft', kept);
      expect(ticketForm({ title: 'Tags' }, 'a-draft').values.value).toMatchObject({ title: 'Tags', pieces: 1 });
    }
    localStorage.clear();
  });

  it('take a part that is set to itself, and write nowhere else', async () => {
    const form = ticketForm({ title: 'Tags', markWidthMm: 38 });
    const { values } = form;
    values.value.aim = values.value.aim;
    values.value.aim.tone = 'light on dark';
    await flushPromises();
    expect(Object.keys(Object.prototype)).toEqual([]);
    expect(({} as { value?: unknown }).value).toBeUndefined();
    expect(await form.submit(async (entry) => expect(entry.aim).toEqual({ ...EMPTY.aim, tone: 'light on dark' }))).toBe(
      true,
    );
  });

  it('know which fields must be filled', () => {
    let context!: FormContext;
    const Field = defineComponent({ setup: () => ((context = inject(FORM)!), () => null) });
    mount({ setup: () => (useForm(createTicket, () => structuredClone(EMPTY)), () => h(Field)) });
    expect(['title', 'pieces', 'note', 'wantedOn', 'aim.tone'].map((path) => context.isRequired(path))).toEqual([
      true,
      true,
      false,
      false,
      true,
    ]);
  });
});

describe('keys', () => {
  it('are letters while somebody types', () => {
    const event = (change: object) =>
      ({ target: null, ctrlKey: false, metaKey: false, altKey: false, ...change }) as unknown as KeyboardEvent;
    expect(isTyping(event({}))).toBe(false);
    expect(isTyping(event({ ctrlKey: true }))).toBe(true);
    expect(isTyping(event({ target: { closest: () => ({}) } }))).toBe(true);
    expect(new Set(KEYS.map(({ keys }) => keys)).size).toBe(KEYS.length);
  });
});
