import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readTimer, steadyTime } from './index.js';

describe('timers', () => {
  it('count down from their minimum and stay at nought', () => {
    const timer = { startedAtMs: 1000, minimumS: 240 };
    expect(readTimer(timer, 81_000)).toEqual({ elapsedS: 80, leftS: 160, share: 1 / 3, due: false });
    expect(readTimer(timer, 241_000).due).toBe(true);
    expect(readTimer(timer, 999_000)).toMatchObject({ leftS: 0, share: 1 });
    expect(() => readTimer({ startedAtMs: 0, minimumS: 0 }, 1)).toThrow(/above 0/);
  });

  it('never add to what is left when the clock is set back before their start', () => {
    expect(readTimer({ startedAtMs: 5_000_000, minimumS: 60 }, 0)).toMatchObject({ leftS: 60, share: 0 });
  });

  it('never run backwards, whatever the device clock or its zone does, as the counter goes on and answers come late', () => {
    const step = fc.record({
      passedMs: fc.integer({ min: 0, max: 60_000 }),
      /** Delay of an answer that ties the time anew; none when null. */
      answerLateMs: fc.option(fc.integer({ min: 0, max: 5000 }), { nil: null }),
      deviceClockJumpMs: fc.integer({ min: -1e9, max: 1e9 }),
    });
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 40 }), (steps) => {
        let [server, monotonic] = [1_700_000_000_000, 0];
        let tie = { serverMs: server, monotonicMs: monotonic };
        let last = -Infinity;
        const timer = { startedAtMs: server, minimumS: 600 };
        let left = 600;
        for (const { passedMs, answerLateMs } of steps) {
          server += passedMs;
          monotonic += passedMs;
          if (answerLateMs !== null) tie = { serverMs: server - answerLateMs, monotonicMs: monotonic };
          const now = steadyTime(tie, monotonic, last);
          expect(now).toBeGreaterThanOrEqual(last);
          expect(now).toBeLessThanOrEqual(server);
          const reading = readTimer(timer, now);
          expect(reading.leftS).toBeLessThanOrEqual(left);
          [last, left] = [now, reading.leftS];
        }
      }),
    );
  });
});
