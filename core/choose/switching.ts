import { CRITERIA, type Criterion, type Weights } from './criteria.js';
import { weightShares, type RankedOption } from './rank.js';

/** How far one weight must move before another option comes first. */
export interface SwitchingPoint {
  readonly criterion: Criterion;
  /** The option that then comes first. */
  readonly to: string;
  /** New weight ÷ present weight; 0 when it must not count at all. Infinity when it counts nothing now (see `weight`). */
  readonly factor: number;
  /** The weight itself at the switch, on the scale the weights came in. */
  readonly weight: number;
}

/**
 * For every criterion the nearest weight, up and down, at which the winner changes, other weights kept. Scores are linear in a
 * weight before they are shared out, so the switch is where two lines cross; the nearest crossing with the winner is the first.
 * Sorted by how little the weight has to move. Empty when no single weight changes the winner.
 */
export function switchingPoints(ranked: readonly RankedOption[], weights: Weights): SwitchingPoint[] {
  const winner = ranked[0];
  if (!winner) return [];
  const total = CRITERIA.reduce((sum, criterion) => sum + weights[criterion], 0);
  const shares = weightShares(weights);
  return CRITERIA.flatMap((criterion, c) => {
    const now = weights[criterion];
    const crossings = ranked.slice(1).flatMap((rival) => {
      // Lead without this criterion, in the weights' own scale, and what one unit of its weight adds to the lead.
      const lead = CRITERIA.reduce(
        (sum, _, k) =>
          k === c ? sum : sum + shares[k]! * total * (winner.terms[k]!.valueScore - rival.terms[k]!.valueScore),
        0,
      );
      const perUnit = winner.terms[c]!.valueScore - rival.terms[c]!.valueScore;
      if (Math.abs(perUnit) < 1e-12) return [];
      const at = -lead / perUnit;
      return at >= 0 && Number.isFinite(at) ? [{ at, to: rival.option.id }] : [];
    });
    const up = nearest(
      crossings.filter(({ at }) => at > now),
      now,
    );
    const down = nearest(
      crossings.filter(({ at }) => at < now),
      now,
    );
    return [up, down].flatMap((found) =>
      found ? [{ criterion, to: found.to, factor: now > 0 ? found.at / now : Infinity, weight: found.at }] : [],
    );
  }).sort((a, b) => effort(a) - effort(b));
}

function nearest<T extends { at: number }>(found: readonly T[], now: number): T | undefined {
  return [...found].sort((a, b) => Math.abs(a.at - now) - Math.abs(b.at - now))[0];
}

/** How far a factor is from leaving the weight alone; dropping it wholly counts like a factor of ten. */
function effort({ factor }: SwitchingPoint): number {
  return Math.abs(Math.log(Math.min(Math.max(factor, 0.1), 1000)));
}
