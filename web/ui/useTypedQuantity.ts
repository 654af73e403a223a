import { useLocalStorage } from '@vueuse/core';
import { computed, ref } from 'vue';
import { CoreError, fromCoreUnit, QUANTITIES, toCoreUnit, usableUnits, type Quantity } from '@unto/core';
import { parseNumber } from './format';
import { useUnits } from './useUnits';

/** Units that somebody chose for single fields of this browser. */
const fieldUnits = useLocalStorage<Record<string, string>>('unto-field-units', {});

/** Above nought in every unit: what is not is for the form to refuse. */
const RATIOS: readonly Quantity[] = ['power', 'speed', 'interval'];

/** Ways people write a unit behind a number, and the unit they mean. */
const WRITTEN: Readonly<Record<string, string>> = { '"': 'in', um: 'µm', μm: 'µm', lpi: 'lines/in', thou: 'mil' };

/**
 * What is typed in a unit of the operator's choice while the form keeps the unit of the core. A unit typed behind the number
 * (“0.5 in”) counts at once and stays the field's own.
 * @param quantity none where the field is no quantity of several units
 * @param field names the field where its unit is remembered
 */
export function useTypedQuantity(quantity: () => Quantity | undefined, field: () => string) {
  const { reading } = useUnits();
  const scale = computed(() => reading.value.scale);
  const units = computed(() => {
    const of = quantity();
    return of ? usableUnits(of, scale.value) : [];
  });
  /** The number that stands in the field, to be shown in a unit that reaches it. */
  const standing = ref<number | null>(null);
  const unit = computed({
    get() {
      const of = quantity();
      if (!of) return '';
      const wanted = fieldUnits.value[field()] ?? reading.value.units[of];
      const reaches = standing.value === null || fromCoreUnit(of, standing.value, wanted, scale.value) !== null;
      return units.value.includes(wanted) && reaches ? wanted : QUANTITIES[of].core;
    },
    set: (chosen: string) => (fieldUnits.value = { ...fieldUnits.value, [field()]: chosen }),
  });

  /** A number of the core as it stands in the field. */
  function toText(value: number | null | undefined): string {
    if (value === null || value === undefined || Number.isNaN(value)) return '';
    const of = quantity();
    standing.value = value > 0 ? value : null;
    if (!of || unit.value === QUANTITIES[of].core) return String(Number(value.toPrecision(8)));
    const shown = fromCoreUnit(of, value, unit.value, scale.value);
    return shown === null ? '' : String(Number(shown.toPrecision(5)));
  }

  /** The number of the core that a text means, NaN when it is none, and the unit that was typed with it. */
  function fromText(text: string): {
    readonly value: number;
    readonly typedUnit: string | null;
    readonly fault: string;
  } {
    const of = quantity();
    const plain = parseNumber(text);
    if (!of) return { value: plain, typedUnit: null, fault: '' };
    const [number, typedUnit] = Number.isNaN(plain) ? partsOf(text, units.value) : [plain, null];
    const from = typedUnit ?? unit.value;
    if (Number.isNaN(number) || from === QUANTITIES[of].core || (number <= 0 && RATIOS.includes(of)))
      return { value: number, typedUnit, fault: '' };
    try {
      return { value: toCoreUnit(of, number, from, scale.value) ?? Number.NaN, typedUnit, fault: '' };
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      return { value: Number.NaN, typedUnit, fault: error.message };
    }
  }

  return { unit, units, toText, fromText };
}

function partsOf(text: string, units: readonly string[]): [number, string | null] {
  const found = /^(.*[\d.,])\s*(\D+)$/.exec(text.trim());
  if (!found) return [Number.NaN, null];
  const written = found[2]!.trim();
  const unit = WRITTEN[written] ?? written;
  return units.includes(unit) ? [parseNumber(found[1]!), unit] : [Number.NaN, null];
}
