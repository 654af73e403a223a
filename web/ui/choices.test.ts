// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import PrimeVue from 'primevue/config';
import DatePicker from 'primevue/datepicker';
import { describe, expect, it } from 'vitest';
import { nextTick } from 'vue';
import DateField from './DateField.vue';
import PickOne from './PickOne.vue';
import TaskTabs from './TaskTabs.vue';
import TickField from './TickField.vue';

const global = { plugins: [PrimeVue] };
const by = (id: string) => `[data-test-id="${id}"]`;

describe('one of a few', () => {
  const props = {
    label: 'Volume by',
    modelValue: 'sheet',
    options: [
      { value: 'sheet', label: 'ruler' },
      { value: 'water', label: 'water' },
    ],
    testId: 'by',
  };

  it('is pressed, and never left without an answer', async () => {
    const page = mount(PickOne, { props, global });
    await page.find(by('by-water')).trigger('click');
    expect(page.emitted('update:modelValue')).toEqual([['water']]);
    await page.setProps({ modelValue: 'water' });
    await page.find(by('by-water')).trigger('click');
    expect(page.emitted('update:modelValue')).toHaveLength(1);
  });

  it('is called by its label, seen or only read out', async () => {
    const page = mount(PickOne, { props, global });
    const id = page.find('[role="group"]').attributes('aria-labelledby')!;
    expect(page.find(`[id="${id}"]`).text()).toBe('Volume by');
    await page.setProps({ bare: true });
    expect(page.find(`[id="${id}"]`).classes()).toContain('visually-hidden');
  });
});

describe('a tick', () => {
  it('is set by its words as by its box', async () => {
    const page = mount(TickField, { props: { modelValue: false, testId: 'dry' }, slots: { default: 'Dry' }, global });
    const box = page.find(by('dry'));
    expect(page.find('label').attributes('for')).toBe(box.attributes('id'));
    await box.setValue(true);
    expect(page.emitted('update:modelValue')).toEqual([[true]]);
  });
});

describe('a day', () => {
  it('is kept as year, month and day, whatever the browser’s zone', async () => {
    const page = mount(DateField, { props: { label: 'Wanted on', modelValue: '2026-03-01', testId: 'on' }, global });
    const picker = page.findComponent(DatePicker);
    expect((picker.props('modelValue') as Date).getDate()).toBe(1);
    picker.vm.$emit('update:modelValue', new Date(2026, 11, 31, 23, 30));
    expect(page.emitted('update:modelValue')!.at(-1)).toEqual(['2026-12-31']);
  });

  it('is none while it is half typed, and when it is taken out', async () => {
    const page = mount(DateField, { props: { label: 'Wanted on', modelValue: '2026-03-01', testId: 'on' }, global });
    const picker = page.findComponent(DatePicker);
    for (const typed of ['2026-1', null, new Date(Number.NaN)]) picker.vm.$emit('update:modelValue', typed);
    await nextTick();
    expect([...new Set(page.emitted('update:modelValue')!.flat())]).toEqual([null]);
  });
});

describe('tasks of a station', () => {
  const tasks = [
    { key: 'plan', label: 'Plan' },
    { key: 'lay', label: 'Lay' },
  ];

  it('open by a press, name nothing that is not there, and are tabs to whoever hears them', async () => {
    const page = mount(TaskTabs, { props: { modelValue: 'plan', tasks, name: 'coat' }, global });
    const tabs = page.findAll('[role="tab"]');
    expect(tabs.map((tab) => [tab.text(), tab.attributes('aria-selected'), tab.attributes('aria-controls')])).toEqual([
      ['Plan', 'true', undefined],
      ['Lay', 'false', undefined],
    ]);
    await page.find(by('coat-lay')).trigger('click');
    expect(page.emitted('update:modelValue')).toEqual([['lay']]);
  });
});
