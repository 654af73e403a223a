import { array, boolean, type InferType } from 'yup';
import {
  amount,
  finite,
  instant,
  notNegative,
  oneOf,
  optionalNumber,
  positive,
  record,
  shape,
  text,
  uuid,
  who,
  whole,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

/** One size in rows (a sheet to cut, a jig), or several sizes nested. */
export const SHEET_MODES = ['rows', 'mixed'] as const;

const box = shape({
  xMm: finite('From the left', 'mm'),
  yMm: finite('From below', 'mm'),
  widthMm: positive('Width', 'mm'),
  heightMm: positive('Height', 'mm'),
});

const piece = shape({
  label: text('Size', 60),
  widthMm: positive('Width', 'mm'),
  heightMm: positive('Height', 'mm'),
  count: whole('How many', 0, 2000),
  test: boolean().label('For testing').required(),
});

export const sheetEntries = shape({
  mode: oneOf('Layout', SHEET_MODES),
  sheetWidthMm: positive('Sheet width', 'mm'),
  sheetHeightMm: positive('Sheet height', 'mm'),
  /** What the label says, where somebody looked; pieces are laid out on what was measured. */
  labelWidthMm: optionalNumber('Width on the label', 'mm'),
  labelHeightMm: optionalNumber('Height on the label', 'mm'),
  gapMm: notNegative('Between pieces', 'mm'),
  marginMm: notNegative('Margin', 'mm'),
  keepOuts: array().of(box).label('Keep-outs').defined().max(200),
  pieceWidthMm: positive('Piece width', 'mm'),
  pieceHeightMm: positive('Piece height', 'mm'),
  /** A jig's own raster; the closest one where a pitch is null. */
  pitchXMm: optionalNumber('Pitch across', 'mm'),
  pitchYMm: optionalNumber('Pitch up', 'mm'),
  firstXMm: optionalNumber('First place from the left', 'mm'),
  firstYMm: optionalNumber('First place from below', 'mm'),
  shiftMm: finite('Every second row shifted by', 'mm'),
  testPlaces: whole('Places for test pieces', 0, 5000),
  pieces: array().of(piece).label('Sizes').defined().max(100),
});
export type SheetEntries = Frozen<InferType<typeof sheetEntries>>;

export const createSheet = shape({ id: uuid().label('id'), entries: sheetEntries });
export type CreateSheet = Frozen<InferType<typeof createSheet>>;

/** A layout as kept. Appended, never changed. */
export const sheet = record({
  id: uuid(),
  entries: sheetEntries,
  ticketId: uuid(),
  places: amount(),
  leftOut: amount(),
  used: amount(),
  at: instant(),
  by: who(),
});
export type Sheet = Frozen<InferType<typeof sheet>>;
