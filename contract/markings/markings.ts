import { array, type InferType } from 'yup';
import {
  amount,
  flag,
  instant,
  list,
  note,
  oneOf,
  orNull,
  record,
  shape,
  text,
  uuid,
  who,
  whole,
  within,
  word,
  words,
} from '../fields/index.js';
import { burn } from '../devices/index.js';
import type { Frozen } from '../routing/index.js';
import { runSetting } from '../runs/index.js';

/** What may be said of a piece under the beam: it is done, it is set aside with what went wrong, or what was said of it is taken back. */
export const PIECE_EVENTS = ['done', 'set aside', 'taken back'] as const;
export const PIECE_STATES = ['to go', 'done', 'set aside'] as const;

/** What goes wrong with a piece while it is marked. */
export const SPOILT = [
  'interrupted',
  'moved in the jig',
  'out of focus',
  'coat damaged',
  'scorched',
  'wrong place',
  'other',
] as const;

/** How the first piece of a run stood rinse and scrub. */
export const FIRST_PIECE = ['held', 'paler', 'lost', 'not scrubbed'] as const;

/** What is looked at on the machine before the beam fires. */
export const RUN_CHECKS = ['focus', 'air', 'extraction', 'passes'] as const;
export type RunCheck = (typeof RUN_CHECKS)[number];

/** A run begins: its pieces are counted one by one from here on. */
export const createMarking = shape({
  id: uuid().label('id'),
  recipeId: uuid().label('Recipe').nullable().defined().default(null),
  blankId: uuid().label('Blank').nullable().optional(),
  reworkId: uuid().label('Rework').nullable().optional(),
  pieces: whole('Pieces', 1, 2000),
  /** Which pieces of the ticket they are, as “25-48”; counted from 1 where nobody says. */
  numbers: text('Numbers of the pieces', 2000).nullable().optional(),
  /** What somebody looked at before it began. */
  checked: array().of(oneOf('Check', RUN_CHECKS)).max(RUN_CHECKS.length).defined().default([]),
  ...runSetting,
  note: note('Note'),
  /** Why it is run though a station was still open; empty where none was. */
  reason: note('Why all the same', 500),
});
export type CreateMarking = Frozen<InferType<typeof createMarking>>;

/** Where on a piece, as shares of its width and height from the upper left. */
export const spot = shape({ x: within('Across', 0, 1), y: within('Down', 0, 1) });

export const createPieceEvent = shape({
  id: uuid().label('id'),
  piece: whole('Piece', 1, 2000),
  what: oneOf('What', PIECE_EVENTS),
  why: oneOf('What went wrong', SPOILT).nullable().defined().default(null),
  spot: spot.nullable().optional().default(undefined),
});
export type CreatePieceEvent = Frozen<InferType<typeof createPieceEvent>>;

export const createFirstPiece = shape({ id: uuid().label('id'), result: oneOf('First piece', FIRST_PIECE) });
export type CreateFirstPiece = Frozen<InferType<typeof createFirstPiece>>;

/** The run that a marking becomes; none where nothing was counted. */
export const endMarking = shape({ runId: uuid().label('Run') });
export type EndMarking = Frozen<InferType<typeof endMarking>>;

export const markedPiece = record({
  piece: amount(),
  state: word(PIECE_STATES),
  why: orNull(word(SPOILT)),
  spot: orNull(record({ x: amount(), y: amount() })),
  at: instant(),
  by: who(),
});
export type MarkedPiece = Frozen<InferType<typeof markedPiece>>;

/** A run that is being counted, or was. */
export const marking = record({
  id: uuid(),
  ticketId: uuid(),
  recipeId: orNull(uuid()),
  pieces: amount(),
  /** Which pieces of the ticket they are, in the order they are counted. */
  numbers: list(amount()),
  startedAt: instant(),
  startedBy: who(),
  /** The run it became; null while it is counted, or where it was dropped. */
  runId: orNull(uuid()),
  /** How its pieces were to be marked as it began; null where nobody laid anything out. */
  layoutId: orNull(uuid()),
  ended: flag(),
  firstPiece: orNull(word(FIRST_PIECE)),
  note: words(),
  checked: list(word(RUN_CHECKS)),
  /** Its newest program on the controller; null where none was sent. */
  burn: orNull(burn),
  /** Only those of which something was said, each with its newest. */
  counted: list(markedPiece),
});
export type Marking = Frozen<InferType<typeof marking>>;
