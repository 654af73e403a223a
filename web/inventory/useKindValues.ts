import type { InventoryKind } from '@unto/contract';
import { isKinded, usualBody, usualFields } from '@unto/domain';
import { computed, watch, type Ref } from 'vue';

type Values = Record<string, unknown>;
const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
const isBlank = (value: unknown) =>
  value === undefined ||
  value === null ||
  value === '' ||
  Number.isNaN(value) ||
  (Array.isArray(value) && !value.length);

/**
 * What a kind fills in of an item's form: values nobody has said, named as usual until somebody types another one or says that it is so;
 * a field that is emptied goes back to what is usual.
 */
export function useKindValues(kind: InventoryKind, values: Ref<Values>) {
  const ofKind = computed(() => (values.value['ofKind'] ?? '') as string);
  const usual = computed(() => (values.value['usual'] ?? []) as readonly string[]);
  const body = computed(() => usualBody(kind, ofKind.value) as Values | null);

  const setUsual = (fields: readonly string[]) => {
    if (!same(fields, usual.value)) values.value['usual'] = [...fields];
  };

  /** Takes another kind: what somebody said stays, all else becomes usual for it. */
  function take(key: string): void {
    if (!isKinded(kind)) return;
    const filled = usualBody(kind, key) as Values | null;
    const open = (field: string) =>
      usual.value.includes(field) || isBlank(values.value[field]) || values.value[field] === false;
    const fields = Object.keys(filled ?? {}).filter(open);
    const known = usualFields(kind, key);
    values.value = {
      ...values.value,
      ...Object.fromEntries(fields.map((field) => [field, structuredClone(filled![field])])),
      ofKind: key,
      usual: fields.filter((field) => known.includes(field)),
    };
  }

  // What no longer stands at the kind's value was said by somebody.
  watch(values, () => setUsual(usual.value.filter((field) => same(values.value[field], body.value?.[field]))), {
    deep: true,
  });

  /** A field was left empty: it is open again, and counted with what is usual. */
  function left(field: string): void {
    if (!isBlank(values.value[field]) || !isKinded(kind) || !usualFields(kind, ofKind.value).includes(field)) return;
    values.value[field] = structuredClone(body.value![field]);
    setUsual([...usual.value, field]);
  }

  /** Somebody says that the usual value is the true one. */
  const confirm = (field: string) => setUsual(usual.value.filter((other) => other !== field));

  return { ofKind, usual, take, left, confirm };
}

export type KindValues = ReturnType<typeof useKindValues>;
