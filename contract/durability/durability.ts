import { type InferType } from 'yup';
import { PROTOCOLS, type ProtocolCode } from '@unto/core';
import {
  amount,
  day,
  flag,
  instant,
  list,
  note,
  oneOf,
  optionalNumber,
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
import { DURABILITY_RESULTS } from '../runs/index.js';

const CODES = PROTOCOLS.map(({ code }) => code) as ProtocolCode[];
const READ_BY = ['picture', 'eye'] as const;

/** A test begins on a piece of a run: what is to be done to it, and how dark its mark was before. */
export const createDurabilityTest = shape({
  id: uuid().label('id'),
  runId: uuid().label('Run'),
  piece: whole('Piece', 1, 100_000),
  protocol: oneOf('Test', CODES),
  dose: whole('How much', 1, 100_000),
  beforeContrast: optionalNumber('Contrast before', 'ΔL*').min(-100).max(100),
  readBy: optionalOneOf('Read by', READ_BY),
  dueOn: day('To be looked at on').nullable().defined().default(null),
  note: note('Note', 500),
});
export type CreateDurabilityTest = Frozen<InferType<typeof createDurabilityTest>>;

/** A look at a test: so much of it is done, and how the mark stands. */
export const createDurabilityLook = shape({
  id: uuid().label('id'),
  doseDone: whole('Done so far', 1, 100_000),
  result: oneOf('Result', DURABILITY_RESULTS),
  afterContrast: optionalNumber('Contrast now', 'ΔL*').min(-100).max(100),
  /** When it is looked at again; null where it is over. */
  nextOn: day('Looked at again on').nullable().defined().default(null),
});
export type CreateDurabilityLook = Frozen<InferType<typeof createDurabilityLook>>;

/** A test as it stands. */
export const durabilityTest = record({
  id: uuid(),
  runId: uuid(),
  ticketId: uuid(),
  piece: amount(),
  protocol: word(CODES),
  dose: amount(),
  beforeContrast: orNull(amount()),
  readBy: orNull(word(READ_BY)),
  note: words(),
  looks: list(
    record({
      id: uuid(),
      doseDone: amount(),
      result: word(DURABILITY_RESULTS),
      afterContrast: orNull(amount()),
      at: instant(),
      by: who(),
    }),
  ),
  /** When it is to be looked at; null where it is over, or nobody said. */
  dueOn: orNull(words()),
  /** Its dose is done, or its mark is lost. */
  over: flag(),
  at: instant(),
  by: who(),
});
export type DurabilityTest = Frozen<InferType<typeof durabilityTest>>;

/** What a compound's marks stood on a substrate under a protocol, the newest look of a test each. */
export const lastingRow = record({
  testId: uuid(),
  ticketId: uuid(),
  runId: uuid(),
  compoundId: orNull(uuid()),
  compoundName: orNull(words()),
  substrateId: uuid(),
  substrateName: words(),
  protocol: word(CODES),
  dose: amount(),
  doseDone: amount(),
  result: word(DURABILITY_RESULTS),
  beforeContrast: orNull(amount()),
  afterContrast: orNull(amount()),
  readBy: orNull(word(READ_BY)),
  at: instant(),
});
export type LastingRow = Frozen<InferType<typeof lastingRow>>;
