import { requirePositive } from '../support/require.js';

/** A clock that was started at a moment and must run at least some seconds. */
export interface TimerSetting {
  /** Server time, ms since 1970. */
  readonly startedAtMs: number;
  readonly minimumS: number;
}

/** How a clock stands. */
export interface TimerReading {
  readonly elapsedS: number;
  /** Seconds to go, from the whole minimum down to 0. */
  readonly leftS: number;
  /** 0 to 1 */
  readonly share: number;
  readonly due: boolean;
}

/**
 * Reads a clock at a moment of server time (ms since 1970). A moment before its start reads as the start, so that a clock set back
 * never adds to what is left. Time zones do not enter: moments are counted, not read off a dial.
 * @throws value.not-positive @example readTimer({ startedAtMs: 0, minimumS: 240 }, 80_000).leftS // 160
 */
export function readTimer(timer: TimerSetting, nowMs: number): TimerReading {
  const minimumS = requirePositive('time', timer.minimumS);
  const elapsedS = Math.max(0, (nowMs - timer.startedAtMs) / 1000);
  const leftS = Math.max(0, minimumS - elapsedS);
  return { elapsedS, leftS, share: Math.min(1, elapsedS / minimumS), due: leftS === 0 };
}

/** A moment of server time tied to a monotonic counter of the device. */
export interface TimeTie {
  readonly serverMs: number;
  readonly monotonicMs: number;
}

/**
 * Server time now, by a counter that neither a changed device clock nor a changed time zone touches; never before what was shown
 * last. Answers that took longer would set it back by their delay: it waits until time has caught up.
 */
export function steadyTime(tie: TimeTie, monotonicMs: number, lastMs: number): number {
  return Math.max(lastMs, tie.serverMs + (monotonicMs - tie.monotonicMs));
}
