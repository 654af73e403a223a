import type { Grade } from '../evidence/figure.js';
import {
  isMetal,
  isVitreous,
  WAVELENGTH_WORDS,
  type CompoundForm,
  type SubstrateFamily,
  type SurfaceLayer,
  type WavelengthClass,
} from './vocabulary.js';

/** What the judgement needs to know of a compound. */
export interface CompoundFacts {
  readonly form: CompoundForm;
  /** Beams and families its maker names. */
  readonly statedBeams: readonly WavelengthClass[];
  readonly statedFamilies: readonly SubstrateFamily[];
  readonly containsPtfe: boolean;
}

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
}

export interface CompoundJudgement {
  readonly verdict: 'offered' | 'warned' | 'blocked';
  readonly reasons: readonly ChoiceReason[];
}

/** Scrubbed coupons of this compound on this substrate and wavelength class that hold somewhere. */
export interface ChoiceEvidence {
  readonly provedCoupons: number;
}

/**
 * Says whether a compound is offered for a part and beam, and why or why not. Danger blocks whatever was proved; the other hard
 * reasons give way to a scrubbed coupon that held on this very pairing. Rules: common practice, no source.
 */
export function judgeCompound(
  compound: CompoundFacts,
  part: PartFacts,
  beam: WavelengthClass,
  evidence: ChoiceEvidence,
): CompoundJudgement {
  const proved = evidence.provedCoupons > 0;
  const found = [
    ...dangers(compound, part),
    ...surfaceReasons(part),
    ...materialReasons(compound, part),
    ...beamReasons(compound, part, beam),
  ];
  const reasons = found.map((reason) => (proved && !DANGERS.has(reason.code) ? { ...reason, hard: false } : reason));
  if (proved) {
    reasons.push({
      code: 'proved-here',
      hard: false,
      text: `Held on ${evidence.provedCoupons} scrubbed coupon${evidence.provedCoupons > 1 ? 's' : ''} of this pairing here.`,
      grade: 'proved',
    });
  }
  const against = reasons.filter((reason) => reason.code !== 'proved-here' && !FAVOURABLE.has(reason.code));
  const blocked = against.some((reason) => reason.hard);
  return { verdict: blocked ? 'blocked' : against.length > 0 && !proved ? 'warned' : 'offered', reasons };
}

const DANGERS = new Set(['ptfe', 'pvc', 'beryllium', 'cadmium']);
const FAVOURABLE = new Set(['stated']);

function hard(code: string, text: string, grade: Grade = 'usual'): ChoiceReason {
  return { code, hard: true, text, grade };
}

function soft(code: string, text: string, grade: Grade = 'usual'): ChoiceReason {
  return { code, hard: false, text, grade };
}

function dangers(compound: CompoundFacts, part: PartFacts): ChoiceReason[] {
  const reasons: ChoiceReason[] = [];
  if (compound.containsPtfe)
    reasons.push(hard('ptfe', 'Holds PTFE, which gives poisonous fluorinated fume under the beam.'));
  if (part.family === 'PVC')
    reasons.push(
      hard('pvc', 'PVC and other chlorinated plastics are never lasered: the fume is corrosive and poisonous.'),
    );
  if (part.family === 'beryllium copper')
    reasons.push(hard('beryllium', 'Beryllium copper is not lasered: its fume is poisonous.'));
  if (part.layer === 'cadmium plate')
    reasons.push(hard('cadmium', 'Cadmium plate is not lasered: its fume is poisonous.'));
  return reasons;
}

function surfaceReasons(part: PartFacts): ChoiceReason[] {
  if (!isMetal(part.family)) return [];
  if (part.layer === 'chrome plate')
    return [
      soft(
        'chrome',
        'Chrome plate counts as metal; its fume holds hexavalent chromium: extraction with a suited filter.',
      ),
    ];
  if (['bare', 'nickel plate', 'cadmium plate'].includes(part.layer)) return [];
  return [
    hard(
      'covered',
      `The part is ${part.layer === 'film' ? 'covered with a film' : part.layer}: a compound bonds only to a bare metallic surface. Strip the layer, or burn it off without a compound.`,
    ),
  ];
}

const METAL_FORMS: readonly CompoundForm[] = [
  'metal film-forming',
  'metal powder-drying',
  'metal thin-laying',
  'coloured metal',
];
const GLASS_FORMS: readonly CompoundForm[] = ['glass and ceramic', 'coloured glass and ceramic'];

function materialReasons(compound: CompoundFacts, part: PartFacts): ChoiceReason[] {
  const { form } = compound;
  const { family } = part;
  if (form === 'dry-film lubricant' && family !== 'stainless') {
    return [
      hard(
        'lubricant',
        `A dry-film lubricant usually leaves no mark on ${family}; it is kept for stainless until a coupon proves otherwise.`,
      ),
    ];
  }
  if (METAL_FORMS.includes(form) && !isMetal(family) && family !== 'bone') {
    return [hard('metal-only', `A metal compound, never proved on ${family} here.`)];
  }
  if (GLASS_FORMS.includes(form) && !isVitreous(family)) {
    return [hard('glass-only', `A glass and ceramic compound does not bond to ${family}.`)];
  }
  if (form === 'universal' && !isMetal(family) && !isVitreous(family)) {
    return [hard('not-listed', `Nobody names it for ${family}, and it was never proved here.`)];
  }
  const reasons: ChoiceReason[] = [];
  if (!compound.statedFamilies.includes(family)) {
    reasons.push(
      soft(
        'family-off-label',
        `Its maker does not name ${family}: off its label, so prove it on a coupon first.`,
        'stated',
      ),
    );
  } else {
    reasons.push(soft('stated', `Its maker names ${family}.`, 'stated'));
  }
  if (form === 'metal film-forming' && family === 'aluminium') {
    reasons.push(soft('slow-aluminium', 'Film-forming compounds mark aluminium only slowly.'));
  }
  return reasons;
}

function beamReasons(compound: CompoundFacts, part: PartFacts, beam: WavelengthClass): ChoiceReason[] {
  const reasons: ChoiceReason[] = [];
  if (!compound.statedBeams.includes(beam)) {
    reasons.push(
      soft(
        'beam-off-label',
        `Its maker does not name ${WAVELENGTH_WORDS[beam]}: off its label, so prove it on a coupon first.`,
        'stated',
      ),
    );
  }
  if (beam === 'blue' && ['brass', 'copper', 'aluminium'].includes(part.family)) {
    reasons.push(soft('diode-doubtful', `Blue diodes are doubtful on ${part.family}.`));
  }
  if (beam === 'blue' && part.family === 'glass') {
    reasons.push(hard('not-absorbed', 'Clear glass lets blue light through, and this pairing was never proved here.'));
  }
  return reasons;
}
