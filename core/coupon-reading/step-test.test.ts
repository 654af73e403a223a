import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CoreError } from '../support/core-error.js';
import { nextTestStep, type StepTestOutcome, type TestStep } from './step-test.js';

const BENCH = { radiusMm: 0.0825, conductivity: 0.121, diffusivity: 37.6, topSpeedMmPerS: 600, slowestMmPerS: 3 };
const step = (speedMmPerS: number, outcome: StepTestOutcome): TestStep => ({
  powerPercent: 90,
  powerW: 45,
  speedMmPerS,
  intervalMm: 0.06,
  outcome,
});

describe('a step test', () => {
  it('begins with the weakest, goes in wide steps while nothing stays, and in narrow ones once something does', () => {
    expect(nextTestStep([], BENCH)).toMatchObject({ kind: 'fire', speedMmPerS: 480, step: 0 });
    const wide = nextTestStep([step(480, 'lost')], BENCH);
    const narrow = nextTestStep([step(480, 'faint')], BENCH);
    if (wide.kind !== 'fire' || narrow.kind !== 'fire') throw new Error('It stopped.');
    expect(wide.speedMmPerS).toBeLessThan(narrow.speedMmPerS);
    expect(narrow.speedMmPerS).toBeLessThan(480);
    // On brass heat hardly hangs on speed, so that effect goes with about half a power of it: e^(−0.12/0.55) = 0.80.
    expect(narrow.speedMmPerS / 480).toBeCloseTo(0.8, 1);
  });

  it('stops at the first that holds, and at too much', () => {
    const held = nextTestStep([step(480, 'lost'), step(300, 'faint'), step(240, 'holds')], BENCH);
    expect(held).toMatchObject({ kind: 'stop', holds: { speedMmPerS: 240 } });
    expect(nextTestStep([step(480, 'lost'), step(200, 'over')], BENCH)).toMatchObject({ kind: 'stop', holds: null });
  });

  it('finds a hidden bond from below within a narrow step, whatever it is', () => {
    fc.assert(
      fc.property(fc.double({ min: 20, max: 450, noNaN: true }), (bondsAt) => {
        const steps: TestStep[] = [];
        for (;;) {
          const advice = nextTestStep(steps, BENCH);
          if (advice.kind === 'stop') break;
          const { speedMmPerS } = advice;
          const short = Math.log(speedMmPerS / bondsAt);
          steps.push(step(speedMmPerS, short <= 0 ? 'holds' : short < 0.7 ? 'faint' : 'lost'));
          expect(steps.length).toBeLessThan(30);
        }
        const last = steps.at(-1)!;
        expect(last.outcome).toBe('holds');
        expect(last.speedMmPerS).toBeGreaterThan(bondsAt * 0.75);
      }),
      { numRuns: 60 },
    );
  });

  it('says so when the head cannot go slower', () => {
    expect(() => nextTestStep([step(3.2, 'lost')], BENCH)).toThrow(CoreError);
    expect(() => nextTestStep([step(3.2, 'lost')], BENCH)).toThrow(/take more power, or a finer interval/);
  });
});
