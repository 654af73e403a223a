import { judgeCompound } from './judge-compound.js';
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
  COMPOUND_FORMS,
  isMetal,
  isVitreous,
  WAVELENGTH_WORDS,
  type CompoundForm,
  type WavelengthClass,
} from './vocabulary.js';

/** Ways to mark without a coat. */
export const UNCOATED_METHODS = [
  'infrared on bare metal',
  'blue diode on stainless',
  'burn off the layer',
  'infrared on black acrylic',
  'ultraviolet, no coat',
] as const;
export type UncoatedMethod = (typeof UNCOATED_METHODS)[number];

/** A method of the trade: a kind of compound, or the beam alone. */
export type Method = CompoundForm | UncoatedMethod;
export const METHODS: readonly Method[] = [...COMPOUND_FORMS, ...UNCOATED_METHODS];

/** What a method asks of the head. */
export interface HeadFacts {
  readonly beam: WavelengthClass;
  readonly ratedW: number;
}

/** Whether a method marks without anything laid on the part. */
export function isUncoated(method: Method): method is UncoatedMethod {
  return (UNCOATED_METHODS as readonly string[]).includes(method);
}

/** A line on each method's character. Common practice, no source. */
export const METHOD_WORDS: Record<Method, string> = {
  'metal film-forming': 'dries to a film that can be touched, stacked and kept',
  'metal powder-drying': 'dries to loose powder: not touched, air assist off',
  'metal thin-laying': 'often two thin coats for even cover',
  'dry-film lubricant': 'cheap, slow, grainy, hard to clean; stainless only',
  'home-made coat': 'cheap, slow, long cleaning',
  'glass and ceramic': 'laid on thick, rinses with plain water',
  universal: 'one can for metal, glass and ceramic; mixed paste is not kept',
  'coloured metal': 'copper tones come out rusty rather than red',
  'coloured glass and ceramic': 'one colour at a time, coat, mark, wash, register',
  'infrared on bare metal': 'no compound; strongly set by line interval and focus',
  'blue diode on stainless': 'no compound; very slow',
  'burn off the layer': 'the mark is the material below: light on dark',
  'infrared on black acrylic': 'whitens it, and the white stands proud',
  'ultraviolet, no coat': 'its own wavelength class: own eyewear, own windows',
};

/** Compounds as a class, before any label is read. */
const TYPICAL = { statedBeams: ['co2', 'near-infrared'] as const, containsPtfe: false };
const TYPICAL_FAMILIES = {
  metal: ['stainless', 'steel', 'brass', 'copper', 'aluminium'],
  glass: ['glass', 'glazed ceramic', 'vitreous enamel'],
} as const;

function typicalFamilies(form: CompoundForm): readonly PartFacts['family'][] {
  if (form === 'dry-film lubricant' || form === 'home-made coat') return ['stainless'];
  if (form === 'universal') return [...TYPICAL_FAMILIES.metal, ...TYPICAL_FAMILIES.glass];
  return form.includes('glass') ? TYPICAL_FAMILIES.glass : TYPICAL_FAMILIES.metal;
}

/**
 * Says whether a method is offered for a part on a head, and why or why not. A scrubbed coupon of the method on this pairing
 * lifts every reason but danger. Rules: common practice, no source.
 */
export function judgeMethod(
  method: Method,
  part: PartFacts,
  head: HeadFacts,
  evidence: ChoiceEvidence = { provedCoupons: 0 },
): CompoundJudgement {
  if (!isUncoated(method)) {
    const facts = { ...TYPICAL, form: method, statedFamilies: typicalFamilies(method) };
    const judged = judgeCompound(facts, part, head.beam, evidence);
    return { ...judged, reasons: judged.reasons.map((entry) => ofTheKind(entry, part, head)) };
  }
  return verdictOf([...partDangers(part), ...UNCOATED_RULES[method](part, head)], evidence);
}

/** What a label says of one compound, said of its kind: usual practice, nobody's word. */
function ofTheKind(entry: ChoiceReason, part: PartFacts, head: HeadFacts): ChoiceReason {
  const words: Record<string, string> = {
    stated: `Usual on ${part.family}.`,
    'family-off-label': `Not usual on ${part.family}: prove it first.`,
    'beam-off-label': `Labels seldom name ${WAVELENGTH_WORDS[head.beam]}: prove it first.`,
  };
  const text = words[entry.code];
  return text ? { ...entry, text, grade: 'usual' } : entry;
}

const PLATED = ['chrome plate', 'nickel plate', 'cadmium plate'];
const BURNT_OFF = ['anodised', 'painted', 'powder-coated', 'lacquered'];
const no = (code: string, text: string) => [reason(code, true, text)];
const maybe = (code: string, text: string) => reason(code, false, text);

const UNCOATED_RULES: Record<UncoatedMethod, (part: PartFacts, head: HeadFacts) => ChoiceReason[]> = {
  'infrared on bare metal': (part, head) => {
    if (head.beam !== 'near-infrared') return no('wrong-beam', 'Needs an infrared or fibre head; this one is not.');
    if (!isMetal(part.family)) return no('not-metal', `Marks metal; ${part.family} is none.`);
    if (part.layer !== 'bare' && !PLATED.includes(part.layer))
      return no('covered', `The part is ${part.layer}, not bare.`);
    if (head.ratedW < 2) return no('not-reachable', 'Infrared marks bare metal from about 2 W; this head has less.');
    return [maybe('interval-focus', 'Strongly set by line interval and focus: prove both.'), ...zincFume(part)];
  },
  'blue diode on stainless': (part, head) => {
    if (head.beam !== 'blue') return no('wrong-beam', 'Needs a blue diode; this head is none.');
    if (part.family !== 'stainless' || part.layer !== 'bare')
      return no('stainless-only', 'Works on bare stainless only.');
    if (head.ratedW < 10)
      return no('not-reachable', 'A blue diode colours bare stainless from about 10 W; this one has less.');
    return [maybe('very-slow', 'Very slow: usually 100 mm/min at 10 W, 200 mm/min at 20 W.')];
  },
  'burn off the layer': (part, head) => {
    if (!BURNT_OFF.includes(part.layer)) return no('nothing-to-burn', 'There is no layer on it to burn off.');
    if (head.beam === 'ultraviolet')
      return no('wrong-beam', 'Done with diode, CO2 or fibre; nothing carries over to ultraviolet.');
    return part.layer === 'anodised'
      ? [reason('forgiving', false, 'Anodised aluminium is forgiving: fills over a wide range of speeds.', true)]
      : [maybe('touchy', 'Paint and lacquer are touchy: flames, and residue to wipe with isopropyl alcohol.')];
  },
  'infrared on black acrylic': (part, head) => {
    if (part.family !== 'acrylic') return no('acrylic-only', 'Works on black acrylic only.');
    if (head.beam !== 'near-infrared') return no('wrong-beam', 'Needs an infrared or fibre head; this one is not.');
    return [reason('whitens', false, 'Black acrylic turns white and stands proud.', true)];
  },
  'ultraviolet, no coat': (part, head) => {
    if (head.beam !== 'ultraviolet') return no('wrong-beam', 'Needs an ultraviolet head; this one is none.');
    if (!isVitreous(part.family) && part.family !== 'bone' && part.family !== 'acrylic')
      return no('not-listed', `Nobody names it for ${part.family}, and it was never proved here.`);
    return [maybe('own-class', 'Its own wavelength class: nothing proved under another head counts here.')];
  },
};

/**
 * The way that a beam marks a part with nothing laid on it; null where it has none. What was proved without a coat is proof of this
 * way alone.
 * @example uncoatedWay({ family: 'aluminium', layer: 'bare' }, 'near-infrared') // 'infrared on bare metal'
 */
export function uncoatedWay(part: PartFacts, beam: WavelengthClass): UncoatedMethod | null {
  if (beam === 'ultraviolet') return 'ultraviolet, no coat';
  if (BURNT_OFF.includes(part.layer)) return 'burn off the layer';
  if (beam === 'near-infrared' && part.family === 'acrylic') return 'infrared on black acrylic';
  if (!isMetal(part.family)) return null;
  if (beam === 'near-infrared') return 'infrared on bare metal';
  return beam === 'blue' ? 'blue diode on stainless' : null;
}

function zincFume(part: PartFacts): ChoiceReason[] {
  if (part.family === 'galvanised' || part.family === 'zinc')
    return [maybe('zinc', 'Zinc gives off zinc oxide: extraction with a suited filter.')];
  return part.layer === 'chrome plate'
    ? [maybe('chrome', 'Chrome plate gives off hexavalent chromium: extraction with a suited filter.')]
    : [];
}
