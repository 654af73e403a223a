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
  /** What it is thinned with and cleaned with, as its record says. */
  readonly thinner: string;
  readonly cleaning: string;
  /** A round part, turned while it is marked. */
  readonly round: boolean;
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

const reflection: Rule = ({ family, layer }) =>
  isMetal(family) && !COVERED.includes(layer)
    ? {
        code: 'reflection',
        title: 'Bare metal throws the beam.',
        text: `Where it goes nobody can foresee: keep the enclosure shut and its interlocks working. ${ASK_LASER}`,
      }
    : null;

const COVERED: readonly SurfaceLayer[] = ['painted', 'powder-coated', 'lacquered'];

/** What the beam sets free of a part, by what it meets first. */
function fumeOf({ family, layer }: CautionContext): string | null {
  if (layer === 'chrome plate') return 'Chrome plate gives off hexavalent chromium.';
  if (COVERED.includes(layer)) return 'Paint, lacquer and powder coating give off poisonous fume.';
  if (family === 'stainless') return 'Stainless gives off chromium and nickel.';
  if (family === 'galvanised' || family === 'zinc') return 'Zinc gives off zinc oxide.';
  if (family === 'acrylic') return 'Acrylic gives off fume that irritates and burns.';
  return family === 'bone' ? 'Bone gives off dust and fume.' : null;
}

const fume: Rule = (context) => {
  const title = fumeOf(context);
  if (!title) return null;
  return { code: 'metal-fume', title, text: `Extraction on, filter suited to this fume. ${ASK_LASER}` };
};

const sulphur: Rule = ({ form }) =>
  form === 'dry-film lubricant'
    ? {
        code: 'sulphur',
        title: 'Molybdenum lubricant gives off sulphur dioxide.',
        text: `Extraction on with a filter suited to it; the room aired. ${ASK_SHEET}`,
      }
    : null;

const LEADED: Partial<Record<SubstrateFamily, string>> = {
  'vitreous enamel': 'Glaze and enamel may hold lead or cadmium.',
  'glazed ceramic': 'Glaze and enamel may hold lead or cadmium.',
  brass: 'Free-cutting brass holds lead.',
  glass: 'Crystal glass may hold lead.',
};

const lead: Rule = ({ family }) => {
  const title = LEADED[family];
  return title
    ? {
        code: 'lead',
        title,
        text: 'Extraction on; no food use without the maker’s word. Ask the maker of the ware.',
      }
    : null;
};

const lungs: Rule = ({ form, handling }) =>
  form && handling !== 'loose powder'
    ? {
        code: 'lungs',
        title: 'A film-forming spray belongs in no lungs either.',
        text: `Ventilate while spraying, keep it off skin; its residue and rinse water want the same care. ${ASK_SHEET}`,
      }
    : null;

const alcohol: Rule = ({ thinner, cleaning }) =>
  /alcohol|spirit|ethanol/i.test(`${thinner} ${cleaning}`)
    ? {
        code: 'alcohol',
        title: 'Denatured alcohol is poisonous, and burns.',
        text: `Away from flame, spark and the running laser; gloves, air, never a mouth near it. ${ASK_SHEET}`,
      }
    : null;

const rotary: Rule = ({ round }) =>
  round
    ? {
        code: 'rotary',
        title: 'The rotary pinches.',
        text: `Fingers, sleeves and hair off rollers and chuck while its drive is on. ${ASK_LASER}`,
      }
    : null;

const drilling: Rule = ({ family }) =>
  family === 'stainless'
    ? {
        code: 'drilling',
        title: 'Stainless hardens under the drill.',
        text: 'Slow, pressed and oiled, the sheet clamped: a blunt drill grabs and spins it. Follow the drill’s manual; ask whoever drills here.',
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
  prepare: [sharpEdges, drilling],
  coat: [wetCoat, powder, lungs, alcohol],
  place: [eyewear, focusFires, reflection, rotary],
  prove: [eyewear, unattended, reflection, fume, lead, sulphur, hotGlass],
  mark: [eyewear, unattended, reflection, powder, fume, lead, sulphur, rotary],
  clean: [hotGlass, rinseWater, alcohol],
  judge: [food],
};
