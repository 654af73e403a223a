import { type InferType } from 'yup';
import { FAULTS } from '@unto/core';
import {
  amount,
  instant,
  list,
  oneOf,
  optionalOneOf,
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
import { spot } from '../markings/markings.js';
import { DURABILITY_RESULTS, DURABILITY_TESTS } from '../runs/index.js';

/** How many pieces of a run are to be scrubbed; they are drawn at random, those drawn before among them. */
export const createSampleDraw = shape({ id: uuid().label('id'), scrub: whole('Pieces to scrub', 1, 2000) });
export type CreateSampleDraw = Frozen<InferType<typeof createSampleDraw>>;

/** What a piece stood. */
export const createPieceCheck = shape({
  id: uuid().label('id'),
  piece: whole('Piece', 1, 100_000),
  test: oneOf('Test', DURABILITY_TESTS),
  /** Strokes, double rubs or cycles; null where nobody counted. */
  strokes: whole('Strokes', 1, 10_000).nullable().defined().default(null),
  result: oneOf('Result', DURABILITY_RESULTS),
});
export type CreatePieceCheck = Frozen<InferType<typeof createPieceCheck>>;

/** What is wrong with a piece, and where on it; null where nothing is after all. */
export const createPieceFault = shape({
  id: uuid().label('id'),
  piece: whole('Piece', 1, 100_000),
  fault: optionalOneOf('Fault', FAULTS),
  spot: spot.nullable().optional().default(undefined),
});
export type CreatePieceFault = Frozen<InferType<typeof createPieceFault>>;

/** A run's pieces as they stand at Judge: those set aside as it was marked, those drawn for the scrub, and what each stood. */
export const runSample = record({
  runId: uuid(),
  aside: list(amount()),
  /** Null while nobody said how many. */
  scrub: orNull(amount()),
  drawn: list(amount()),
  /** What each piece is called by its text; empty where nothing tells one from another. */
  names: list(words()),
  /** Faults that were placed on pieces, the newest of each. */
  faults: list(
    record({
      piece: amount(),
      fault: word(FAULTS),
      spot: orNull(record({ x: amount(), y: amount() })),
      at: instant(),
      by: who(),
    }),
  ),
  /** The newest of each piece and test. */
  checks: list(
    record({
      piece: amount(),
      test: word(DURABILITY_TESTS),
      strokes: orNull(amount()),
      result: word(DURABILITY_RESULTS),
      at: instant(),
      by: who(),
    }),
  ),
});
export type RunSample = Frozen<InferType<typeof runSample>>;
