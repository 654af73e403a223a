import { watch, type Ref } from 'vue';

/** Keeps a form's values in the browser while they are typed, and brings them back after a reload. NaN survives as null. */
export function useDraft<T extends object>(name: string, values: Ref<T>) {
  const key = `unto-draft-${name}`;
  const kept = localStorage.getItem(key);
  if (kept)
    Object.assign(
      values.value,
      restore(JSON.parse(kept) as Record<string, unknown>, values.value as Record<string, unknown>),
    );
  let live = true;
  watch(values, (now) => live && localStorage.setItem(key, JSON.stringify(now)), { deep: true });
  return {
    restored: kept !== null,
    forget: () => {
      live = false;
      localStorage.removeItem(key);
    },
  };
}

function restore(kept: Record<string, unknown>, fresh: Record<string, unknown>): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(kept)
      .filter(([key]) => key in fresh)
      .map(([key, value]) => [key, value === null && typeof fresh[key] === 'number' ? fresh[key] : value]),
  );
}
