import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readClock, steadyTime } from './index.js';

describe('clocks', () => {
  it('count down from their minimum and stay at nought', () => {
    const clock = { startedAtMs: 1000, minimumS: 240 };
    expect(readClock(clock, 81_000)).toEqual({ elapsedS: 80, leftS: 160, share: 1 / 3, due: false });
    expect(readClock(clock, 241_000).due).toBe(true);
    expect(readClock(clock, 999_000)).toMatchObject({ leftS: 0, share: 1 });
    expect(() => readClock({ startedAtMs: 0, minimumS: 0 }, 1)).toThrow(/above 0/);
  });

  it('never add to what is left when the clock is set back before their start', () => {
    expect(readClock({ startedAtMs: 5_000_000, minimumS: 60 }, 0)).toMatchObject({ leftS: 60, share: 0 });
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
        const clock = { startedAtMs: server, minimumS: 600 };
        let left = 600;
        for (const { passedMs, answerLateMs } of steps) {
          server += passedMs;
          monotonic += passedMs;
          if (answerLateMs !== null) tie = { serverMs: server - answerLateMs, monotonicMs: monotonic };
          const now = steadyTime(tie, monotonic, last);
          expect(now).toBeGreaterThanOrEqual(last);
          expect(now).toBeLessThanOrEqual(server);
          const reading = readClock(clock, now);
          expect(reading.leftS).toBeLessThanOrEqual(left);
          [last, left] = [now, reading.leftS];
        }
      }),
    );
  });
});
