import { speedExponent } from '../heat/speed-exponent.js';
import { CoreError } from '../support/core-error.js';

/** What a tiny cell looked like after rinse and scrub. */
export const STEP_TEST_OUTCOMES = ['lost', 'faint', 'holds', 'over'] as const;
export type StepTestOutcome = (typeof STEP_TEST_OUTCOMES)[number];

/** A tiny cell fired on a hidden place of the piece itself. */
export interface TestStep {
  readonly powerPercent: number;
  readonly powerW: number;
  readonly speedMmPerS: number;
  readonly intervalMm: number;
  readonly outcome: StepTestOutcome;
}

/** The piece and head a step test goes on. */
export interface StepTestEquipment {
  readonly radiusMm: number;
  readonly conductivity: number;
  readonly diffusivity: number;
  readonly topSpeedMmPerS: number;
  /** Slowest speed worth trying, mm/s. */
  readonly slowestMmPerS: number;
}

/** What to fire next, or that the step test is over. */
export type StepTestAdvice =
  | {
      readonly kind: 'fire';
      readonly speedMmPerS: number;
      /** ln of how much more effect than the last cell; 0 for the first. */
      readonly step: number;
      readonly why: string;
    }
  | { readonly kind: 'stop'; readonly holds: TestStep | null; readonly why: string };

/** Steps in ln of effect: far below bonding a third more at a time, once something shows an eighth. Common practice, no source. */
const FAR = 0.3;
const NEAR = 0.12;
/** Share of heat index against dose in what bonds a coat, where nobody knows better. */
const HEAT_SHARE = 0.5;

/**
 * Where a step test goes next at one power and interval, from the weakest upward by slowing down: far apart while nothing is left of a
 * cell, near once a faint mark stays, and stop at the first that holds. Too much stops it as well: another hidden place is needed then.
 * @throws value.out-of-range when the head cannot go any slower
 */
export function nextTestStep(steps: readonly TestStep[], equipment: StepTestEquipment): StepTestAdvice {
  const last = steps.at(-1);
  if (!last)
    return {
      kind: 'fire',
      speedMmPerS: Number((equipment.topSpeedMmPerS * 0.8).toPrecision(2)),
      step: 0,
      why: 'The weakest first: a cell of 2 × 2 mm where nobody will look.',
    };
  const holds = steps.find(({ outcome }) => outcome === 'holds') ?? null;
  if (holds)
    return {
      kind: 'stop',
      holds,
      why: 'This one holds and nothing weaker did. Stop here: mark the piece at this setting.',
    };
  if (last.outcome === 'over')
    return {
      kind: 'stop',
      holds: null,
      why: 'Too much before anything held: the step was too wide for this coat, or the coat was thin here. Begin again on another hidden place, one step below.',
    };
  const step = steps.some(({ outcome }) => outcome === 'faint') ? NEAR : FAR;
  const speed = slower(last, step, equipment);
  if (speed < equipment.slowestMmPerS)
    throw new CoreError(
      'value.out-of-range',
      `The head cannot go slower than ${equipment.slowestMmPerS} mm/s with sense: take more power, or a finer interval, and go on.`,
      { path: 'speed' },
    );
  return {
    kind: 'fire',
    speedMmPerS: speed,
    step,
    why:
      step === FAR
        ? `Nothing stayed: about ${percent(FAR)} more effect.`
        : `Something stays: closer now, about ${percent(NEAR)} more effect.`,
  };
}

/** Speed at which a cell has so much more effect, heat index and dose by halves. */
function slower({ powerW, speedMmPerS }: TestStep, step: number, equipment: StepTestEquipment): number {
  const { radiusMm, conductivity, diffusivity } = equipment;
  const heat = speedExponent({ powerW, speedMmPerS, radiusMm, conductivity, diffusivity });
  const perLn = HEAT_SHARE * heat + (1 - HEAT_SHARE);
  return Number((speedMmPerS * Math.exp(-step / perLn)).toPrecision(3));
}

function percent(ln: number): string {
  return `${Math.round(100 * (Math.exp(ln) - 1))} %`;
}
