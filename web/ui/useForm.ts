import { computed, ref, watch, type Ref } from 'vue';
import { ValidationError, type Schema } from 'yup';
import type { Problem } from '@unto/contract';
import { ApiProblem } from '../api/client';

/** A form's values with the fault of each field; validates as typed, shows a fault once its field was left or the form sent. */
export function useForm<T extends object>(schema: Schema, initial: () => T, focusFault: () => void = focusFirstFault) {
  const values = ref(initial()) as Ref<T>;
  const faults = ref<Record<string, string>>({});
  const fromServer = ref<Record<string, string>>({});
  const touched = ref(new Set<string>());
  const tried = ref(false);
  const general = ref('');
  const busy = ref(false);

  function check(): boolean {
    try {
      schema.validateSync(values.value, { strict: true, abortEarly: false });
      faults.value = {};
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      const found: Record<string, string> = {};
      for (const { path, message } of error.inner.length ? error.inner : [error])
        if (path && !found[path]) found[path] = message;
      faults.value = found;
    }
    return Object.keys(faults.value).length === 0;
  }

  watch(
    values,
    () => {
      fromServer.value = {};
      general.value = '';
      check();
    },
    { deep: true, immediate: true },
  );

  const shown = computed(() => {
    const visible: Record<string, string> = {};
    for (const [path, message] of Object.entries(faults.value))
      if (tried.value || touched.value.has(path)) visible[path] = message;
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

  /** Checks, then runs `work`; a refusal of the server lands at its fields. Other errors go on. Returns whether it worked. */
  async function submit(work: (values: T) => Promise<void>): Promise<boolean> {
    if (busy.value) return false;
    tried.value = true;
    if (!check()) {
      focusFault();
      return false;
    }
    busy.value = true;
    try {
      await work(JSON.parse(JSON.stringify(values.value)) as T);
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
    values.value = initial();
    tried.value = false;
    touched.value = new Set();
    fromServer.value = {};
    general.value = '';
  }

  return { values, faults: shown, general, busy, touch, submit, refuse, reset };
}

export type Form<T extends object> = ReturnType<typeof useForm<T>>;

function focusFirstFault(): void {
  setTimeout(() => {
    const field = document.querySelector<HTMLElement>('[aria-invalid="true"]');
    field?.focus();
  }, 30);
}
