import { useForm as useValidatedForm, type GenericObject } from 'vee-validate';
import { computed, provide, ref, watch, type InjectionKey, type Ref } from 'vue';
import { reach, ValidationError, type Schema } from 'yup';
import type { Problem } from '@unto/contract';
import { ApiProblem } from '../api/client';
import { useDraft } from './useDraft';

/** What a field of a form is tied to by its name. */
export interface FormContext {
  readonly values: Ref<object>;
  readonly faults: Ref<Record<string, string>>;
  readonly touch: (path: string) => void;
  readonly isRequired: (path: string) => boolean;
  /** A refusal that belongs to no field. */
  readonly general: Ref<string>;
  /** What was entered waits in the browser until the server is back. */
  readonly waiting: Ref<boolean>;
  /** What stands here was typed before a reload. */
  readonly restored: Ref<boolean>;
  readonly reset: () => void;
}
export const FORM: InjectionKey<FormContext> = Symbol('form');

export interface FormOptions {
  /** Name under which what is typed outlives a reload; none for forms that stand only for a moment. */
  readonly draft?: string | (() => string);
  readonly focusFault?: () => void;
}

/**
 * A form's values with the fault of each field: checked as typed against the schema that the server checks by, a fault shown once its
 * field was left or the form sent. Fields below it name their value (`<NumberField name="pieces" />`) and need no other wiring.
 */
export function useForm<T extends object>(schema: Schema, initial: () => T, options: FormOptions = {}) {
  type Typed = Typing<T>;
  const { focusFault = focusFirstFault } = options;
  const validated = useValidatedForm<GenericObject>({
    initialValues: initial() as GenericObject,
    keepValuesOnUnmount: true,
  });
  const values = computed({
    get: () => writable(validated.values, validated.setFieldValue) as Typed,
    set: (entry) => validated.resetForm({ values: entry as GenericObject }, { force: true }),
  });
  const fromServer = ref<Record<string, string>>({});
  const touched = ref(new Set<string>());
  const tried = ref(false);
  const general = ref('');
  const busy = ref(false);
  const waiting = ref(false);
  const draft = options.draft ? useDraft(options.draft, values) : null;

  /** Everything wrong by its path; what was wrong and is no more is taken off. */
  function check(): boolean {
    const found = faultsOf(schema, validated.values);
    const before = Object.keys(validated.errors.value).map((path) => [path, undefined]);
    validated.setErrors({ ...Object.fromEntries(before), ...found });
    return Object.keys(found).length === 0;
  }
  watch(
    () => validated.values,
    () => {
      fromServer.value = {};
      general.value = '';
      check();
    },
    { deep: true, immediate: true },
  );

  const faults = computed(() => {
    const visible: Record<string, string> = {};
    for (const [path, message] of Object.entries(validated.errors.value as Record<string, string | undefined>))
      if (message && (tried.value || touched.value.has(path))) visible[path] = message;
    return { ...visible, ...fromServer.value };
  });

  /** A field was left. Its fault shows a moment later, so that the layout does not move under a press that left the field. */
  function touch(path: string): void {
    setTimeout(() => (touched.value = new Set([...touched.value, path])), 250);
  }

  /** Puts a refusal where it belongs: at its fields, or over the form. */
  function refuse(problem: Problem): void {
    const atFields = (problem.faults ?? []).filter(({ path }) => path);
    fromServer.value = Object.fromEntries(atFields.map(({ path, message }) => [path!, message]));
    general.value = atFields.length ? '' : problem.detail;
    focusFault();
  }

  /**
   * Checks, then runs `work`, which answers null when what was entered waits to be sent; a refusal of the server lands at its fields.
   * Other errors go on. Returns whether it was taken or waits.
   */
  async function submit(work: (values: T) => Promise<unknown>): Promise<boolean> {
    if (busy.value) return false;
    tried.value = true;
    waiting.value = false;
    busy.value = true;
    try {
      if (!check()) {
        focusFault();
        return false;
      }
      const answer = await work(JSON.parse(JSON.stringify(values.value)) as T);
      waiting.value = answer === null;
      draft?.forget();
      return true;
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      refuse(error.problem);
      return false;
    } finally {
      busy.value = false;
    }
  }

  function reset(): void {
    values.value = initial() as Typed;
    tried.value = false;
    touched.value = new Set();
    fromServer.value = {};
    general.value = '';
    draft?.forget();
  }

  provide(FORM, {
    values,
    faults,
    touch,
    isRequired: (path) => isRequired(schema, path),
    general,
    waiting,
    restored: draft?.restored ?? ref(false),
    reset,
  });
  return { values, faults, general, busy, waiting, touch, submit, refuse, reset };
}

export type Form<T extends object> = ReturnType<typeof useForm<T>>;

/** Values while they are typed: what is frozen once it is kept can be changed here. */
export type Typing<T> = T extends object ? { -readonly [Key in keyof T]: Typing<T[Key]> } : T;

/** What lies behind a value handed out to be written to. */
const behind = new WeakMap<object, object>();

/** The form's values to read and to write: what is set goes the form's own way, whoever sets it. */
function writable(values: object, set: (path: string, value: unknown) => void, at = ''): object {
  const handed = new Proxy(values, {
    get(target, key) {
      const value: unknown = Reflect.get(target, key);
      const isPart =
        typeof key === 'string' && Object.hasOwn(target, key) && typeof value === 'object' && value !== null;
      return isPart ? writable(value, set, `${at}${key}.`) : value;
    },
    set(_target, key, value) {
      const plain: unknown = typeof value === 'object' && value !== null ? (behind.get(value) ?? value) : value;
      set(at + String(key), plain);
      return true;
    },
  });
  behind.set(handed, values);
  return handed;
}

/** What the schema finds wrong, checked as strictly as on the server: nothing is cast. */
function faultsOf(schema: Schema, values: object): Record<string, string> {
  try {
    schema.validateSync(values, { strict: true, abortEarly: false });
    return {};
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const all = error.inner.length ? error.inner : [error];
    // The first word on a field is the one to be said.
    return Object.fromEntries(all.map(({ path, message }) => [path ?? '', message] as const).reverse());
  }
}

/** Whether a field must be filled in. */
function isRequired(schema: Schema, path: string): boolean {
  try {
    const field = reach(schema, path) as Schema;
    const { optional, nullable, tests, type } = field.describe() as ReturnType<Schema['describe']> & { type: string };
    if (optional || nullable) return false;
    return type === 'string' ? tests.some(({ name }) => name === 'required') : type === 'number';
  } catch {
    return false;
  }
}

function focusFirstFault(): void {
  setTimeout(() => document.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus(), 30);
}
