import { array, mixed, object, type InferType } from 'yup';
import {
  FOCUS_METHODS,
  type Figure,
  type FlatnessAdvice,
  type FocusStep,
  type FocusStrip,
  type PlanePoint,
} from '@unto/core';
import { finite, note, oneOf, positive, uuid, within } from '../fields/index.js';

/** What is read at the Place station. */
export const PLACE_KINDS = ['focus', 'flatness', 'centre', 'round', 'align', 'pointer', 'set'] as const;
export type PlaceKind = (typeof PLACE_KINDS)[number];

/** What was done about a reading. */
export const PLACE_DECISIONS = ['taken', 'refocused', 'in steps', 'clamped', 'laid anew', 'rejected'] as const;
export type PlaceDecision = (typeof PLACE_DECISIONS)[number];

/** How a round part is shaped; without a word, one that can turn on a rotary. */
export const ROUND_SHAPES = ['cylinder or cone', 'sphere'] as const;

const place = { xMm: finite('x', 'mm'), yMm: finite('y', 'mm') };

const pairOf = (label: string) =>
  array()
    .of(object(place).noUnknown())
    .label(`${label} points`)
    .required()
    .length(2, `${label}: two points, as far apart as the piece allows.`);

/** The entries of each kind, as they were read. */
export const PLACE_ENTRIES = {
  focus: object({
    dots: array()
      .of(object({ heightMm: finite('Height', 'mm'), widthMm: positive('Dot width', 'mm') }).noUnknown())
      .label('Dots')
      .required()
      .min(3, 'A waist needs three dots at least.')
      .max(100),
    growth: within('Growth of the dot at the end of the depth', 0.005, 1),
  }).noUnknown(),
  flatness: object({
    readings: array()
      .of(object({ ...place, heightMm: finite('Height', 'mm') }).noUnknown())
      .label('Heights')
      .required()
      .min(3, 'A surface needs heights at three places at least.')
      .max(400),
    focusMm: finite('Focus is set to', 'mm'),
  }).noUnknown(),
  centre: object({
    points: array()
      .of(object(place).noUnknown())
      .label('Rim points')
      .required()
      .min(3, 'A circle needs three rim points at least.')
      .max(400),
  }).noUnknown(),
  align: object({
    drawn: pairOf('Drawn'),
    found: pairOf('Found'),
  }).noUnknown(),
  pointer: object({
    pairs: array()
      .of(
        object({
          pointerXMm: finite('Pointer x', 'mm'),
          pointerYMm: finite('Pointer y', 'mm'),
          markXMm: finite('Mark x', 'mm'),
          markYMm: finite('Mark y', 'mm'),
        }).noUnknown(),
      )
      .label('Dots')
      .required()
      .min(1, 'Mark one dot at least, and read where the pointer stood.')
      .max(50),
  }).noUnknown(),
  set: object({
    method: oneOf('Method', FOCUS_METHODS),
    offsetMm: finite('Focus offset', 'mm').min(-50).max(50),
    thicknessMm: positive('Thickness set', 'mm'),
  }).noUnknown(),
  round: object({
    shape: oneOf('Shape', ROUND_SHAPES).optional(),
    nearMm: positive('Diameter', 'mm'),
    farMm: positive('Diameter at the far end', 'mm'),
    alongMm: positive('Length between them', 'mm'),
  }).noUnknown(),
} as const;

export interface PlaceEntriesOf {
  focus: InferType<(typeof PLACE_ENTRIES)['focus']>;
  flatness: InferType<(typeof PLACE_ENTRIES)['flatness']>;
  centre: InferType<(typeof PLACE_ENTRIES)['centre']>;
  round: InferType<(typeof PLACE_ENTRIES)['round']>;
  align: InferType<(typeof PLACE_ENTRIES)['align']>;
  pointer: InferType<(typeof PLACE_ENTRIES)['pointer']>;
  set: InferType<(typeof PLACE_ENTRIES)['set']>;
}

/** What follows from the entries, as figures. */
export interface PlaceResultOf {
  focus: { readonly height: Figure; readonly spot: Figure; readonly depth: Figure; readonly bracketed: boolean };
  flatness: {
    readonly inFocus: Figure;
    readonly best: Figure;
    readonly bestShare: number;
    readonly fallMm: number;
    readonly steps: readonly FocusStep[];
    readonly advice: FlatnessAdvice;
  };
  centre: { readonly x: Figure; readonly y: Figure; readonly diameter: Figure; readonly worst: number };
  round: {
    readonly mmPerDegree: Figure;
    readonly degrees: Figure;
    readonly seam: Figure;
    readonly chord: Figure;
    readonly tiltDegrees: number;
    readonly stretch: number;
    readonly strips: readonly FocusStrip[];
    /** Half the width across the curve that the artwork takes: half its width, or on a sphere half its diagonal. */
    readonly halfWidthMm: number;
  };
  align: {
    readonly turn: Figure;
    readonly zeroX: Figure;
    readonly zeroY: Figure;
    readonly longer: Figure;
    /** The four corners of the artwork on the machine, from its lower left one counter-clockwise. */
    readonly corners: readonly PlanePoint[];
  };
  pointer: { readonly x: Figure; readonly y: Figure; readonly worst: number; readonly worstOffMm: number };
  /** The spot that the offset leaves on the part. */
  set: { readonly spot: Figure };
}

export const createPlaceReading = object({
  id: uuid().label('id'),
  kind: oneOf('Kind', PLACE_KINDS),
  entries: mixed<PlaceEntriesOf[PlaceKind]>().required('The entries are missing.'),
  decision: oneOf('Decision', PLACE_DECISIONS),
  note: note('Note', 500),
}).noUnknown();
export type CreatePlaceReading = InferType<typeof createPlaceReading>;

/** A reading as kept, with the head and lens that were fitted. Appended, never changed. */
export interface PlaceReading<K extends PlaceKind = PlaceKind> extends Omit<CreatePlaceReading, 'kind' | 'entries'> {
  readonly kind: K;
  readonly entries: PlaceEntriesOf[K];
  readonly result: PlaceResultOf[K];
  readonly ticketId: string;
  readonly headId: string;
  readonly lensId: string;
  readonly at: string;
  readonly by: string;
}
