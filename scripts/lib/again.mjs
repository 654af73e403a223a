// @ts-check

const MOST = 5;
const WITHIN_MS = 10 * 60_000;

/** Whether something that ended by itself is started again: at most five times in ten minutes, so that what cannot run is not run for ever. */
export function startsAgain() {
  /** @type {number[]} */
  let times = [];
  return (now = Date.now()) => {
    times = [...times.filter((time) => now - time < WITHIN_MS), now];
    return times.length <= MOST;
  };
}
