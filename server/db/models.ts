import { DataTypes, type Model, type ModelAttributes, type ModelStatic, type Sequelize } from 'sequelize';
import type {
  ClimbOutcome,
  CoatHandling,
  CoatMapJudgement,
  CouponDesign,
  Figure,
  Grade,
  HeadChangeStep,
  LooksFinding,
  OutcomeRules,
  Stage,
  SwitchingPoint,
  Weights,
} from '@unto/core';
import type {
  Aim,
  BurnState,
  CouponPictureEntries,
  CreateReading,
  CoatEntriesOf,
  CoatReadingKind,
  FileType,
  FrozenFit,
  FrozenScore,
  Pins,
  PlaceEntriesOf,
  PlaceKind,
  PictureEntries,
  PlaceResultOf,
  SheetEntries,
  StoreBodyOf,
  StoreKind,
  WeighedPart,
} from '@unto/contract';

/** Rows as they stand in PostgreSQL, one type a table. */
export interface Rows {
  operators: { id: string; name: string; role: string; createdAt: Date };
  workshop: { id: number; version: number; body: Record<string, unknown> };
  creations: { id: string; resource: string; bodyHash: string };
  storeItems: { id: string; kind: StoreKind; version: number; retired: boolean; revisionId: string };
  storeRevisions: { id: string; itemId: string; number: number; body: StoreBodyOf[StoreKind]; at: Date; byId: string };
  tickets: {
    id: string;
    number: number;
    version: number;
    title: string;
    pieces: number;
    markWidthMm: number;
    markHeightMm: number;
    coatMarginMm: number;
    substrateId: string;
    headId: string;
    lensId: string;
    compoundId: string | null;
    choiceReason: string;
    aim: Aim;
    foodUse: boolean;
    wantedOn: string | null;
    note: string;
    state: 'open' | 'done';
    createdAt: Date;
    changedAt: Date;
    byId: string;
  };
  checks: { id: string; ticketId: string; station: string; kind: string; code: string; at: Date; byId: string };
  clocks: {
    id: string;
    ticketId: string;
    kind: string;
    label: string;
    minimumS: number;
    startedAt: Date;
    endedAt: Date | null;
    outcome: 'passed' | 'dropped' | null;
    byId: string;
  };
  weighings: {
    id: string;
    ticketId: string;
    containerId: string;
    containerRevisionId: string;
    compoundId: string;
    compoundRevisionId: string;
    pieces: number;
    beforeG: number;
    afterG: number;
    entered: Record<string, unknown>;
    film: Figure;
    transfer: Figure | null;
    transferValue: number | null;
    correctsId: string | null;
    strokes: number | null;
    afterPotLife: boolean;
    at: Date;
    byId: string;
  };
  coupons: {
    id: string;
    number: number;
    ticketId: string | null;
    substrateId: string;
    compoundId: string | null;
    headId: string;
    lensId: string;
    focusOffsetMm: number;
    design: CouponDesign;
    cells: number;
    pins: Pins;
    version: number;
    createdAt: Date;
    burntAt: Date | null;
    burntCells: readonly number[] | null;
    byId: string;
  };
  couponPictures: {
    id: string;
    couponId: string;
    stage: Stage;
    fileHash: string;
    entries: CouponPictureEntries;
    at: Date;
    byId: string;
  };
  burns: {
    id: string;
    couponId: string;
    attempt: number;
    state: BurnState;
    laserOn: 'M3' | 'M4';
    elapsedS: number;
    totalS: number;
    /** Cells done by earlier attempts and this one. */
    cellsDone: readonly number[];
    /** Those of the earlier attempts alone. */
    cellsBefore: readonly number[];
    cell: number | null;
    message: string;
    startedAt: Date;
    seenAt: Date;
    endedAt: Date | null;
    byId: string;
  };
  climbSteps: {
    id: string;
    ticketId: string;
    powerPercent: number;
    powerW: number;
    speedMmPerS: number;
    intervalMm: number;
    outcome: ClimbOutcome;
    note: string;
    pins: Pins;
    at: Date;
    byId: string;
  };
  readings: {
    id: string;
    couponId: string;
    stage: Stage;
    source: string;
    pictureId: string | null;
    rules: OutcomeRules | null;
    entries: CreateReading['entries'];
    sequence: number;
    at: Date;
    byId: string;
  };
  recipes: {
    id: string;
    ticketId: string;
    number: number;
    kind: string;
    couponIds: string[];
    powerPercent: number;
    speedMmPerS: number;
    intervalMm: number;
    passes: number;
    focusOffsetMm: number;
    seed: number;
    secondsPerPiece: number;
    fit: FrozenFit | null;
    worst: Figure | null;
    grade: Grade;
    pins: Pins;
    at: Date;
    byId: string;
  };
  runs: {
    id: string;
    ticketId: string;
    recipeId: string | null;
    correctsId: string | null;
    substrateId: string;
    compoundId: string | null;
    headId: string;
    pins: Pins;
    pieces: number;
    entered: Record<string, unknown>;
    powerPercent: number | null;
    powerW: number | null;
    speedMmPerS: number | null;
    intervalMm: number;
    passes: number;
    focusOffsetMm: number;
    air: string;
    minutes: number;
    note: string;
    dose: Figure | null;
    grade: Grade;
    at: Date;
    byId: string;
  };
  cleanings: { id: string; runId: string; method: string; minutes: number; residue: string; at: Date; byId: string };
  judgements: {
    id: string;
    runId: string;
    contrastStep: number;
    evenness: string;
    piecesGood: number;
    faults: string[];
    tests: { test: string; result: string }[];
    note: string;
    at: Date;
    byId: string;
  };
  statedSettings: {
    id: string;
    body: Record<string, unknown>;
    computed: Record<string, number | null>;
    at: Date;
    byId: string;
  };
  choices: {
    id: string;
    ticketId: string;
    optionId: string;
    method: string;
    compoundId: string | null;
    offLabel: boolean;
    profileId: string | null;
    weights: Weights;
    modelVersion: number;
    seed: number;
    scores: FrozenScore[];
    switching: SwitchingPoint[];
    reason: string;
    at: Date;
    byId: string;
  };
  identifications: {
    id: string;
    label: string;
    ticketId: string | null;
    blankId: string | null;
    words: Record<string, string>;
    weighed: WeighedPart | null;
    density: { value: number; error: number } | null;
    modelVersion: number;
    probabilities: { key: string; name: string; probability: number }[];
    guessKey: string;
    probability: number;
    grade: Grade;
    substrateId: string | null;
    at: Date;
    byId: string;
  };
  placeReadings: {
    id: string;
    ticketId: string;
    kind: PlaceKind;
    headId: string;
    lensId: string;
    entries: PlaceEntriesOf[PlaceKind];
    result: PlaceResultOf[PlaceKind];
    decision: string;
    note: string;
    at: Date;
    byId: string;
  };
  fittings: {
    id: string;
    machineId: string;
    headId: string;
    lensId: string;
    ticketId: string | null;
    work: 'mark' | 'cut';
    steps: HeadChangeStep[];
    at: Date;
    byId: string;
  };
  sheets: {
    id: string;
    ticketId: string;
    entries: SheetEntries;
    places: number;
    leftOut: number;
    used: number;
    at: Date;
    byId: string;
  };
  coatReadings: {
    id: string;
    ticketId: string;
    compoundId: string;
    compoundRevisionId: string;
    weighingId: string | null;
    kind: CoatReadingKind;
    entries: CoatEntriesOf[CoatReadingKind];
    film: Figure;
    findings: readonly LooksFinding[];
    note: string;
    at: Date;
    byId: string;
  };
  coatPictures: {
    id: string;
    ticketId: string;
    weighingId: string | null;
    entries: PictureEntries;
    judgement: CoatMapJudgement;
    decision: 'accepted' | 'touch up' | 'rinsed off';
    note: string;
    at: Date;
    byId: string;
  };
  storedCoats: {
    id: string;
    ticketId: string;
    compoundId: string;
    compoundRevisionId: string;
    pieces: number;
    place: string;
    note: string;
    handling: CoatHandling;
    storedAt: Date;
    keepUntil: Date | null;
    byId: string;
    endedAt: Date | null;
    outcome: 'taken up' | 'rinsed off' | null;
    endReason: string;
    endedById: string | null;
  };
  storedFiles: { id: string; hash: string; name: string; mediaType: FileType; bytes: number; at: Date; byId: string };
}

export type Models = { readonly [T in keyof Rows]: ModelStatic<Model<Rows[T], Partial<Rows[T]>>> };

const { UUID, TEXT, INTEGER, BIGINT, BOOLEAN, DOUBLE, JSONB, DATE, DATEONLY } = DataTypes;

/** Columns of each table beside its id. Nulls and defaults are the migrations’ business. */
const COLUMNS: Record<keyof Rows, Record<string, unknown>> = {
  operators: { name: TEXT, role: TEXT, createdAt: DATE },
  workshop: { version: INTEGER, body: JSONB },
  creations: { resource: TEXT, bodyHash: TEXT },
  storeItems: { kind: TEXT, version: INTEGER, retired: BOOLEAN, revisionId: UUID },
  storeRevisions: { itemId: UUID, number: INTEGER, body: JSONB, at: DATE, byId: UUID },
  tickets: {
    number: INTEGER,
    version: INTEGER,
    title: TEXT,
    pieces: INTEGER,
    markWidthMm: DOUBLE,
    markHeightMm: DOUBLE,
    coatMarginMm: DOUBLE,
    substrateId: UUID,
    headId: UUID,
    lensId: UUID,
    compoundId: UUID,
    choiceReason: TEXT,
    aim: JSONB,
    foodUse: BOOLEAN,
    wantedOn: DATEONLY,
    note: TEXT,
    state: TEXT,
    createdAt: DATE,
    changedAt: DATE,
    byId: UUID,
  },
  checks: { ticketId: UUID, station: TEXT, kind: TEXT, code: TEXT, at: DATE, byId: UUID },
  clocks: {
    ticketId: UUID,
    kind: TEXT,
    label: TEXT,
    minimumS: DOUBLE,
    startedAt: DATE,
    endedAt: DATE,
    outcome: TEXT,
    byId: UUID,
  },
  weighings: {
    ticketId: UUID,
    containerId: UUID,
    containerRevisionId: UUID,
    compoundId: UUID,
    compoundRevisionId: UUID,
    pieces: INTEGER,
    beforeG: DOUBLE,
    afterG: DOUBLE,
    entered: JSONB,
    film: JSONB,
    transfer: JSONB,
    transferValue: DOUBLE,
    correctsId: UUID,
    strokes: INTEGER,
    afterPotLife: BOOLEAN,
    at: DATE,
    byId: UUID,
  },
  coupons: {
    number: INTEGER,
    ticketId: UUID,
    substrateId: UUID,
    compoundId: UUID,
    headId: UUID,
    lensId: UUID,
    focusOffsetMm: DOUBLE,
    design: JSONB,
    cells: INTEGER,
    pins: JSONB,
    version: INTEGER,
    createdAt: DATE,
    burntAt: DATE,
    burntCells: JSONB,
    byId: UUID,
  },
  couponPictures: { couponId: UUID, stage: TEXT, fileHash: TEXT, entries: JSONB, at: DATE, byId: UUID },
  burns: {
    couponId: UUID,
    attempt: INTEGER,
    state: TEXT,
    laserOn: TEXT,
    elapsedS: DOUBLE,
    totalS: DOUBLE,
    cellsDone: JSONB,
    cellsBefore: JSONB,
    cell: INTEGER,
    message: TEXT,
    startedAt: DATE,
    seenAt: DATE,
    endedAt: DATE,
    byId: UUID,
  },
  climbSteps: {
    ticketId: UUID,
    powerPercent: DOUBLE,
    powerW: DOUBLE,
    speedMmPerS: DOUBLE,
    intervalMm: DOUBLE,
    outcome: TEXT,
    note: TEXT,
    pins: JSONB,
    at: DATE,
    byId: UUID,
  },
  readings: {
    couponId: UUID,
    stage: TEXT,
    source: TEXT,
    pictureId: UUID,
    rules: JSONB,
    entries: JSONB,
    sequence: BIGINT,
    at: DATE,
    byId: UUID,
  },
  recipes: {
    ticketId: UUID,
    number: INTEGER,
    kind: TEXT,
    couponIds: JSONB,
    powerPercent: DOUBLE,
    speedMmPerS: DOUBLE,
    intervalMm: DOUBLE,
    passes: INTEGER,
    focusOffsetMm: DOUBLE,
    seed: BIGINT,
    secondsPerPiece: DOUBLE,
    fit: JSONB,
    worst: JSONB,
    grade: TEXT,
    pins: JSONB,
    at: DATE,
    byId: UUID,
  },
  runs: {
    ticketId: UUID,
    recipeId: UUID,
    correctsId: UUID,
    substrateId: UUID,
    compoundId: UUID,
    headId: UUID,
    pins: JSONB,
    pieces: INTEGER,
    entered: JSONB,
    powerPercent: DOUBLE,
    powerW: DOUBLE,
    speedMmPerS: DOUBLE,
    intervalMm: DOUBLE,
    passes: INTEGER,
    focusOffsetMm: DOUBLE,
    air: TEXT,
    minutes: DOUBLE,
    note: TEXT,
    dose: JSONB,
    grade: TEXT,
    at: DATE,
    byId: UUID,
  },
  cleanings: { runId: UUID, method: TEXT, minutes: DOUBLE, residue: TEXT, at: DATE, byId: UUID },
  judgements: {
    runId: UUID,
    contrastStep: INTEGER,
    evenness: TEXT,
    piecesGood: INTEGER,
    faults: JSONB,
    tests: JSONB,
    note: TEXT,
    at: DATE,
    byId: UUID,
  },
  statedSettings: { body: JSONB, computed: JSONB, at: DATE, byId: UUID },
  choices: {
    ticketId: UUID,
    optionId: TEXT,
    method: TEXT,
    compoundId: UUID,
    offLabel: BOOLEAN,
    profileId: UUID,
    weights: JSONB,
    modelVersion: INTEGER,
    seed: BIGINT,
    scores: JSONB,
    switching: JSONB,
    reason: TEXT,
    at: DATE,
    byId: UUID,
  },
  identifications: {
    label: TEXT,
    ticketId: UUID,
    blankId: UUID,
    words: JSONB,
    weighed: JSONB,
    density: JSONB,
    modelVersion: INTEGER,
    probabilities: JSONB,
    guessKey: TEXT,
    probability: DOUBLE,
    grade: TEXT,
    substrateId: UUID,
    at: DATE,
    byId: UUID,
  },
  placeReadings: {
    ticketId: UUID,
    kind: TEXT,
    headId: UUID,
    lensId: UUID,
    entries: JSONB,
    result: JSONB,
    decision: TEXT,
    note: TEXT,
    at: DATE,
    byId: UUID,
  },
  fittings: {
    machineId: UUID,
    headId: UUID,
    lensId: UUID,
    ticketId: UUID,
    work: TEXT,
    steps: JSONB,
    at: DATE,
    byId: UUID,
  },
  sheets: { ticketId: UUID, entries: JSONB, places: INTEGER, leftOut: INTEGER, used: DOUBLE, at: DATE, byId: UUID },
  coatReadings: {
    ticketId: UUID,
    compoundId: UUID,
    compoundRevisionId: UUID,
    weighingId: UUID,
    kind: TEXT,
    entries: JSONB,
    film: JSONB,
    findings: JSONB,
    note: TEXT,
    at: DATE,
    byId: UUID,
  },
  coatPictures: {
    ticketId: UUID,
    weighingId: UUID,
    entries: JSONB,
    judgement: JSONB,
    decision: TEXT,
    note: TEXT,
    at: DATE,
    byId: UUID,
  },
  storedCoats: {
    ticketId: UUID,
    compoundId: UUID,
    compoundRevisionId: UUID,
    pieces: INTEGER,
    place: TEXT,
    note: TEXT,
    handling: TEXT,
    storedAt: DATE,
    keepUntil: DATE,
    byId: UUID,
    endedAt: DATE,
    outcome: TEXT,
    endReason: TEXT,
    endedById: UUID,
  },
  storedFiles: { hash: TEXT, name: TEXT, mediaType: TEXT, bytes: INTEGER, at: DATE, byId: UUID },
};

/** Sequelize models of all tables. Migrations own the schema; nothing here creates a table. */
export function defineModels(sequelize: Sequelize): Models {
  const models: Record<string, unknown> = {};
  for (const [table, columns] of Object.entries(COLUMNS)) {
    const id = { type: table === 'workshop' ? INTEGER : UUID, primaryKey: true };
    const attributes = Object.fromEntries(Object.entries(columns).map(([name, type]) => [name, { type }]));
    models[table] = sequelize.define(table, { id, ...attributes } as ModelAttributes, { tableName: snake(table) });
  }
  return models as Models;
}

function snake(text: string): string {
  return text.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);
}
