import type { Grade } from '../evidence/figure.js';
import type { SubstrateFamily, SurfaceLayer } from './vocabulary.js';

export interface PartFacts {
  readonly family: SubstrateFamily;
  readonly layer: SurfaceLayer;
}

/** One reason for or against. Hard reasons block; soft ones warn and ask for a coupon. */
export interface ChoiceReason {
  readonly code: string;
  readonly hard: boolean;
  readonly text: string;
  readonly grade: Grade;
  /** Speaks for the option, not against it. */
  readonly favourable: boolean;
}

export interface CompoundJudgement {
  readonly verdict: 'offered' | 'warned' | 'blocked';
  readonly reasons: readonly ChoiceReason[];
}

/** Scrubbed coupons of this compound on this substrate and wavelength class that hold somewhere. */
export interface ChoiceEvidence {
  readonly provedCoupons: number;
  /** All that held was judged by eye. */
  readonly byEye?: boolean | undefined;
}

/** What no coupon lifts: dangers, and a beam that this head does not have. */
const NEVER_LIFTED = new Set(['ptfe', 'pvc', 'beryllium', 'cadmium', 'wrong-beam']);

/** Verdict on what was found: hard reasons block, soft ones warn; a coupon that held here lifts all but danger and a beam it never had. */
export function verdictOf(found: readonly ChoiceReason[], evidence: ChoiceEvidence): CompoundJudgement {
  const proved = evidence.provedCoupons > 0;
  const reasons = found.map((entry) => (proved && !NEVER_LIFTED.has(entry.code) ? { ...entry, hard: false } : entry));
  if (proved) {
    const plural = evidence.provedCoupons > 1 ? 's' : '';
    reasons.push({
      ...reason(
        'proved-here',
        false,
        `Held on ${evidence.provedCoupons} scrubbed coupon${plural} of this pairing here.`,
        true,
      ),
      grade: evidence.byEye ? 'proved by eye' : 'proved',
    });
  }
  const blocked = reasons.some((entry) => entry.hard);
  const doubtful = !proved && reasons.some((entry) => !entry.favourable);
  return { verdict: blocked ? 'blocked' : doubtful ? 'warned' : 'offered', reasons };
}

/** A reason; usual practice unless its grade is changed. */
export function reason(code: string, hard: boolean, text: string, favourable = false): ChoiceReason {
  return { code, hard, text, favourable, grade: 'usual' };
}

/** Parts that are never lasered, coated or not. */
export function partDangers(part: PartFacts): ChoiceReason[] {
  const dangers: ChoiceReason[] = [];
  if (part.family === 'PVC')
    dangers.push(
      reason('pvc', true, 'PVC and other chlorinated plastics are never lasered: the fume is corrosive and poisonous.'),
    );
  if (part.family === 'beryllium copper')
    dangers.push(reason('beryllium', true, 'Beryllium copper is not lasered: its fume is poisonous.'));
  if (part.layer === 'cadmium plate')
    dangers.push(reason('cadmium', true, 'Cadmium plate is not lasered: its fume is poisonous.'));
  return dangers;
}
