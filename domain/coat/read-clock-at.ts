import { readClock, type ClockReading } from '@unto/core';

/** How a clock stands at a moment of server time (ms since 1970). */
export function readClockAt(
  clock: { readonly startedAt: string | Date; readonly minimumS: number },
  nowMs: number,
): ClockReading {
  return readClock({ startedAtMs: new Date(clock.startedAt).getTime(), minimumS: clock.minimumS }, nowMs);
}
