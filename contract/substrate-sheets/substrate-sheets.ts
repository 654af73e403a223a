import { object, type InferType } from 'yup';
import { CAUSES, FAULTS, REWORK_WAYS, SUBSTRATE_FAMILIES, SURFACE_LAYERS } from '@unto/core';
import { lastingRow } from '../durability/index.js';
import { amount, flag, gradeWord, instant, list, orNull, record, text, uuid, word, words } from '../fields/index.js';
import { recipe } from '../recipes/index.js';
import { route, type Frozen } from '../routing/index.js';
import { CLEANING_METHODS } from '../runs/index.js';

const pairingNames = { compoundId: orNull(uuid()), compoundName: orNull(words()), headId: uuid(), headName: words() };

/** What works on a substrate here, from all that was recorded of it. */
export const substrateSheet = record({
  id: uuid(),
  name: words(),
  family: word(SUBSTRATE_FAMILIES),
  layer: word(SURFACE_LAYERS),
  finish: words(),
  thicknessMm: amount(),
  /** Judged runs that the figures are of: the newest of it. */
  runs: amount(),
  /** The newest recipe of each head and compound, proved ones first. */
  settings: list(
    record({
      ...pairingNames,
      lensName: words(),
      recipe,
      grade: gradeWord(),
      runs: amount(),
      pieces: amount(),
      good: amount(),
      /** Minutes under the head, and grams of compound, a piece as they came out; null where nobody timed or weighed. */
      minutesPerPiece: orNull(amount()),
      gramsPerPiece: orNull(amount()),
      /** What a good piece came to in compound and laser, minor units; null where nothing of it was kept. */
      priceMinor: orNull(amount()),
      swatch: flag(),
    }),
  ),
  cleaning: list(
    record({
      compoundId: orNull(uuid()),
      compoundName: orNull(words()),
      method: word(CLEANING_METHODS),
      runs: amount(),
      clean: amount(),
      minutesPerPiece: amount(),
    }),
  ),
  lasting: list(lastingRow),
  faults: list(
    record({
      fault: word(FAULTS),
      runs: amount(),
      /** What such faults were traced to here, the commonest first. */
      causes: list(record({ cause: word(CAUSES), cases: amount() })),
    }),
  ),
  reworks: list(record({ way: word(REWORK_WAYS), good: amount(), made: amount() })),
  /** Compounds and heads that could mark it and were never tried on it. */
  never: list(record(pairingNames)),
  at: instant(),
});
export type SubstrateSheet = Frozen<InferType<typeof substrateSheet>>;

export const substrateSheetRoutes = {
  substrateSheet: route({
    method: 'get',
    path: '/api/substrates/:id/sheet',
    summary: 'What works on a substrate here',
    params: { id: uuid() },
    answer: substrateSheet,
    holdsS: 60,
  }),
  substrateSheetPdf: route({
    method: 'get',
    path: '/api/substrates/:id/sheet.pdf',
    summary: 'What works on a substrate here, to hang on the wall',
    params: { id: uuid() },
    query: object({ at: text('Where the workshop is reached') }),
    answer: { media: 'application/pdf' },
  }),
  recipeSwatch: route({
    method: 'get',
    path: '/api/recipes/:id/swatch.svg',
    summary: 'How a recipe marks: the cell nearest its setting, cut from its coupon’s picture',
    params: { id: uuid() },
    answer: { media: 'image/svg+xml' },
  }),
} as const;
