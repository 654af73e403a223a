import { decisive, type FigureInput, type Grade } from '../evidence/figure.js';
import { requirePositive, requireWithin } from '../support/require.js';
import { nextValue } from '../statistics/index.js';

/**
 * Share of the solids leaving the container that stays on the part: dry mass on the part ÷ (laid down × solids by mass).
 * @param dryOnPartG g @param massAppliedG g @param massSolids solids by mass of what leaves the container, 0 to 1 (propellant counted)
 * @throws value.not-positive, value.out-of-range above 1 (more on the part than left the container)
 */
export function transferEfficiency(dryOnPartG: number, massAppliedG: number, massSolids: number): number {
  requirePositive('laid down', massAppliedG);
  requireWithin('solids by mass', requirePositive('solids by mass', massSolids), 0, 1);
  return requireWithin('share reaching the part', dryOnPartG / (massAppliedG * massSolids), 0, 1);
}

/** What is known about transfer efficiency, with the range that holds nine times in ten. */
export interface TransferKnowledge {
  readonly value: number;
  readonly low: number;
  readonly high: number;
  readonly grade: Grade;
  readonly weighings: number;
}

/** What is known of the share as an input of a figure: a usual one with how far it may be off. */
export function transferInput({ grade, value, low, high, weighings }: TransferKnowledge): FigureInput {
  const unit = weighings ? `from ${weighings} weighings` : 'usual';
  const input = decisive('share reaching the part', grade, { value: Number(value.toPrecision(3)), unit });
  return grade === 'usual' ? { ...input, factor: Math.sqrt(high / low) } : input;
}

/**
 * Transfer efficiency learnt from repeated weighings: their mean, and the range in which the next should fall nine times
 * in ten (prediction interval of the normal mean). Fewer than two weighings leave the usual value.
 * @param usual of the way it is laid on, see USUAL_TRANSFERS
 */
export function learnTransfer(samples: readonly number[], usual: TransferKnowledge): TransferKnowledge {
  if (samples.length < 2) return usual;
  const { mean, reach } = nextValue(samples);
  return {
    value: mean,
    low: Math.max(0.01, mean - reach),
    high: Math.min(1, mean + reach),
    grade: 'measured',
    weighings: samples.length,
  };
}
