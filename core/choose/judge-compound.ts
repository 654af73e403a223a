import type { Grade } from '../evidence/figure.js';
import {
  partDangers,
  reason,
  verdictOf,
  type ChoiceEvidence,
  type ChoiceReason,
  type CompoundJudgement,
  type PartFacts,
} from './verdict.js';
import {
  isMetal,
  isVitreous,
  WAVELENGTH_WORDS,
  type CompoundForm,
  type SubstrateFamily,
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
  return verdictOf(
    [
      ...compoundDangers(compound),
      ...partDangers(part),
      ...surfaceReasons(part),
      ...materialReasons(compound, part),
      ...beamReasons(compound, part, beam),
    ],
    evidence,
  );
}

function hard(code: string, text: string): ChoiceReason {
  return reason(code, true, text);
}

function soft(code: string, text: string, grade: Grade = 'usual'): ChoiceReason {
  return { ...reason(code, false, text), grade };
}

function compoundDangers(compound: CompoundFacts): ChoiceReason[] {
  return compound.containsPtfe
    ? [hard('ptfe', 'Holds PTFE, which gives poisonous fluorinated fume under the beam.')]
    : [];
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
    reasons.push({ ...reason('stated', false, `Its maker names ${family}.`, true), grade: 'stated' });
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
