/** What may be behind a fault. The last stands for whatever is not on the list: it is never left out. */
export const CAUSES = [
  'too little energy',
  'too much energy',
  'too fast',
  'interval too wide',
  'out of focus',
  'warped or tilted',
  'moved or misplaced',
  'weak beam',
  'coat too thick',
  'coat too thin',
  'uneven spray',
  'lumps in the coat',
  'fired before it was dry',
  'touched or greasy',
  'air blew the powder',
  'extraction pulled the powder',
  'not bare metal',
  'unsuitable alloy',
  'ground too near the mark',
  'compound off',
  'washed while hot',
  'rinsed too little',
  'something else',
] as const;
export type Cause = (typeof CAUSES)[number];

/** Each cause as it is said of a piece. */
export const CAUSE_WORDS: Record<Cause, string> = {
  'too little energy': 'Too little energy',
  'too much energy': 'Too much energy',
  'too fast': 'Run too fast for this coat',
  'interval too wide': 'Lines too far apart',
  'out of focus': 'Focus set wrong',
  'warped or tilted': 'Part tilted or bowed out of focus',
  'moved or misplaced': 'Piece moved or laid wrong',
  'weak beam': 'Lens dirty or beam weak',
  'coat too thick': 'Coat too thick',
  'coat too thin': 'Coat too thin',
  'uneven spray': 'Coat sprayed unevenly',
  'lumps in the coat': 'Lumps: not shaken, or a clogged nozzle',
  'fired before it was dry': 'Fired before it was dry',
  'touched or greasy': 'Touched, or not degreased there',
  'air blew the powder': 'Air blew the powder off',
  'extraction pulled the powder': 'Extraction pulled the powder off',
  'not bare metal': 'Not bare metal',
  'unsuitable alloy': 'Blanks of an alloy that takes it poorly',
  'ground too near the mark': 'Ground as dark, or as pale, as the mark',
  'compound off': 'Compound old, or its lot poor',
  'washed while hot': 'Washed while hot',
  'rinsed too little': 'Not rinsed clean',
  'something else': 'Something that is not on this list',
};

/** Causes that want a coat to be there. */
export const COAT_CAUSES: readonly Cause[] = [
  'coat too thick',
  'coat too thin',
  'uneven spray',
  'lumps in the coat',
  'fired before it was dry',
  'air blew the powder',
  'extraction pulled the powder',
  'compound off',
];

/** Causes that are at work before the beam fires: all that a coat’s picture can show. */
export const COATING_CAUSES: readonly Cause[] = [
  'coat too thick',
  'coat too thin',
  'uneven spray',
  'lumps in the coat',
  'touched or greasy',
  'compound off',
  'something else',
];
