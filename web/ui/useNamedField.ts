import { computed, inject, type Ref, type WritableComputedRef } from 'vue';
import { FORM } from './useForm';

/** What a field of whatever kind takes: its place in a form by name, or a value and a fault handed in. */
export interface FieldProps {
  readonly label: string;
  /** Path of the value in the form above, `power.value`. */
  readonly name?: string | undefined;
  readonly fault?: string | undefined;
  /** One line of what it is and where to find it. */
  readonly hint?: string | undefined;
  readonly testId?: string | undefined;
}

/**
 * A field's value, fault and whether it must be filled: of the form above under its name, or as they were handed in.
 * @param under path of the fault below the field's own name, where the value is an object
 */
export function useNamedField<T>(props: FieldProps, model: Ref<T | undefined>, under = '') {
  const form = inject(FORM, null);
  const tied = computed(() => (props.name !== undefined && form ? { form, path: props.name } : null));
  const value: WritableComputedRef<T> = computed({
    get: () => (tied.value ? (valueAt(tied.value.form.values.value, tied.value.path) as T) : (model.value as T)),
    set: (entry) => {
      if (tied.value) setAt(tied.value.form.values.value, tied.value.path, entry);
      else model.value = entry;
    },
  });
  const faultPath = computed(() => (tied.value ? tied.value.path + under : ''));
  const fault = computed(() => {
    const own = tied.value?.form.faults.value[faultPath.value];
    // Words that are handed in beside a name stand for the form's own.
    return tied.value ? own && (props.fault ?? own) : props.fault;
  });
  const required = computed(() => tied.value?.form.isRequired(faultPath.value) ?? false);
  const left = () => tied.value?.form.touch(faultPath.value);
  return { value, fault, required, left };
}

function valueAt(values: object, path: string): unknown {
  return path.split('.').reduce<unknown>((inner, key) => (inner as Record<string, unknown> | null)?.[key], values);
}

function setAt(values: object, path: string, entry: unknown): void {
  const keys = path.split('.');
  const last = keys.pop()!;
  const holder = keys.length ? valueAt(values, keys.join('.')) : values;
  (holder as Record<string, unknown>)[last] = entry;
}
