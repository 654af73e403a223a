import { array, mixed, type InferType } from 'yup';
import { FLATNESS_ADVICE, FOCUS_METHODS } from '@unto/core';
import { figure } from '../evidence/index.js';
import {
  amount,
  byKind,
  finite,
  flag,
  instant,
  keptHash,
  list,
  note,
  oneOf,
  positive,
  record,
  shape,
  uuid,
  who,
  within,
  word,
  words,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

/** What is read at the Place station. */
export const PLACE_KINDS = ['focus', 'flatness', 'centre', 'round', 'align', 'pointer', 'set', 'zero', 'laid'] as const;
export type PlaceKind = (typeof PLACE_KINDS)[number];

/** What was done about a reading. */
export const PLACE_DECISIONS = ['taken', 'refocused', 'in steps', 'clamped', 'laid anew', 'rejected'] as const;
export type PlaceDecision = (typeof PLACE_DECISIONS)[number];

/** How a round part is shaped; without a word, one that can turn on a rotary. */
export const ROUND_SHAPES = ['cylinder or cone', 'sphere'] as const;

const place = { xMm: finite('x', 'mm'), yMm: finite('y', 'mm') };

const pairOf = (label: string) =>
  array()
    .of(shape(place))
    .label(`${label} points`)
    .required()
    .length(2, `${label}: two points, as far apart as the piece allows.`);

/** The entries of each kind, as they were read. */
export const PLACE_ENTRIES = {
  focus: shape({
    dots: array()
      .of(shape({ heightMm: finite('Height', 'mm'), widthMm: positive('Dot width', 'mm') }))
      .label('Dots')
      .required()
      .min(3, 'A waist needs three dots at least.')
      .max(100),
    growth: within('Growth of the dot at the end of the depth', 0.005, 1),
  }),
  flatness: shape({
    readings: array()
      .of(shape({ ...place, heightMm: finite('Height', 'mm') }))
      .label('Heights')
      .required()
      .min(3, 'A surface needs heights at three places at least.')
      .max(400),
    focusMm: finite('Focus is set to', 'mm'),
  }),
  centre: shape({
    points: array()
      .of(shape(place))
      .label('Rim points')
      .required()
      .min(3, 'A circle needs three rim points at least.')
      .max(400),
  }),
  align: shape({
    drawn: pairOf('Drawn'),
    found: pairOf('Found'),
  }),
  pointer: shape({
    pairs: array()
      .of(
        shape({
          pointerXMm: finite('Pointer x', 'mm'),
          pointerYMm: finite('Pointer y', 'mm'),
          markXMm: finite('Mark x', 'mm'),
          markYMm: finite('Mark y', 'mm'),
        }),
      )
      .label('Dots')
      .required()
      .min(1, 'Mark one dot at least, and read where the pointer stood.')
      .max(50),
  }),
  /** Two crosses burnt on scrap, as the machine was told and as a picture shows them on the card. */
  zero: shape({ fileHash: keptHash('The picture'), burnt: pairOf('Burnt'), seen: pairOf('Seen') }),
  /** Pieces where a picture shows them, by their lower left corners on the machine. */
  laid: shape({
    fileHash: keptHash('The picture'),
    pieceWidthMm: positive('Width of a piece', 'mm'),
    pieceHeightMm: positive('Height of a piece', 'mm'),
    pieces: array()
      .of(shape({ ...place, turnDeg: within('Turned by', -180, 180, '°') }))
      .label('Pieces')
      .required()
      .min(1, 'No piece was found or placed.')
      .max(200),
  }),
  set: shape({
    method: oneOf('Method', FOCUS_METHODS),
    offsetMm: finite('Focus offset', 'mm').min(-50).max(50),
    thicknessMm: positive('Thickness set', 'mm'),
  }),
  round: shape({
    shape: oneOf('Shape', ROUND_SHAPES).optional(),
    nearMm: positive('Diameter', 'mm'),
    farMm: positive('Diameter at the far end', 'mm'),
    alongMm: positive('Length between them', 'mm'),
  }),
} as const;

export interface PlaceEntriesOf {
  focus: Frozen<InferType<(typeof PLACE_ENTRIES)['focus']>>;
  flatness: Frozen<InferType<(typeof PLACE_ENTRIES)['flatness']>>;
  centre: Frozen<InferType<(typeof PLACE_ENTRIES)['centre']>>;
  round: Frozen<InferType<(typeof PLACE_ENTRIES)['round']>>;
  align: Frozen<InferType<(typeof PLACE_ENTRIES)['align']>>;
  pointer: Frozen<InferType<(typeof PLACE_ENTRIES)['pointer']>>;
  set: Frozen<InferType<(typeof PLACE_ENTRIES)['set']>>;
  zero: Frozen<InferType<(typeof PLACE_ENTRIES)['zero']>>;
  laid: Frozen<InferType<(typeof PLACE_ENTRIES)['laid']>>;
}

const step = record({ focusMm: amount(), share: amount() });
const strip = record({ fromMm: amount(), toMm: amount(), focusBelowMm: amount() });
const point = record({ xMm: amount(), yMm: amount() });

/** What follows from the entries, as figures. */
export const PLACE_RESULTS = {
  focus: record({ height: figure(), spot: figure(), depth: figure(), bracketed: flag() }),
  flatness: record({
    inFocus: figure(),
    best: figure(),
    bestShare: amount(),
    fallMm: amount(),
    steps: list(step),
    advice: word(FLATNESS_ADVICE),
  }),
  centre: record({ x: figure(), y: figure(), diameter: figure(), worst: amount() }),
  align: record({
    turn: figure(),
    zeroX: figure(),
    zeroY: figure(),
    longer: figure(),
    /** The four corners of the artwork on the machine, from its lower left one counter-clockwise. */
    corners: list(point),
  }),
  pointer: record({ x: figure(), y: figure(), worst: amount(), worstOffMm: amount() }),
  /** How the card lies in the machine, and by how much the crosses came out further apart than they were burnt. */
  zero: record({ turn: figure(), zeroX: figure(), zeroY: figure(), longer: figure() }),
  /** What the pieces take of the machine. */
  laid: record({ xMm: amount(), yMm: amount(), widthMm: amount(), heightMm: amount() }),
  /** The spot that the offset leaves on the part. */
  set: record({ spot: figure() }),
  round: record({
    mmPerDegree: figure(),
    degrees: figure(),
    seam: figure(),
    chord: figure(),
    tiltDegrees: amount(),
    stretch: amount(),
    strips: list(strip),
    /** Half the width across the curve that the artwork takes: half its width, or on a sphere half its diagonal. */
    halfWidthMm: amount(),
  }),
} as const;
export type PlaceResultOf = { readonly [K in PlaceKind]: Frozen<InferType<(typeof PLACE_RESULTS)[K]>> };

export const createPlaceReading = shape({
  id: uuid().label('id'),
  kind: oneOf('Kind', PLACE_KINDS),
  entries: mixed<PlaceEntriesOf[PlaceKind]>().required('The entries are missing.'),
  decision: oneOf('Decision', PLACE_DECISIONS),
  note: note('Note', 500),
});
export type CreatePlaceReading = Frozen<InferType<typeof createPlaceReading>>;

/** A reading as kept, with the head and lens that were fitted. Appended, never changed. */
export interface PlaceReading<K extends PlaceKind = PlaceKind> {
  readonly id: string;
  readonly kind: K;
  readonly entries: PlaceEntriesOf[K];
  readonly result: PlaceResultOf[K];
  readonly decision: PlaceDecision;
  readonly note: string;
  readonly ticketId: string;
  readonly headId: string;
  readonly lensId: string;
  readonly at: string;
  readonly by: string;
}
const placeShape = (kind: PlaceKind) => ({ entries: PLACE_ENTRIES[kind], result: PLACE_RESULTS[kind] });
const placeShared = {
  id: uuid(),
  decision: word(PLACE_DECISIONS),
  note: words(),
  ticketId: uuid(),
  headId: uuid(),
  lensId: uuid(),
  at: instant(),
  by: who(),
};
export const placeReading = byKind<PlaceReading>(
  'kind',
  Object.fromEntries(PLACE_KINDS.map((kind) => [kind, placeShape(kind)])),
  placeShared,
);
/** How the card lies in a machine. */
export const zeroReading = byKind<PlaceReading<'zero'>>('kind', { zero: placeShape('zero') }, placeShared);
/** An offset from pointer to beam. */
export const pointerReading = byKind<PlaceReading<'pointer'>>('kind', { pointer: placeShape('pointer') }, placeShared);
