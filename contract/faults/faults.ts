import { array, object, type InferType } from 'yup';
import {
  CALENDAR_WHILES,
  CAUSES,
  COAT_HANDLINGS,
  FAULT_TEST_KEYS,
  FAULT_TEST_RESULTS,
  FAULTS,
  REMEDY_KINDS,
  REWORK_WAYS,
  STATIONS,
  SWITCH_STATES,
  type FaultRecord,
  type PieceWork,
  type SettledCase,
} from '@unto/core';
import {
  amount,
  describes,
  finite,
  flag,
  instant,
  list,
  note,
  oneOf,
  optionalUuid,
  orNull,
  positive,
  record,
  shape,
  uuid,
  who,
  whole,
  word,
  words,
} from '../fields/index.js';
import { lastingRow } from '../durability/durability.js';
import { spot } from '../markings/markings.js';
import type { Frozen } from '../routing/index.js';

/** What a fault is looked for on. */
export const FAULT_SUBJECTS = ['run', 'coupon', 'coat'] as const;
export type FaultSubject = (typeof FAULT_SUBJECTS)[number];

const looks = {
  faults: array()
    .of(oneOf('Fault', FAULTS))
    .label('What it looks like')
    .required()
    .min(1, 'Press what it looks like first.')
    .max(FAULTS.length),
  spots: array().of(spot).max(20).defined().default([]),
  note: note('Note', 1000),
};

/** A fault is looked for: what it looks like, where, and on which pieces. */
export const createFaultCase = shape({
  id: uuid().label('id'),
  kind: oneOf('Kind', FAULT_SUBJECTS),
  subjectId: uuid().label('What it is on'),
  pieces: array()
    .of(whole('Piece', 1, 100_000))
    .max(2000)
    .defined()
    .default([]),
  ...looks,
});
export type CreateFaultCase = Frozen<InferType<typeof createFaultCase>>;

/** Looked at again: this is what it looks like after all. The newest counts. */
export const createFaultLook = shape({ id: uuid().label('id'), ...looks });
export type CreateFaultLook = Frozen<InferType<typeof createFaultLook>>;

/** A quick test as it came out. */
export const createFaultTest = shape({
  id: uuid().label('id'),
  test: oneOf('Test', FAULT_TEST_KEYS),
  result: oneOf('Result', FAULT_TEST_RESULTS),
  note: note('Note', 1000),
});
export type CreateFaultTest = Frozen<InferType<typeof createFaultTest>>;

/** Something that is changed so that the fault does not come back. */
const remedy = shape({
  kind: oneOf('Kind', REMEDY_KINDS),
  question: shape({
    station: oneOf('Station', STATIONS),
    text: note('Question', 200),
    of: oneOf('Of', ['compound', 'substrate', 'long parts'] as const),
  })
    .nullable()
    .optional()
    .default(undefined),
});

/** What it was, what is done with the pieces, and what is changed. The newest counts: a finding may be corrected. */
export const createFaultFinding = shape({
  id: uuid().label('id'),
  /** Empty where it was not found out. */
  causes: array().of(oneOf('Cause', CAUSES)).max(3, 'Three causes at most.').defined().default([]),
  way: oneOf('What is done with it', REWORK_WAYS).nullable().defined().default(null),
  /** Share of the mark that a region to be redone is. */
  regionShare: finite('Share of the mark').min(0).max(1).optional().default(undefined),
  remedies: array().of(remedy).max(8).defined().default([]),
  note: note('Note', 1000),
});
export type CreateFaultFinding = Frozen<InferType<typeof createFaultFinding>>;

const box = {
  xMm: finite('x', 'mm'),
  yMm: finite('y', 'mm'),
  widthMm: positive('Width', 'mm'),
  heightMm: positive('Height', 'mm'),
};
const twoPoints = (label: string) =>
  array()
    .of(shape({ xMm: finite('x', 'mm'), yMm: finite('y', 'mm') }))
    .label(label)
    .required()
    .length(2, `${label}: two points, as far apart as the piece allows.`);

/** How a piece lies under the head now, by two points of its old mark: where they are drawn, and where the machine finds them. */
const alignment = shape({ drawn: twoPoints('On the drawing'), found: twoPoints('On the machine') });

/** Pieces of a run are made anew, whole or in a region. */
export const createRework = shape({
  id: uuid().label('id'),
  runId: uuid().label('Run'),
  caseId: optionalUuid().label('Fault').nullable().defined().default(null),
  way: oneOf('Way', ['redo the region', 'coat and mark over', 'strip and start again'] as const),
  pieces: array()
    .of(whole('Piece', 1, 100_000))
    .label('Pieces')
    .required()
    .min(1, 'Say which pieces.')
    .max(2000),
  /** Of the mark, mm from its lower left corner; null for all of it. */
  region: shape(box).nullable().defined().default(null),
  alignment: alignment.nullable().defined().default(null),
  /** Height of the focus over the region against what the run was set to, mm. */
  focusMm: finite('Focus at that place', 'mm').min(-20).max(20).nullable().defined().default(null),
  note: note('Note', 1000),
});
export type CreateRework = Frozen<InferType<typeof createRework>>;

const ranged = record({ value: amount(), low: amount(), high: amount() });
const lotRecord = record({
  lot: words(),
  good: amount(),
  made: amount(),
  othersGood: amount(),
  othersMade: amount(),
});
const COAT_FINDINGS = ['thin', 'thick', 'lumps', 'runs', 'touched', 'brush'] as const;
const coatRecord = record({
  handling: word(COAT_HANDLINGS),
  film: orNull(ranged),
  bandUm: record({ low: amount(), high: amount() }),
  findings: orNull(list(word(COAT_FINDINGS))),
  driedS: orNull(amount()),
  dryS: amount(),
  shaken: flag(),
  pastTime: flag(),
  humidity: orNull(amount()),
  stored: flag(),
  lot: orNull(lotRecord),
});

/** What the record says of what was fired, as it stood when the fault was first looked for. */
export const faultRecord = describes<FaultRecord>()(
  record({
    coat: orNull(coatRecord),
    air: orNull(word(SWITCH_STATES)),
    extraction: orNull(word(SWITCH_STATES)),
    place: record({
      heightsRead: flag(),
      offMm: orNull(amount()),
      depthMm: amount(),
      longestMm: amount(),
      focusFound: flag(),
      focusTicked: flag(),
    }),
    setting: orNull(
      record({
        window: orNull(record({ bonds: amount(), overdone: amount() })),
        intervalToSpot: amount(),
        speedToRecipe: orNull(amount()),
        asProved: orNull(flag()),
        drifts: flag(),
      }),
    ),
    lensHours: orNull(amount()),
    tubeHours: orNull(amount()),
    part: record({
      metal: flag(),
      vitreous: flag(),
      bareTicked: orNull(flag()),
      notBare: orNull(amount()),
      groundLikeMark: flag(),
      degreased: flag(),
      lot: orNull(lotRecord),
    }),
    pieces: orNull(record({ made: amount(), alike: amount(), samePlace: flag() })),
    spots: list(record({ x: amount(), y: amount() })),
    wash: record({ afterMinutes: orNull(amount()), cooled: orNull(flag()), residue: orNull(words()) }),
  }),
);

const chance = record({ cause: word(CAUSES), chance: amount() });
const taken = record({ kind: word(REMEDY_KINDS), words: words(), recordId: orNull(uuid()) });

/** What a way out was planned with as it was chosen. */
const plannedWay = record({ minutes: amount(), costMinor: amount(), chance: orNull(amount()) });

export const faultFinding = record({
  id: uuid(),
  causes: list(word(CAUSES)),
  way: orNull(word(REWORK_WAYS)),
  plan: orNull(plannedWay),
  /** What each cause was given as it was settled. */
  chances: list(chance),
  remedies: list(taken),
  note: words(),
  at: instant(),
  by: who(),
});
export type FaultFinding = Frozen<InferType<typeof faultFinding>>;

const faultLook = record({
  id: uuid(),
  faults: list(word(FAULTS)),
  spots: list(record({ x: amount(), y: amount() })),
  note: words(),
  at: instant(),
  by: who(),
});
const faultTest = record({
  id: uuid(),
  test: word(FAULT_TEST_KEYS),
  result: word(FAULT_TEST_RESULTS),
  note: words(),
  at: instant(),
  by: who(),
});

/** A fault that was looked for, with all that was seen, tested and found; nothing of it is ever taken back. */
export const faultCase = record({
  id: uuid(),
  ticketId: uuid(),
  kind: word(FAULT_SUBJECTS),
  subjectId: uuid(),
  pieces: list(amount()),
  record: faultRecord,
  /** Oldest first; the last counts. */
  looks: list(faultLook),
  tests: list(faultTest),
  /** Oldest first; the last counts. */
  findings: list(faultFinding),
  at: instant(),
  by: who(),
});
export type FaultCase = Frozen<InferType<typeof faultCase>>;

export const rework = record({
  id: uuid(),
  ticketId: uuid(),
  runId: uuid(),
  caseId: orNull(uuid()),
  way: word(REWORK_WAYS),
  pieces: list(amount()),
  region: orNull(record({ xMm: amount(), yMm: amount(), widthMm: amount(), heightMm: amount() })),
  alignment: orNull(
    record({
      drawn: list(record({ xMm: amount(), yMm: amount() })),
      found: list(record({ xMm: amount(), yMm: amount() })),
    }),
  ),
  focusMm: orNull(amount()),
  note: words(),
  /** The run in which it was done; null while it is to be done. */
  doneRunId: orNull(uuid()),
  at: instant(),
  by: who(),
});
export type Rework = Frozen<InferType<typeof rework>>;

const settledCase = describes<SettledCase>()(record({ faults: list(word(FAULTS)), causes: list(word(CAUSES)) }));
const counted = record({ way: word(REWORK_WAYS), good: amount(), made: amount() });

/** What is proposed by what was read, for somebody to press. */
const proposal = record({
  fault: word(FAULTS),
  spot: orNull(record({ x: amount(), y: amount() })),
  piece: orNull(amount()),
  words: words(),
});

const pieceWork = describes<PieceWork>()(
  record({
    coatMinutes: amount(),
    dryMinutes: amount(),
    markMinutes: amount(),
    cleanMinutes: amount(),
    stripMinutes: amount(),
    compoundMinor: amount(),
    compoundG: amount(),
    blankMinor: amount(),
    labourMinorPerMinute: amount(),
    laserMinorPerMinute: amount(),
    regionShare: amount(),
    placeMinutes: amount(),
  }),
);

/** All that a page needs to look for a fault: the record, what the shop learnt before, what a way out would take. */
export const faultPage = record({
  kind: word(FAULT_SUBJECTS),
  subjectId: uuid(),
  ticketId: uuid(),
  title: words(),
  about: words(),
  at: instant(),
  /** Pieces that were made with it. */
  made: amount(),
  /** Other judged runs of the ticket: pieces, those that came out badly, how they looked. */
  others: list(record({ pieces: amount(), bad: amount(), faults: list(word(FAULTS)) })),
  /** Heights that were read over the part before it was fired, and what the focus was set to. */
  surface: orNull(
    record({
      readings: list(record({ xMm: amount(), yMm: amount(), heightMm: amount() })),
      focusMm: amount(),
    }),
  ),
  record: faultRecord,
  markWidthMm: amount(),
  markHeightMm: amount(),
  proposals: list(proposal),
  cases: list(faultCase),
  settled: list(settledCase),
  before: list(counted),
  work: orNull(pieceWork),
  /** Names of what a remedy would change; null where there is none. */
  recipe: orNull(record({ id: uuid(), number: amount(), air: orNull(word(SWITCH_STATES)), suspended: flag() })),
  compound: orNull(record({ id: uuid(), name: words(), airAssist: orNull(word(SWITCH_STATES)) })),
  container: orNull(record({ id: uuid(), name: words(), retired: flag() })),
});
export type FaultPage = Frozen<InferType<typeof faultPage>>;

export const faultCausesQuery = object({
  compoundId: optionalUuid(),
  substrateId: optionalUuid(),
  operatorId: optionalUuid(),
});
export type FaultCausesQuery = Frozen<InferType<typeof faultCausesQuery>>;

/** Causes that were found, the commonest first, and when: by calendar whiles from the first case to now. */
export const faultCauses = record({
  cases: amount(),
  open: amount(),
  by: word(CALENDAR_WHILES),
  whiles: list(record({ from: instant(), cases: amount() })),
  causes: list(
    record({
      cause: word(CAUSES),
      cases: amount(),
      newest: instant(),
      /** Cases in each while. */
      over: list(amount()),
      /** Of the newest of them. */
      faults: list(word(FAULTS)),
      subject: record({ kind: word(FAULT_SUBJECTS), id: uuid(), title: words() }),
    }),
  ),
});
export type FaultCauses = Frozen<InferType<typeof faultCauses>>;

/** What followed on a run: faults that were looked for, what was made anew of it, what it made anew, what its marks stood; and what a piece took. */
export const runStory = record({
  work: orNull(pieceWork),
  stood: list(lastingRow),
  cases: list(faultCase),
  reworks: list(rework),
  reworkOf: orNull(rework),
});
export type RunStory = Frozen<InferType<typeof runStory>>;
