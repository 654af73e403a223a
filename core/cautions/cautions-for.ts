import {
  isMetal,
  isVitreous,
  type CoatHandling,
  type CompoundForm,
  type SubstrateFamily,
  type SurfaceLayer,
  type WavelengthClass,
} from '../choose/vocabulary.js';

/** Stations of a ticket, in their order. */
export const STATIONS = ['choose', 'prepare', 'coat', 'place', 'prove', 'mark', 'clean', 'judge'] as const;
export type Station = (typeof STATIONS)[number];

/** What decides which cautions a ticket gets. */
export interface CautionContext {
  readonly family: SubstrateFamily;
  readonly layer: SurfaceLayer;
  readonly form: CompoundForm | null;
  readonly handling: CoatHandling | null;
  readonly beam: WavelengthClass;
  readonly headName: string;
  readonly eyewear: string;
  readonly solventBased: boolean;
  readonly foodUse: boolean;
}

/** One caution: what can hurt, what to do, whom to ask. `code` names it when it is acknowledged. */
export interface Caution {
  readonly code: string;
  readonly title: string;
  readonly text: string;
}

const ASK_SHEET = 'Follow the safety data sheet; ask your safety officer.';
const ASK_LASER = 'Follow the machine’s manual and local rules; ask a laser-safety person.';

type Rule = (context: CautionContext) => Caution | null;

/** The cautions that apply at a station, most urgent first. None of them states a protective rating as sufficient. */
export function cautionsFor(station: Station, context: CautionContext): Caution[] {
  return (RULES[station] ?? []).map((rule) => rule(context)).filter((caution) => caution !== null);
}

const eyewear: Rule = ({ headName, eyewear: named, beam }) => ({
  code: `eyewear-${beam}`,
  title: `${headName} fitted: its own eyewear.`,
  text: `It wants ${named}; a pair for another wavelength does not stop this beam. Enclosure shut. ${ASK_LASER}`,
});

const wetCoat: Rule = ({ form, solventBased }) =>
  form
    ? {
        code: 'wet-coat',
        title: solventBased ? 'Solvent vapour burns.' : 'Never fire a wet coat.',
        text: `Coat away from the laser, keep the tray away until all gloss is gone, and spray with ventilation. ${ASK_SHEET}`,
      }
    : null;

const powder: Rule = ({ handling }) =>
  handling === 'loose powder'
    ? {
        code: 'powder',
        title: 'Loose powder: gloves and respirator.',
        text: `The dry coat holds metal oxides: do not touch or breathe it, carry it level, wipe wet, air assist off. ${ASK_SHEET}`,
      }
    : null;

const unattended: Rule = () => ({
  code: 'unattended',
  title: 'Never leave a running laser.',
  text: `Extraction on with a suited filter, lid closed, extinguisher at hand. ${ASK_LASER}`,
});

const metalFume: Rule = ({ family, layer }) => {
  if (!isMetal(family)) return null;
  const fume =
    layer === 'chrome plate'
      ? 'Chrome plate gives off hexavalent chromium.'
      : family === 'stainless'
        ? 'Stainless gives off chromium and nickel.'
        : family === 'galvanised'
          ? 'Zinc gives off zinc oxide.'
          : null;
  return fume && { code: 'metal-fume', title: fume, text: `Extraction on, filter suited to metal fume. ${ASK_LASER}` };
};

const lead: Rule = ({ family }) =>
  family === 'vitreous enamel' || family === 'glazed ceramic'
    ? {
        code: 'lead',
        title: 'Glaze and enamel may hold lead or cadmium.',
        text: 'Extraction on; no food use without the maker’s word. Ask the maker of the ware.',
      }
    : null;

const hotGlass: Rule = ({ family }) =>
  isVitreous(family)
    ? {
        code: 'hot-glass',
        title: 'Hot glass cracks when rinsed.',
        text: `Let it cool to the hand first; wear eye and hand protection. A marked vessel may be weaker under heat or pressure. ${ASK_SHEET}`,
      }
    : null;

const rinseWater: Rule = ({ form }) =>
  form
    ? {
        code: 'rinse-water',
        title: 'Mind the rinse water.',
        text: `Keep residue off skin; collect the water as the data sheet and local drainage rules say. ${ASK_SHEET}`,
      }
    : null;

const food: Rule = ({ foodUse }) =>
  foodUse
    ? {
        code: 'food',
        title: 'Food and drink: outside only.',
        text: 'Mark away from the lip and from food contact, unless the compound’s maker certifies otherwise. Ask its maker.',
      }
    : null;

const sharpEdges: Rule = ({ family }) =>
  isMetal(family)
    ? {
        code: 'sharp',
        title: 'Sheet edges cut.',
        text: 'Gloves while cutting and degreasing; degrease with ventilation. Follow the solvent’s data sheet; ask your safety officer.',
      }
    : null;

const focusFires: Rule = () => ({
  code: 'focus-fires',
  title: 'Firing to find focus is a firing.',
  text: `Enclosure shut and eyewear on, also at 1 %. Covers come off only with the machine off. ${ASK_LASER}`,
});

const RULES: Partial<Record<Station, readonly Rule[]>> = {
  choose: [lead, food],
  prepare: [sharpEdges],
  coat: [wetCoat, powder],
  place: [eyewear, focusFires],
  prove: [eyewear, unattended, metalFume],
  mark: [eyewear, unattended, powder, metalFume],
  clean: [hotGlass, rinseWater],
  judge: [food],
};
