import { array, object, type InferType } from 'yup';
import { TRAY_FINDINGS, TRAY_UNREADABLE } from '@unto/core';
import {
  amount,
  instant,
  keptHash,
  list,
  orNull,
  record,
  shape,
  uuid,
  who,
  whole,
  word,
  words,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

/** More pieces than anybody lays beside a card. */
export const MOST_ON_TRAY = 80;

const onTray = array()
  .of(whole('Piece', 1, 100_000))
  .label('Pieces')
  .required()
  .min(1, 'Say which pieces lie there.')
  .max(MOST_ON_TRAY, `At most ${MOST_ON_TRAY} pieces are read from one picture.`);

/** Which pieces of a run lie on the tray: row by row from the upper left. */
export const takeTrayPicture = shape({ pieces: onTray });
export type TakeTrayPicture = Frozen<InferType<typeof takeTrayPicture>>;

/** A kept picture is to be read as those pieces of a run. */
export const createTrayReading = shape({ id: uuid().label('id'), fileHash: keptHash('The picture'), pieces: onTray });
export type CreateTrayReading = Frozen<InferType<typeof createTrayReading>>;

const place = record({ x: amount(), y: amount() });

/** What the picture tells of a piece; figures are null where it is not read. */
export const trayPieceRead = record({
  piece: amount(),
  /** In the picture, px, from the piece's own lower left corner counter-clockwise. */
  corners: list(place),
  unreadable: orNull(word(TRAY_UNREADABLE)),
  contrast: orNull(amount()),
  /** Of single strokes, where fills are read beside them. */
  strokes: orNull(amount()),
  sd: orNull(amount()),
  deltaE: orNull(amount()),
  chroma: orNull(amount()),
  evenness: orNull(amount()),
  coverage: orNull(amount()),
  halo: orNull(amount()),
  residue: orNull(amount()),
  /** How far its mark lies beside its place, mm. */
  offMm: orNull(amount()),
  findings: list(record({ kind: word(TRAY_FINDINGS), words: words(), spot: orNull(place) })),
});
export type TrayPieceRead = Frozen<InferType<typeof trayPieceRead>>;

/** A tray as read: appended, never changed. */
export const trayReading = record({
  id: uuid(),
  runId: uuid(),
  fileHash: words(),
  widthPx: amount(),
  heightPx: amount(),
  mmPerPx: amount(),
  others: amount(),
  /** What the window lets a mark of this setting read, L*, nine of ten; null where too few cells were read from pictures. */
  expected: orNull(record({ mean: amount(), low: amount(), high: amount(), cells: amount() })),
  pieces: list(trayPieceRead),
  at: instant(),
  by: who(),
});
export type TrayReadingRecord = Frozen<InferType<typeof trayReading>>;

export const pieceDrawingQuery = object({ piece: whole('Piece', 1, 100_000) });
