import type { Timer, TimerKind } from '@unto/contract';

/** Timers of a kind that run, oldest first: only these count, whatever ended before. */
export function runningTimers<T extends Pick<Timer, 'kind' | 'endedAt'>>(timers: readonly T[], kind: TimerKind): T[] {
  return timers.filter((timer) => timer.kind === kind && timer.endedAt === null);
}
