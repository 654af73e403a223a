import type { Cause } from './causes.js';
import type { FaultKnowledge } from './learnt-faults.js';
import { causeChances, chanceFound, type FaultEvidence, type RankedCause } from './rank-causes.js';
import type { FaultRecord } from './fault-record.js';

/** A quick test: what it takes, what it finds, and what its two results are called. */
export interface FaultTest {
  readonly title: string;
  readonly how: string;
  readonly minutes: number;
  /** Blanks or scraps of the same metal that it uses up. */
  readonly blanks: number;
  /** Chance that it finds each cause where it is at work alone. Common practice, no source. */
  readonly finds: Partial<Record<Cause, number>>;
  /** Chance that it finds something where nothing is. */
  readonly falseAlarm: number;
  readonly found: string;
  readonly clear: string;
  /** Whether it can be made on this part at all. */
  readonly applies?: (record: FaultRecord) => boolean;
}

const coated = ({ coat }: FaultRecord) => coat !== null;
const fired = ({ setting }: FaultRecord) => setting !== null;
const metal = ({ part, setting }: FaultRecord) => part.metal && setting !== null;
const glass = ({ part }: FaultRecord) => part.vitreous;
const firedCoat = (record: FaultRecord) => coated(record) && fired(record);

/** Tests that tell causes apart, by key. Minutes and what they find are common practice, no source. */
export const FAULT_TESTS = {
  heights: {
    title: 'Read five heights',
    how: 'Lay the piece back in its jig, beam off. Read the height at five places across the fault, against the height the focus was set for.',
    minutes: 2,
    blanks: 0,
    finds: { 'warped or tilted': 0.9, 'out of focus': 0.45 },
    falseAlarm: 0.08,
    found: 'One or more outside the depth of focus',
    clear: 'All inside the depth of focus',
    applies: fired,
  },
  refocus: {
    title: 'Find the focus again',
    how: 'On a bare twin, beam off or on scrap: find the focus anew and compare it with what was set.',
    minutes: 4,
    blanks: 0,
    finds: { 'out of focus': 0.9 },
    falseAlarm: 0.07,
    found: 'It was set wrong by more than the depth of focus',
    clear: 'It was right',
    applies: fired,
  },
  nozzle: {
    title: 'See which way the air blows',
    how: 'Beam off. Look from which side nozzle and hood stand to the fault.',
    minutes: 1,
    blanks: 0,
    finds: { 'air blew the powder': 0.75, 'extraction pulled the powder': 0.55 },
    falseAlarm: 0.3,
    found: 'The fault lies on the side that is blown or drawn at',
    clear: 'It lies elsewhere',
    applies: firedCoat,
  },
  'air bars': {
    title: 'Two bars, air on and air off',
    how: 'On coated scrap, the same setting: one bar with the air as it was, one with it off. Wash and scrub both.',
    minutes: 14,
    blanks: 1,
    finds: { 'air blew the powder': 0.92 },
    falseAlarm: 0.05,
    found: 'Only the one with air shows the fault',
    clear: 'Both are alike',
    applies: (record) => firedCoat(record) && record.air !== 'off',
  },
  'hood bars': {
    title: 'Two bars, near the hood and away from it',
    how: 'On coated scrap, air off, extraction on for both: one bar close to the hood, one as far as the bed lets. Wash and scrub both.',
    minutes: 15,
    blanks: 1,
    finds: { 'extraction pulled the powder': 0.85 },
    falseAlarm: 0.06,
    found: 'Only the one near the hood shows it',
    clear: 'Both are alike',
    applies: firedCoat,
  },
  'second comb': {
    title: 'Weigh or comb a coat laid the same way',
    how: 'Coat one scrap as the piece was coated. Weigh it, or comb it while it is wet.',
    minutes: 8,
    blanks: 1,
    finds: { 'coat too thick': 0.8, 'coat too thin': 0.8 },
    falseAlarm: 0.1,
    found: 'Out of its band',
    clear: 'Within its band',
    applies: coated,
  },
  'coat picture': {
    title: 'Photograph a coat laid the same way',
    how: 'Coat one scrap as the piece was coated, and photograph it with the card, a lamp low at its side.',
    minutes: 9,
    blanks: 1,
    finds: { 'uneven spray': 0.8, 'lumps in the coat': 0.8 },
    falseAlarm: 0.1,
    found: 'Uneven, or lumps in it',
    clear: 'Even',
    applies: coated,
  },
  breath: {
    title: 'Breathe on it',
    how: 'Breathe on the bare ground beside the fault and look along it against the light.',
    minutes: 1,
    blanks: 0,
    finds: { 'touched or greasy': 0.7 },
    falseAlarm: 0.12,
    found: 'The mist breaks, or a finger shows',
    clear: 'An even mist',
  },
  acetone: {
    title: 'Acetone, and a hidden scratch',
    how: 'Rub a hidden edge with acetone on a rag, then scratch it. Gloves, air, no flame.',
    minutes: 3,
    blanks: 0,
    finds: { 'not bare metal': 0.9 },
    falseAlarm: 0.04,
    found: 'Colour on the rag, or another layer under the scratch',
    clear: 'Bare all through',
    applies: metal,
  },
  'slower bar': {
    title: 'A bar at half the speed',
    how: 'On coated scrap, everything else as it was. Wash and scrub.',
    minutes: 12,
    blanks: 1,
    finds: {
      'too little energy': 0.85,
      'too fast': 0.85,
      'weak beam': 0.75,
      'coat too thick': 0.35,
      'unsuitable alloy': 0.3,
    },
    falseAlarm: 0.08,
    found: 'It comes out well',
    clear: 'It is no better',
    applies: fired,
  },
  'gentler bar': {
    title: 'A bar at twice the speed',
    how: 'On scrap prepared the same way, everything else as it was. Wash and scrub.',
    minutes: 11,
    blanks: 1,
    finds: { 'too much energy': 0.88 },
    falseAlarm: 0.07,
    found: 'It comes out well',
    clear: 'It is no better',
    applies: fired,
  },
  'finer bar': {
    title: 'A bar with lines twice as close, twice as fast',
    how: 'On coated scrap: half the interval, twice the speed, so that the dose stays. Wash and scrub.',
    minutes: 12,
    blanks: 1,
    finds: { 'interval too wide': 0.88 },
    falseAlarm: 0.07,
    found: 'The grain is gone',
    clear: 'The grain stays',
    applies: fired,
  },
  'lens look': {
    title: 'Look through the lens',
    how: 'Machine off and locked. Take the lens out by its rim and hold it against a lamp.',
    minutes: 5,
    blanks: 0,
    finds: { 'weak beam': 0.6 },
    falseAlarm: 0.1,
    found: 'Haze, spots or a burn',
    clear: 'Clear',
    applies: fired,
  },
  meter: {
    title: 'Meter the power',
    how: 'Meter the head at two powers and compare it with its calibration. Enclosure shut; as the meter’s manual says.',
    minutes: 6,
    blanks: 0,
    finds: { 'weak beam': 0.92 },
    falseAlarm: 0.03,
    found: 'More than 8 % below its calibration',
    clear: 'As calibrated',
    applies: fired,
  },
  'other blank': {
    title: 'The same on a blank of another lot',
    how: 'Coat and mark one blank of another lot or supplier at the same setting. Wash and scrub.',
    minutes: 18,
    blanks: 1,
    finds: { 'unsuitable alloy': 0.85, 'not bare metal': 0.6 },
    falseAlarm: 0.07,
    found: 'It comes out well',
    clear: 'It is no better',
    applies: metal,
  },
  'other can': {
    title: 'The same from another can',
    how: 'Shake it its whole time. Coat and mark one scrap from another lot at the same setting. Wash and scrub.',
    minutes: 18,
    blanks: 1,
    finds: { 'compound off': 0.85, 'lumps in the coat': 0.5 },
    falseAlarm: 0.07,
    found: 'It comes out well',
    clear: 'It is no better',
    applies: coated,
  },
  'long dry': {
    title: 'One dried twice as long',
    how: 'Coat and mark one scrap that dried twice its time. Wash and scrub.',
    minutes: 25,
    blanks: 1,
    finds: { 'fired before it was dry': 0.88 },
    falseAlarm: 0.06,
    found: 'It comes out well',
    clear: 'It is no better',
    applies: firedCoat,
  },
  'cool one': {
    title: 'Let one cool by itself',
    how: 'Mark one scrap, leave it to cool for half an hour, then wash it.',
    minutes: 40,
    blanks: 1,
    finds: { 'washed while hot': 0.9 },
    falseAlarm: 0.08,
    found: 'It stays whole',
    clear: 'It cracks all the same',
    applies: glass,
  },
  'rinse again': {
    title: 'Rinse it once more',
    how: 'As the compound asks, with a fresh sponge.',
    minutes: 3,
    blanks: 0,
    finds: { 'rinsed too little': 0.92 },
    falseAlarm: 0.05,
    found: 'It comes off',
    clear: 'It stays',
    applies: firedCoat,
  },
  frame: {
    title: 'Frame it again',
    how: 'Lay the piece back in its jig and frame the mark with the pointer, beam off.',
    minutes: 2,
    blanks: 0,
    finds: { 'moved or misplaced': 0.85 },
    falseAlarm: 0.06,
    found: 'The frame lies beside the mark',
    clear: 'The frame lies on the mark',
    applies: fired,
  },
  'dark ground': {
    title: 'Hold the printed scale beside ground and mark',
    how: 'Count the steps between the ground and the best of the mark.',
    minutes: 1,
    blanks: 0,
    finds: { 'ground too near the mark': 0.85 },
    falseAlarm: 0.1,
    found: 'Two steps or fewer, and the mark itself is deep',
    clear: 'The mark itself is pale',
    applies: fired,
  },
} as const satisfies Record<string, FaultTest>;
export type FaultTestKey = keyof typeof FAULT_TESTS;
export const FAULT_TEST_KEYS = Object.keys(FAULT_TESTS) as FaultTestKey[];

/** How a test came out; what nobody could tell changes nothing. */
export const FAULT_TEST_RESULTS = ['found', 'clear', 'cannot tell', 'skipped'] as const;
export type FaultTestResult = (typeof FAULT_TEST_RESULTS)[number];

/** Results less likely than this beforehand are pointed out. */
export const SURPRISING = 0.08;

/** What a result would make of a cause. */
export interface TestOutcome {
  readonly result: 'found' | 'clear';
  /** Chance of that result, by what is known before. */
  readonly chance: number;
  /** The cause that gains most by it, what it had and what it would have. */
  readonly cause: Cause;
  readonly from: number;
  readonly to: number;
}

export interface TestOffer {
  readonly key: FaultTestKey;
  /** The likeliest cause, and the one that it is told from. */
  readonly apart: readonly [Cause, Cause];
  /** Bits that it tells of which of the two it was. */
  readonly tells: number;
  readonly outcomes: readonly [TestOutcome, TestOutcome];
}

const plogp = (p: number) => (p <= 0 ? 0 : -p * Math.log2(p));
const entropy = (a: number, b: number) => (a + b <= 0 ? 0 : plogp(a / (a + b)) + plogp(b / (a + b)));

/** A test that tells less than this of the best two is not worth its minutes, bits. */
const WORTH = 0.04;

/** Causes nearly as likely as the second are its equals: a quick test that rules one of them out goes first. */
const NEARLY_SECOND = 0.7;

/**
 * Tests that tell the likeliest cause from the next (or from one nearly as likely as that), the best first: bits told of which of the two it was
 * (mutual information: Shannon 1948) a minute, a blank counted as `blankMinutes` more. Tests already made are left out.
 * @param of.ranking of the evidence @param of.made keys of tests that have a result
 */
export function offerTests(
  evidence: FaultEvidence,
  knowledge: FaultKnowledge,
  of: {
    readonly ranking: readonly RankedCause[];
    readonly record: FaultRecord;
    readonly made: readonly FaultTestKey[];
    readonly blankMinutes?: number;
  },
): TestOffer[] {
  const [first, ...rest] = of.ranking.filter(({ cause }) => cause !== 'something else');
  const rivals = rest.filter(({ chance }) => chance >= NEARLY_SECOND * rest[0]!.chance).map(({ cause }) => cause);
  if (!first || !rivals.length) return [];
  const now = causeChances(evidence, knowledge);
  const offers = FAULT_TEST_KEYS.flatMap((key) => {
    const test: FaultTest = FAULT_TESTS[key];
    if (of.made.includes(key) || (test.applies && !test.applies(of.record))) return [];
    if (![first.cause, ...rivals].some((cause) => test.finds[cause])) return [];
    const found = chanceFound(evidence, test, knowledge);
    const after = (result: boolean) =>
      causeChances({ ...evidence, tests: [...(evidence.tests ?? []), { ...test, found: result }] }, knowledge);
    const [yes, no] = [after(true), after(false)];
    const told = rivals.map((rival) => toldApart([first.cause, rival], found, { now, yes, no }));
    const tells = Math.max(...told);
    if (tells < WORTH) return [];
    const outcomes = [outcomeOf('found', found, now, yes), outcomeOf('clear', 1 - found, now, no)] as const;
    return [{ key, apart: [first.cause, rivals[told.indexOf(tells)]!] as const, tells, outcomes }];
  });
  const blank = of.blankMinutes ?? 6;
  const cost = ({ key }: TestOffer) => FAULT_TESTS[key].minutes + blank * FAULT_TESTS[key].blanks + 1;
  return offers.sort((a, b) => b.tells / cost(b) - a.tells / cost(a));
}

/** Bits that a test tells of which of two causes it was. */
function toldApart(
  [a, b]: readonly [Cause, Cause],
  found: number,
  { now, yes, no }: Readonly<Record<'now' | 'yes' | 'no', ReadonlyMap<Cause, number>>>,
): number {
  const unsure = (chances: ReadonlyMap<Cause, number>) => entropy(chances.get(a) ?? 0, chances.get(b) ?? 0);
  return unsure(now) - found * unsure(yes) - (1 - found) * unsure(no);
}

function outcomeOf(
  result: TestOutcome['result'],
  chance: number,
  now: ReadonlyMap<Cause, number>,
  then: ReadonlyMap<Cause, number>,
): TestOutcome {
  const gain = (cause: Cause) => then.get(cause)! - now.get(cause)!;
  const cause = [...then.keys()].reduce((best, one) => (gain(one) > gain(best) ? one : best));
  return { result, chance, cause, from: now.get(cause)!, to: then.get(cause)! };
}
