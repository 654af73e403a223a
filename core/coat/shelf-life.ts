import { CoreError } from '../support/core-error.js';
import { requirePositive } from '../support/require.js';

const DAY_MS = 86_400_000;

/** When a coat stored now should be fired at the latest (ms since 1970); null when its compound names no shelf life. @throws value.not-positive */
export function keepUntil(storedAtMs: number, shelfLifeDays: number | null): number | null {
  return shelfLifeDays === null ? null : storedAtMs + requirePositive('shelf life', shelfLifeDays) * DAY_MS;
}

/** How a stored coat stands. */
export const STORED_STATES = ['good', 'soon', 'past', 'no date'] as const;
export type StoredState = (typeof STORED_STATES)[number];

/** `soon` in the last fifth of its shelf life. @throws value.out-of-range when its date lies before it was stored */
export function storedState(coat: { storedAtMs: number; keepUntilMs: number | null }, nowMs: number): StoredState {
  const { storedAtMs, keepUntilMs } = coat;
  if (keepUntilMs === null) return 'no date';
  if (keepUntilMs < storedAtMs)
    throw new CoreError('value.out-of-range', 'The coat would be past its date before it was stored.');
  if (nowMs > keepUntilMs) return 'past';
  return keepUntilMs - nowMs < (keepUntilMs - storedAtMs) / 5 ? 'soon' : 'good';
}
