import { computed, inject, provide, shallowRef, type ComputedRef, type InjectionKey, type Ref } from 'vue';
import {
  CORE_READING,
  CoreError,
  decimalsIn,
  fromCoreUnit,
  QUANTITIES,
  quantityOfUnit,
  readIn,
  toCoreUnit,
  unitBehind,
  type Quantity,
  type UnitReading,
} from '@unto/core';
import { panelReading, type FittedEquipment } from '@unto/domain';
import { formatFigure, formatNumber, withUnit } from './format';

/** The units the shop reads in; set once its settings are known. */
export const shopReading = shallowRef<UnitReading>(CORE_READING);

const READING: InjectionKey<Ref<UnitReading>> = Symbol('units of a panel');

/** This page and what is below it read settings on a machine's panel rather than as the shop does. */
export function provideReading(reading: ComputedRef<UnitReading | null>): Units {
  const here = computed(() => reading.value ?? shopReading.value);
  provide(READING, here);
  return unitsOf(here);
}

/** Settings here and below are read on the panel of the machine that is meant, as soon as it is known. */
export function usePanel(equipment: () => Pick<FittedEquipment, 'machine' | 'head'> | null): Units {
  return provideReading(
    computed(() => {
      const meant = equipment();
      return meant && panelReading(shopReading.value.units, meant);
    }),
  );
}

/** Values of the core as they read here: on the panel of the machine that is meant, else in the shop's units. */
export function useUnits() {
  return unitsOf(inject(READING, shopReading));
}

/** One axis of a chart: its unit, and where on it a value of the core stands; what lies beyond an end stands at that end. */
export interface Axis {
  readonly unit: string;
  readonly at: (value: number) => number;
}

/** Writes quantities in the units of a reading. */
export function unitsOf(reading: Readonly<Ref<UnitReading>>) {
  const read = (quantity: Quantity, value: number) => readIn(reading.value, quantity, value);
  return {
    reading,
    read,
    unit: (quantity: Quantity) => reading.value.units[quantity],
    /** A value as entered or chosen, with its unit. */
    text(quantity: Quantity, value: number, significant = 4): string {
      const shown = read(quantity, value);
      return withUnit(shown.value, unitBehind(reading.value, quantity, shown.unit), significant);
    },
    /** The same in the unit of the core after a comma, where what reads here means nothing away from this machine. */
    aside(quantity: Quantity, value: number): string {
      const { unit } = read(quantity, value);
      return unit === '%' || unit === 'dial' ? `, ${withUnit(value, QUANTITIES[quantity].core)}` : '';
    },
    /** A computed or measured value with so many significant digits, and its unit. */
    figure(quantity: Quantity, value: number, significant = 3): string {
      const shown = read(quantity, value);
      return `${formatFigure(shown.value, significant)}\u202f${shown.unit}`;
    },
    /** A value rounded as a step of the core's unit would round it (0.01 mm and the like), and its unit. */
    rounded(quantity: 'length' | 'film' | 'mass', value: number, coreStep: number): string {
      const shown = read(quantity, value);
      return withUnit(Number(shown.value.toFixed(decimalsIn(quantity, shown.unit, coreStep))), shown.unit, 6);
    },
    /** Two computed values, the unit once: from one to another, or a place. */
    figures(quantity: Quantity, one: number, other: number, significant = 3, sign = '–'): string {
      return `${formatFigure(read(quantity, one).value, significant)}${sign}${this.figure(quantity, other, significant)}`;
    },
    /** From one value as entered to another, the unit once. */
    span(quantity: Quantity, low: number, high: number, significant = 3): string {
      const [from, to] = [read(quantity, low), read(quantity, high)];
      return `${formatNumber(from.value, significant)}–${withUnit(to.value, to.unit, significant)}`;
    },
    /** Width and height of a thing, or a place, parted by `sign`; rounded as a step of mm would round them. */
    size(widthMm: number, heightMm: number, stepMm = 0.01, sign = ' × '): string {
      const width = read('length', widthMm);
      const decimals = decimalsIn('length', width.unit, stepMm);
      return `${formatNumber(Number(width.value.toFixed(decimals)), 6)}${sign}${this.rounded('length', heightMm, stepMm)}`;
    },
    /** A whole axis from one value of the core to another, in the unit that reads here where it reaches so far. */
    axis(quantity: Quantity, low: number, high: number): Axis {
      const { units, scale } = reading.value;
      const unit = units[quantity];
      const reaches = [low, high].every((end) => fromCoreUnit(quantity, end, unit, scale) !== null);
      const within = (value: number) => Math.min(high, Math.max(low, value));
      return reaches
        ? { unit, at: (value) => fromCoreUnit(quantity, within(value), unit, scale)! }
        : { unit: QUANTITIES[quantity].core, at: within };
    },
    /** A value typed in the unit that reads here, in the unit of the core; NaN where it cannot be or cannot be known. */
    toCore(quantity: Quantity, value: number): number {
      const { units, scale } = reading.value;
      if (!Number.isFinite(value) || units[quantity] === QUANTITIES[quantity].core) return value;
      try {
        return toCoreUnit(quantity, value, units[quantity], scale) ?? Number.NaN;
      } catch (error) {
        if (error instanceof CoreError) return Number.NaN;
        throw error;
      }
    },
    /** A value in a unit of the core, in the unit it reads in here where it has several. */
    plain(value: number, coreUnit: string): { readonly value: number; readonly unit: string } {
      const quantity = quantityOfUnit(coreUnit);
      return quantity ? read(quantity, value) : { value, unit: coreUnit };
    },
  };
}

export type Units = ReturnType<typeof unitsOf>;
