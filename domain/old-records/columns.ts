import type { LooseTable, Quantity } from '@unto/core';
import { dayOrderOf } from './past.js';

/** What a column of an old record may hold; what is none of these goes into the note. */
export const OLD_FIELDS = [
  'title',
  'material',
  'compound',
  'beam',
  'ratedW',
  'topSpeed',
  'power',
  'speed',
  'interval',
  'passes',
  'frequency',
  'pulse',
  'focus',
  'angle',
  'air',
  'when',
  'pieces',
  'minutes',
  'outcome',
  'source',
  'note',
] as const;
export type OldField = (typeof OLD_FIELDS)[number];

export const OLD_FIELD_WORDS: Record<OldField, string> = {
  title: 'what it marks',
  material: 'material',
  compound: 'compound',
  beam: 'beam',
  ratedW: 'rated watts of the head',
  topSpeed: 'top speed of the head',
  power: 'power',
  speed: 'speed',
  interval: 'line interval',
  passes: 'passes',
  frequency: 'frequency, kHz',
  pulse: 'pulse length, ns',
  focus: 'focus offset, mm',
  angle: 'hatch angle, °',
  air: 'air assist',
  when: 'day it was run',
  pieces: 'pieces run',
  minutes: 'minutes it took',
  outcome: 'how it came out',
  source: 'who says so',
  note: 'note',
};

/** The quantity of a field that is written in more than one unit. */
export const OLD_QUANTITIES: Partial<Record<OldField, Extract<Quantity, 'power' | 'speed' | 'interval'>>> = {
  power: 'power',
  speed: 'speed',
  topSpeed: 'speed',
  interval: 'interval',
};

/** How a column is read: as what, and in which unit where its cells say none. */
export interface ColumnPlan {
  readonly field: OldField;
  readonly unit: string;
}

/** Words of headings in the languages that sheets come in, in the order in which they are tried. */
const HEADINGS: readonly (readonly [OldField, RegExp])[] = [
  ['topSpeed', /\b(top|max)\.? ?speed|höchstgeschw/],
  ['ratedW', /\brated|wattage|tube|(laser|head|machine).*\bw(atts?)?\b|nennleistung/],
  ['beam', /\bbeam|laser|wavelength|head\b|machine|strahl/],
  ['compound', /compound|spray|coat|paste|\bink\b|product|marker\b|mittel|produit|prodotto|produkt/],
  ['material', /material|substrate|metal\b|stock|blank|werkstoff|matériau|matériel|materiale/],
  [
    'interval',
    /interval|line ?(gap|spacing|distance|pitch)|\blpi\b|\bdpi\b|lines ?(per|\/)|spacing|pitch|zeilen|abstand|^hatch$|hatch (gap|spacing)/,
  ],
  ['angle', /angle|winkel/],
  ['passes', /pass|repeat|durchg|loops?\b|times/],
  ['frequency', /freq|khz/],
  ['pulse', /pulse|\bns\b|puls/],
  ['focus', /focus|focal offset|fokus|\bz\b/],
  ['air', /\bair\b|luft/],
  ['when', /\bdate\b|\bday\b|\bwhen\b|datum|\bfecha\b/],
  ['pieces', /pieces|\bqty\b|quantity|stück|\bpcs\b|\bcount\b|menge/],
  ['outcome', /outcome|result|came out|\bheld\b|ergebnis|résultat|how it (went|held)/],
  ['power', /power|leistung|puissance|potencia|potenza|\bpwr\b|^p\b/],
  ['speed', /speed|feed|geschw|vitesse|velocid|velocit|\bspd\b|^v\b/],
  ['minutes', /minutes|\bmins?\b|\btime\b|dauer|\bzeit\b/],
  ['source', /\bwho\b|\bby\b|operator|source|quelle|author/],
  ['title', /\bwhat\b|title|\bjob\b|piece|item|\bpart\b|project|descri|name|bezeichnung|artikel|objet/],
  ['note', /note|comment|remark|bemerk/],
];

/** Units as sheets write them, longest first. */
const UNITS: Readonly<
  Record<Extract<Quantity, 'power' | 'speed' | 'interval'>, readonly (readonly [RegExp, string])[]>
> = {
  power: [
    [/0 ?[-–] ?1000|‰|per mille/, '0-1000'],
    [/%|percent|prozent/, '%'],
    [/\bw(atts?)?\b/, 'W'],
  ],
  speed: [
    [/mm ?(\/|per|p)\s?m(in)?\b|mmpm/, 'mm/min'],
    [/mm ?(\/|per|p)\s?s(ec)?\b|mmps/, 'mm/s'],
    [/(in|inch(es)?|") ?(\/|per) ?s(ec)?\b|\bips\b/, 'in/s'],
    [/%|percent|prozent/, '%'],
    [/dial/, 'dial'],
  ],
  interval: [
    [/lines? ?(\/|per) ?cm|l\/cm/, 'lines/cm'],
    [/lines? ?(\/|per) ?in(ch)?|\blpi\b|\bdpi\b/, 'lines/in'],
    [/\bmm\b/, 'mm'],
    [/\bin(ch(es)?)?\b|"/, 'in'],
  ],
};

/** The unit that a text names for a quantity; null where it names none. */
export function unitIn(quantity: keyof typeof UNITS, text: string): string | null {
  return UNITS[quantity].find(([pattern]) => pattern.test(text.toLowerCase()))?.[1] ?? null;
}

/** What each column seems to hold: by its heading, no field twice; null for what goes into the note. */
export function guessColumns({ header, rows, columns }: LooseTable): (ColumnPlan | null)[] {
  const taken = new Set<OldField>();
  return Array.from({ length: columns }, (_, i) => {
    const heading = (header?.[i] ?? '').toLowerCase();
    const field = HEADINGS.find(([one, words]) => !taken.has(one) && words.test(heading))?.[0];
    if (!field) return null;
    taken.add(field);
    return {
      field,
      unit: unitOf(
        field,
        heading,
        rows.map(({ cells }) => cells[i] ?? ''),
      ),
    };
  });
}

/** The unit a column is in: as its heading or cells say, else as its numbers look. Common practice, no source. */
export function unitOf(field: OldField, heading: string, cells: readonly string[]): string {
  if (field === 'when') return dayOrderOf(cells);
  const quantity = OLD_QUANTITIES[field];
  if (!quantity) return '';
  const named = unitIn(quantity, heading) ?? cells.map((cell) => unitIn(quantity, cell)).find(Boolean);
  if (named) return named;
  const most = Math.max(0, ...cells.map((cell) => Number(/\d+([.,]\d+)?/.exec(cell)?.[0].replace(',', '.') ?? 0)));
  if (quantity === 'power') return most > 100 ? '0-1000' : '%';
  if (quantity === 'interval') return most > 5 ? 'lines/in' : 'mm';
  return 'mm/s';
}
