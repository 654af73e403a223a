import type { Cause } from './causes.js';
import type { Fault } from './symptoms.js';

/**
 * How often each cause leads a fault, of a hundred bad pieces: how a shop begins before its own cases count. Common practice, no source.
 */
export const USUAL_SHARES: Record<Cause, number> = {
  'too little energy': 11,
  'too much energy': 6,
  'too fast': 4,
  'interval too wide': 3,
  'out of focus': 7,
  'warped or tilted': 8,
  'moved or misplaced': 3,
  'weak beam': 4,
  'coat too thick': 7,
  'coat too thin': 6,
  'uneven spray': 5,
  'lumps in the coat': 3,
  'fired before it was dry': 2,
  'touched or greasy': 4,
  'air blew the powder': 5,
  'extraction pulled the powder': 3,
  'not bare metal': 4,
  'unsuitable alloy': 3,
  'ground too near the mark': 1,
  'compound off': 3,
  'washed while hot': 1,
  'rinsed too little': 2,
  'something else': 5,
};

/** How often a cause shows as a fault where it is at work alone, and why. */
export interface UsualLink {
  readonly chance: number;
  readonly why: string;
}

const link = (chance: number, why: string): UsualLink => ({ chance, why });

/** What is not on the list may look like anything. */
export const SOMETHING_ELSE = 0.1;

/**
 * The table: by cause, the faults it shows as and how often, each with its reason. What is not named does not come of it. Common practice,
 * no source.
 */
export const USUAL_LINKS: Record<Exclude<Cause, 'something else'>, Partial<Record<Fault, UsualLink>>> = {
  'too little energy': {
    'washed off whole': link(0.5, 'nothing bonded'),
    'lost under the pad': link(0.5, 'it bonded only on top'),
    'pale all over': link(0.35, 'it bonded thinly'),
    'faint strokes': link(0.35, 'single lines get less than fills'),
    grainy: link(0.15, 'only the thin places bonded'),
    tinted: link(0.12, 'it did not turn all the way'),
  },
  'too much energy': {
    'halo or brown': link(0.65, 'the ground beside it scorched'),
    'chipped or crazed': link(0.6, 'glass cracks of the heat'),
    tinted: link(0.3, 'the mark burnt'),
    'residue left': link(0.12, 'the coat beside it baked on'),
    'lost under the pad': link(0.08, 'the mark burnt off again'),
  },
  'too fast': {
    grainy: link(0.6, 'each dot gets its heat for too short'),
    'faint strokes': link(0.35, 'single lines get less than fills'),
    'pale all over': link(0.25, 'it bonded thinly'),
    'lost under the pad': link(0.2, 'it bonded only on top'),
  },
  'interval too wide': {
    grainy: link(0.6, 'bare metal shows between the lines'),
    'pale all over': link(0.2, 'bare metal between the lines lightens it'),
  },
  'out of focus': {
    'washed off whole': link(0.45, 'the heat is spread'),
    'pale all over': link(0.35, 'the heat is spread'),
    'faint strokes': link(0.4, 'a wide spot blurs thin lines'),
    'lost under the pad': link(0.3, 'it bonded only on top'),
    'halo or brown': link(0.12, 'a wide spot heats beside the line'),
    'faint in one corner': link(0.06, 'at the edge of the depth of focus'),
  },
  'warped or tilted': {
    'faint in one corner': link(0.6, 'that corner lies beyond the depth of focus'),
    'pale along one edge': link(0.35, 'that edge lies beyond the depth of focus'),
    'density drifts': link(0.2, 'focus is lost bit by bit along a tilt'),
    'lost under the pad': link(0.08, 'part of it bonded only on top'),
    patchy: link(0.06, 'a bulge in the middle'),
  },
  'moved or misplaced': {
    'out of place': link(0.9, 'the mark is where it should not be'),
    'faint in one corner': link(0.06, 'the mark ran off the coat'),
    'pale along one edge': link(0.08, 'the mark ran off the coat'),
  },
  'weak beam': {
    'pale all over': link(0.45, 'less power reaches the part than the panel says'),
    'washed off whole': link(0.3, 'less power reaches the part than the panel says'),
    'lost under the pad': link(0.35, 'it bonded only on top'),
    'faint strokes': link(0.25, 'single lines get less than fills'),
    'density drifts': link(0.2, 'a tube loses power as it warms'),
  },
  'coat too thick': {
    'washed off whole': link(0.5, 'the heat never reaches the part'),
    'lost under the pad': link(0.35, 'only the top of the coat turned'),
    'residue left': link(0.3, 'more of it to wash off'),
    'pale all over': link(0.15, 'what bonded is thin'),
    patchy: link(0.1, 'it held where it was thinner'),
  },
  'coat too thin': {
    'pale all over': link(0.4, 'there is little to bond'),
    'halo or brown': link(0.5, 'the beam heats the ground itself'),
    patchy: link(0.3, 'bare spots'),
    'faint strokes': link(0.15, 'there is little to bond'),
    'pale along one edge': link(0.1, 'spray ends short of the edge'),
    grainy: link(0.1, 'specks of ground show'),
    tinted: link(0.15, 'the ground shows through'),
  },
  'uneven spray': {
    patchy: link(0.6, 'thick and thin beside each other'),
    'pale along one edge': link(0.2, 'spray ends short of the edge'),
    'density drifts': link(0.25, 'one end got more than the other'),
    'faint in one corner': link(0.15, 'spray missed the corner'),
    'faint strokes': link(0.06, 'thin where the stroke is'),
  },
  'lumps in the coat': {
    patchy: link(0.45, 'lumps wash off and leave holes'),
    grainy: link(0.35, 'lumps wash off and leave holes'),
  },
  'fired before it was dry': {
    patchy: link(0.25, 'it boils where it is wet'),
    'washed off whole': link(0.25, 'the beam spends itself on drying'),
    'halo or brown': link(0.1, 'solvent burns'),
    'residue left': link(0.15, 'it smears as it is washed'),
    tinted: link(0.08, 'solvent burns'),
  },
  'touched or greasy': {
    patchy: link(0.5, 'grease keeps it off, fingers rub it off'),
    'faint in one corner': link(0.12, 'it was held there'),
    'lost under the pad': link(0.12, 'grease between coat and metal'),
    'pale along one edge': link(0.05, 'it was held there'),
    'washed off whole': link(0.05, 'grease all over'),
  },
  'air blew the powder': {
    'density drifts': link(0.45, 'more is blown away the longer it runs'),
    'pale along one edge': link(0.4, 'the side that faces the nozzle is bared'),
    patchy: link(0.35, 'blown bare in places'),
    'faint in one corner': link(0.12, 'blown bare in places'),
    'pale all over': link(0.12, 'little is left to bond'),
    grainy: link(0.12, 'grains blown out'),
    'washed off whole': link(0.06, 'nothing was left to bond'),
  },
  'extraction pulled the powder': {
    'density drifts': link(0.45, 'more is pulled off the longer it runs'),
    'pale along one edge': link(0.22, 'the side towards the hood is bared'),
    patchy: link(0.15, 'pulled bare in places'),
    'faint in one corner': link(0.1, 'the corner towards the hood is bared'),
  },
  'not bare metal': {
    'washed off whole': link(0.5, 'it bonds to lacquer or film that washes off'),
    patchy: link(0.3, 'the layer is worn in places'),
    'lost under the pad': link(0.3, 'it sits on a layer that scrubs off'),
    'pale all over': link(0.1, 'the layer keeps the heat'),
    'halo or brown': link(0.15, 'the layer itself burns'),
  },
  'unsuitable alloy': {
    'washed off whole': link(0.4, 'it does not take on this alloy'),
    'pale all over': link(0.4, 'poor alloys mark worse'),
    'lost under the pad': link(0.4, 'it holds loosely on this alloy'),
    tinted: link(0.2, 'this alloy turns another colour'),
    patchy: link(0.05, 'the alloy is uneven'),
  },
  'ground too near the mark': {
    'pale all over': link(0.75, 'a pale ground hides a pale mark'),
    tinted: link(0.1, 'the ground lends it its colour'),
  },
  'compound off': {
    'pale all over': link(0.4, 'settled or aged, it has less to bond'),
    'washed off whole': link(0.2, 'settled or aged, it has less to bond'),
    'lost under the pad': link(0.3, 'it bonds loosely'),
    grainy: link(0.2, 'aged compound sprays coarse'),
    patchy: link(0.15, 'aged compound sprays coarse'),
    tinted: link(0.3, 'another lot, another tone'),
  },
  'washed while hot': { 'chipped or crazed': link(0.8, 'hot glass cracks as it is rinsed') },
  'rinsed too little': { 'residue left': link(0.8, 'what was not fired stays on') },
};

/** How often a cause alone shows as a fault, as usual: 0 where it does not. */
export function usualLink(cause: Cause, fault: Fault): number {
  return cause === 'something else' ? SOMETHING_ELSE : (USUAL_LINKS[cause][fault]?.chance ?? 0);
}
