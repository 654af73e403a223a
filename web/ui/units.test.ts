// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import PrimeVue from 'primevue/config';
import { CORE_READING, type Quantity, type UnitReading } from '@unto/core';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { computed, defineComponent, h, nextTick, ref, shallowRef } from 'vue';
import NumberField from './NumberField.vue';
import { provideReading, shopReading, unitsOf } from './useUnits';

const plain = (text: string) => text.replace(/\u202f/g, ' ');
const reading = (units: object, scale: object = {}): UnitReading => ({
  units: { ...CORE_READING.units, ...units },
  scale,
});
const inches = reading({ length: 'in', film: 'mil', mass: 'oz', speed: 'in/s', interval: 'lines/in' });

describe('quantities as written', () => {
  const units = unitsOf(shallowRef(inches));

  it('stand in the units that were chosen', () => {
    expect(plain(units.text('length', 50.8))).toBe('2 in');
    expect(plain(units.text('interval', 0.0635))).toBe('400 lines/in');
    expect(plain(units.figure('film', 12.7))).toBe('0.500 mil');
    expect(plain(units.span('film', 10, 25))).toBe('0.394–0.984 mil');
    expect(plain(units.size(50.8, 25.4))).toBe('2 × 1 in');
    expect(plain(units.size(3, 4, 0.1, ', '))).toBe('0.12, 0.16 in');
    expect(plain(units.rounded('mass', 3.21, 0.01))).toBe('0.113 oz');
  });

  it('fall back to the unit of the core where theirs cannot show them', () => {
    const bare = unitsOf(shallowRef(reading({ speed: '%', power: 'W' })));
    expect(plain(bare.text('speed', 123))).toBe('123 mm/s');
    expect(plain(bare.text('power', 85))).toBe('85 %');
    expect(bare.axis('speed', 10, 100).unit).toBe('mm/s');
    expect(plain(units.text('length', Number.NaN))).toBe('– mm');
  });

  it('take a figure of the core by its unit', () => {
    expect(units.plain(25.4, 'mm')).toEqual({ value: 1, unit: 'in' });
    expect(units.plain(3, 'J/mm²')).toEqual({ value: 3, unit: 'J/mm²' });
    expect(units.toCore('length', 2)).toBeCloseTo(50.8, 9);
    // What cannot be is for whoever checks the design to refuse in words, and never another speed.
    const percent = unitsOf(shallowRef(reading({ speed: '%' }, { topSpeedMmPerS: 600 })));
    expect([percent.toCore('speed', 25), percent.toCore('speed', 120)]).toEqual([150, Number.NaN]);
    expect(percent.toCore('power', 120)).toBe(120);
  });
});

describe('a field of a quantity', () => {
  beforeEach(() => localStorage.clear());
  afterEach(() => (shopReading.value = CORE_READING));

  function field(quantity: Quantity, start: number, panel: UnitReading | null = null) {
    const value = ref<number | null>(start);
    const wrapper = mount(
      defineComponent({
        setup() {
          if (panel) provideReading(computed(() => panel));
          return () =>
            h(NumberField, {
              label: 'Width',
              testId: `f-${quantity}-${Math.random()}`,
              quantity,
              modelValue: value.value,
              'onUpdate:modelValue': (now: number | null | undefined) => (value.value = now ?? null),
            });
        },
      }),
      { global: { plugins: [PrimeVue] } },
    );
    const input = wrapper.find('input');
    return { value, wrapper, input, shown: () => (input.element as HTMLInputElement).value };
  }

  it('is typed in the unit of the shop and kept in that of the core', async () => {
    shopReading.value = inches;
    const { value, input, shown } = field('length', 50.8);
    expect(shown()).toBe('2');
    await input.setValue('0,5');
    expect(value.value).toBeCloseTo(12.7, 9);
    expect(shown()).toBe('0,5');
    value.value = 25.4;
    await nextTick();
    expect(shown()).toBe('1');
  });

  it('takes a unit behind the number at its word and stays in it', async () => {
    const { value, input, shown, wrapper } = field('length', 10);
    await input.setValue('0.5 in');
    expect(value.value).toBeCloseTo(12.7, 9);
    await input.trigger('blur');
    await nextTick();
    expect(shown()).toBe('0.5');
    expect(wrapper.text()).toContain('in');
    await input.setValue('2"');
    expect(value.value).toBeCloseTo(50.8, 9);
    await input.setValue('3 ells');
    expect(value.value).toBeNaN();
  });

  it('reads a panel: percent of its top speed, and says where a number cannot be', async () => {
    const { value, input, wrapper, shown } = field('speed', 150, reading({ speed: '%' }, { topSpeedMmPerS: 600 }));
    expect(shown()).toBe('25');
    await input.setValue('50');
    expect(value.value).toBe(300);
    await input.setValue('120');
    expect(value.value).toBeNaN();
    expect(wrapper.find('[role="alert"]').text()).toMatch(/between 0 and 100/);
  });

  it('keeps nought and what is below it for the form to refuse, and turns offsets round', async () => {
    shopReading.value = inches;
    const speed = field('speed', 254);
    await speed.input.setValue('0');
    expect(speed.value.value).toBe(0);
    const offset = field('length', -2.54);
    expect(offset.shown()).toBe('-0.1');
    await offset.input.setValue('-0.2');
    expect(offset.value.value).toBeCloseTo(-5.08, 9);
  });
});
