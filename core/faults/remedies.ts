import type { Station } from '../cautions/cautions-for.js';
import type { Cause } from './causes.js';

/** What can be changed so that a fault does not come back: a recipe's air, a rule of the compound, a can or recipe set aside, a question. */
export const REMEDY_KINDS = [
  'recipe air off',
  'compound air off',
  'suspend recipe',
  'retire container',
  'question',
] as const;
export type RemedyKind = (typeof REMEDY_KINDS)[number];

/** A remedy of a cause; a question says at which station it is asked and of what. */
export interface Remedy {
  readonly kind: RemedyKind;
  readonly question?: {
    readonly station: Station;
    readonly text: string;
    /** Asked of tickets with the same compound, the same substrate, or marks at least as long. */
    readonly of: 'compound' | 'substrate' | 'long parts';
  };
}

const ask = (station: Station, text: string, of: 'compound' | 'substrate' | 'long parts' = 'compound'): Remedy => ({
  kind: 'question',
  question: { station, text, of },
});

/** By cause, what usually keeps it from coming back. Common practice, no source. */
export const REMEDIES: Record<Cause, readonly Remedy[]> = {
  'too little energy': [{ kind: 'suspend recipe' }],
  'too much energy': [{ kind: 'suspend recipe' }],
  'too fast': [{ kind: 'suspend recipe' }],
  'interval too wide': [{ kind: 'suspend recipe' }],
  'out of focus': [ask('place', 'Focus found anew, on a bare twin of this very thickness', 'substrate')],
  'warped or tilted': [ask('place', 'Heights read over the whole mark, all within the depth of focus', 'long parts')],
  'moved or misplaced': [ask('place', 'Held so that it cannot move, and framed after it was laid in', 'substrate')],
  'weak beam': [ask('place', 'Lens looked at, and cleaned where it was not clear', 'substrate')],
  'coat too thick': [ask('coat', 'Weighed or combed: within its band, not above')],
  'coat too thin': [ask('coat', 'Weighed or combed: within its band, not below')],
  'uneven spray': [ask('coat', 'Strokes begin and end beside the part; looked at against the light')],
  'lumps in the coat': [ask('coat', 'Shaken its whole time, and a test puff without spits')],
  'fired before it was dry': [ask('coat', 'All gloss gone, looked at along the surface')],
  'touched or greasy': [ask('prepare', 'Degreased and from then on touched with clean gloves only', 'substrate')],
  'air blew the powder': [
    { kind: 'recipe air off' },
    { kind: 'compound air off' },
    ask('mark', 'Air assist shut at its valve'),
  ],
  'extraction pulled the powder': [ask('mark', 'Hood as far from the powder as its manual lets; extraction stays on')],
  'not bare metal': [ask('prepare', 'Acetone and a hidden scratch on a piece of this box: bare', 'substrate')],
  'unsuitable alloy': [ask('prepare', 'The lot of these blanks has marked well before', 'substrate')],
  'ground too near the mark': [ask('choose', 'Mark and ground will differ: a sample was looked at', 'substrate')],
  'compound off': [{ kind: 'retire container' }, ask('coat', 'Within its date, and shaken its whole time')],
  'washed while hot': [ask('clean', 'Cold to the hand before any water', 'substrate')],
  'rinsed too little': [ask('clean', 'Rinsed until the water runs clear, and wiped with a white cloth')],
  'something else': [],
};
