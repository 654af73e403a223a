import { useQueryCache } from '@pinia/colada';
import type { CallOf } from '../api/client';
import { TOUCHES, type Key, type WriteName } from '../api/keys';

/** What is on screen is asked again; what is not, when it is next looked at. */
export function useTouch() {
  const cache = useQueryCache();
  async function touch(keys: readonly Key[]): Promise<void> {
    await Promise.allSettled(keys.map((key) => cache.invalidateQueries({ key: [...key] })));
  }
  const touchedBy = <N extends WriteName>(name: N, call: CallOf<N>) => touch(TOUCHES[name](call));
  return { touch, touchedBy };
}
