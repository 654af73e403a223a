import { readTimer, type TimerReading } from '@unto/core';

/** How a clock stands at a moment of server time (ms since 1970). */
export function readTimerAt(
  timer: { readonly startedAt: string | Date; readonly minimumS: number },
  nowMs: number,
): TimerReading {
  return readTimer({ startedAtMs: new Date(timer.startedAt).getTime(), minimumS: timer.minimumS }, nowMs);
}
