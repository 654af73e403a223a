import { ref, watch, type Ref } from 'vue';

type Plain = Record<string, unknown>;
/** One thing that somebody typed: where it stands in the form, and what it is. */
type Entry = readonly [path: readonly string[], value: unknown];

/**
 * Keeps in the browser what was typed into a form, and brings it back after a reload. Only what differs from what the form offered
 * by itself is kept, so that an offer that moves meanwhile (pieces left, a newer recipe) is not held back by an old one.
 * @param name under which it is kept; a function where that moves with what is open
 */
export function useDraft<T extends object>(name: string | (() => string), values: Ref<T>) {
  const key = () => `unto-draft-${typeof name === 'string' ? name : name()}`;
  let offered = copyOf(values.value);
  const kept = entriesIn(localStorage.getItem(key()));
  const restored = ref(kept.map((entry) => put(values.value as Plain, entry)).includes(true));

  watch(
    values,
    (now) => {
      const typed = differences(offered, now as Plain, []);
      if (typed.length) localStorage.setItem(key(), JSON.stringify(typed, encoded));
      else localStorage.removeItem(key());
    },
    { deep: true },
  );

  /** Throws the draft away; what stands in the form now counts as offered. */
  function forget(): void {
    localStorage.removeItem(key());
    offered = copyOf(values.value);
    restored.value = false;
  }
  return { restored, forget };
}

/** NaN is a number that was typed wrongly: it comes back as one. */
const encoded = (_key: string, value: unknown) => (Number.isNaN(value) ? { notANumber: true } : value);
const decoded = (_key: string, value: unknown) => ((value as Plain | null)?.['notANumber'] ? Number.NaN : value);
const copyOf = (value: unknown) => JSON.parse(JSON.stringify(value, encoded), decoded) as Plain;

function entriesIn(text: string | null): Entry[] {
  try {
    const found: unknown = JSON.parse(text ?? '[]', decoded);
    return Array.isArray(found) ? (found as Entry[]).filter((entry) => Array.isArray(entry?.[0])) : [];
  } catch {
    return [];
  }
}

const isObject = (value: unknown): value is Plain =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const sameKeys = (a: Plain, b: Plain) =>
  Object.keys(a).length === Object.keys(b).length && Object.keys(a).every((key) => key in b);

/** The smallest parts of `now` that differ from what was offered. */
function differences(offered: unknown, now: unknown, path: readonly string[]): Entry[] {
  if (isObject(offered) && isObject(now) && sameKeys(offered, now))
    return Object.keys(now).flatMap((key) => differences(offered[key], now[key], [...path, key]));
  return JSON.stringify(offered, encoded) === JSON.stringify(now, encoded) ? [] : [[path, now]];
}

/** Puts a kept entry back where the form still has a place of that name. */
function put(values: Plain, [path, value]: Entry): boolean {
  const holder = path.slice(0, -1).reduce<unknown>((inner, key) => (isObject(inner) ? inner[key] : undefined), values);
  const last = path.at(-1);
  if (!isObject(holder) || last === undefined || !(last in holder)) return false;
  holder[last] = value;
  return true;
}
