import { STATIONS, type Station } from '../cautions/cautions-for.js';
import type { SwitchState } from '../setting/mark-setting.js';

/** What is known of a ticket's progress, counted from its records. */
export interface TicketFacts {
  readonly pieces: number;
  readonly compoundName: string | null;
  readonly choiceMade: boolean;
  readonly prepareDone: number;
  readonly prepareNeeded: number;
  readonly placeDone: number;
  readonly placeNeeded: number;
  /** How the air is to stand over its compound; null where the shop has no rule. */
  readonly airRule: SwitchState | null;
  /** What the shop asks at a station since something went wrong, and nobody answered yet. */
  readonly openQuestions: readonly { readonly station: Station; readonly text: string }[];
  /** Name of another head (or the same with another lens) that stands on the machine; null when the planned one does, or nobody said. */
  readonly otherHead: string | null;
  readonly coatedPieces: number;
  /** Of those not fired yet, those whose drying nobody clocked. */
  readonly unclockedPieces: number;
  /** Of those not fired yet, those whose film lies outside its compound's band. */
  readonly offBandPieces: number;
  /** Coated pieces that lie on the shelf, and whether any are past their date; null when none do. */
  readonly stored: { readonly pieces: number; readonly past: boolean } | null;
  /** Seconds until the last running drying clock has run its minimum; 0 when it has; null when none runs. */
  readonly dryingLeftS: number | null;
  /** Pieces on trays that dry; null where a clock does not say how many it is of: then all count as wet. */
  readonly dryingPieces: number | null;
  readonly coupon: 'none' | 'designed' | 'burnt' | 'rinsed' | 'scrubbed';
  /** The recipe that it took into use, by its version. */
  readonly recipe: string | null;
  /** That recipe drifted: it waits for a check coupon. */
  readonly recipeSuspended: boolean;
  /** A proved recipe of its pairing that it may take into use. */
  readonly recipeOffered: string | null;
  readonly markedPieces: number;
  /** Of those, judged not good. */
  readonly rejectedPieces: number;
  readonly runs: number;
  readonly runsCleaned: number;
  readonly runsJudged: number;
  readonly faults: number;
}

export const STATION_STATES = ['open', 'running', 'done', 'attention'] as const;

export interface StationState {
  readonly station: Station;
  readonly state: (typeof STATION_STATES)[number];
  /** A few words below the name. */
  readonly word: string;
}

const COUPON_WORDS = {
  none: 'no coupon yet',
  designed: 'coupon to burn',
  burnt: 'coupon to rinse',
  rinsed: 'coupon to scrub',
  scrubbed: 'setting to take',
} as const;

/** State and word of the eight stations, in their order. */
export function stationLine(facts: TicketFacts): StationState[] {
  const of: Record<Station, Omit<StationState, 'station'>> = {
    choose: facts.choiceMade
      ? { state: 'done', word: facts.compoundName ?? 'no compound' }
      : { state: 'open', word: 'to choose' },
    prepare: counted(facts.prepareDone, facts.prepareNeeded, 'bare, clean, dry'),
    coat: coatState(facts),
    place:
      facts.otherHead === null
        ? counted(facts.placeDone, facts.placeNeeded, 'in focus')
        : { state: 'attention', word: 'head to change' },
    prove: proveState(facts),
    mark: markState(facts),
    clean: afterRuns(facts.runsCleaned, facts, 'to clean', 'cleaned'),
    judge:
      facts.faults > 0
        ? { state: 'attention', word: 'faults seen' }
        : afterRuns(facts.runsJudged, facts, 'to judge', 'judged'),
  };
  return STATIONS.map((station) => ({ station, ...of[station] }));
}

/** The station at which the ticket waits for somebody; null when all is done. A mark goes on only once the rest before it is done. */
export function nextStation(line: readonly StationState[]): Station | null {
  const waits = line.filter(({ state }) => state !== 'done');
  const urgent = waits.find(({ station, state }) => state === 'attention' && station !== 'judge');
  return (urgent ?? waits[0])?.station ?? null;
}

function proveState({ recipe, recipeSuspended, recipeOffered, coupon }: TicketFacts): Omit<StationState, 'station'> {
  if (recipe)
    return recipeSuspended ? { state: 'attention', word: `${recipe} suspended` } : { state: 'done', word: recipe };
  if (recipeOffered && coupon === 'none') return { state: 'open', word: `${recipeOffered} to take` };
  const waits = coupon === 'rinsed' || coupon === 'scrubbed';
  return { state: waits ? 'attention' : 'open', word: COUPON_WORDS[coupon] };
}

function counted(done: number, needed: number, word: string): Omit<StationState, 'station'> {
  return done >= needed ? { state: 'done', word } : { state: 'open', word: `${done} of ${needed} checked` };
}

function coatState(facts: TicketFacts): Omit<StationState, 'station'> {
  if (facts.choiceMade && facts.compoundName === null) return { state: 'done', word: 'none needed' };
  if (facts.dryingLeftS === 0) return { state: 'attention', word: 'look for gloss' };
  if (facts.dryingLeftS !== null) return { state: 'running', word: 'drying' };
  if (facts.stored)
    return facts.stored.past
      ? { state: 'attention', word: `${facts.stored.pieces} past date` }
      : { state: 'running', word: `${facts.stored.pieces} stored` };
  if (facts.compoundName !== null && facts.markedPieces > facts.coatedPieces)
    return { state: 'attention', word: `${facts.markedPieces - facts.coatedPieces} marked uncoated` };
  if (facts.unclockedPieces) return { state: 'attention', word: `${facts.unclockedPieces} not clocked` };
  if (facts.offBandPieces) return { state: 'attention', word: `${facts.offBandPieces} out of band` };
  const again = facts.pieces + facts.rejectedPieces - facts.coatedPieces;
  if (again <= 0) return { state: 'done', word: 'dry' };
  if (again <= facts.rejectedPieces) return { state: 'open', word: `${again} to coat again` };
  return { state: 'open', word: facts.coatedPieces ? `${facts.coatedPieces} of ${facts.pieces}` : 'to coat' };
}

/** Pieces that still have to be marked: those that came out not good are made again. */
export function piecesLeft({
  pieces,
  markedPieces,
  rejectedPieces,
}: Pick<TicketFacts, 'pieces' | 'markedPieces' | 'rejectedPieces'>): number {
  return Math.max(0, pieces - markedPieces + rejectedPieces);
}

/** Coated pieces that neither were fired nor lie on the shelf. */
export function piecesReady(facts: { coatedPieces: number; markedPieces: number; storedPieces: number }): number {
  return Math.max(0, facts.coatedPieces - facts.markedPieces - facts.storedPieces);
}

function markState(facts: TicketFacts): Omit<StationState, 'station'> {
  const standing = facts.markedPieces - facts.rejectedPieces;
  const word = `${standing} of ${facts.pieces}`;
  if (standing > facts.pieces) return { state: 'attention', word };
  return { state: piecesLeft(facts) === 0 ? 'done' : facts.markedPieces > 0 ? 'running' : 'open', word };
}

/** What stands in the way of a run: what cannot be, and what passes only under a reason. */
export interface OpenStation {
  readonly station: Station;
  readonly word: string;
  /** Never passes, whatever reason is given. */
  readonly never: boolean;
}

/**
 * The stations that stand open before some pieces are fired, with the air as it is set. A wet coat (of a tray that dries, that tray), more pieces than are coated or than the ticket has never
 * pass; what nobody checked, clocked or proved passes under a reason.
 */
export function openBeforeRun(facts: TicketFacts, pieces: number, air: SwitchState | null = null): OpenStation[] {
  const line = stationLine(facts);
  const open: OpenStation[] = line
    .filter(({ station, state }) => ['choose', 'prepare', 'place', 'prove'].includes(station) && state !== 'done')
    .map(({ station, word }) => ({
      station,
      word: station === 'prove' && !facts.recipe ? 'no setting taken' : word,
      never: false,
    }));
  const asked = facts.openQuestions.filter(({ station }) => ASKED_BEFORE_RUN.includes(station));
  open.push(...asked.map(({ station, text }) => ({ station, word: `not answered: ${text}`, never: false })));
  if (facts.airRule !== null && air !== null && air !== facts.airRule)
    open.push({ station: 'mark', word: `${facts.compoundName} wants the air ${facts.airRule}`, never: false });
  const left = piecesLeft(facts);
  if (pieces > left)
    open.push({ station: 'mark', word: `${left} pieces of the ticket are left, ${pieces} asked`, never: true });
  if (facts.dryingLeftS !== null && facts.dryingPieces === null)
    open.push({ station: 'coat', word: 'it still dries. Never fire a wet coat', never: true });
  else if (facts.compoundName !== null) open.push(...coatBeforeRun(facts, pieces));
  return open;
}

/** Stations whose questions are asked before the beam; those of Prepare and Place count among their checks. */
const ASKED_BEFORE_RUN: readonly Station[] = ['choose', 'coat', 'prove', 'mark'];

function coatBeforeRun(facts: TicketFacts, pieces: number): OpenStation[] {
  const coat = (word: string, never: boolean): OpenStation => ({ station: 'coat', word, never });
  const stored = facts.stored?.pieces ?? 0;
  const wet = facts.dryingLeftS === null ? 0 : (facts.dryingPieces ?? 0);
  const ready = Math.max(0, piecesReady({ ...facts, storedPieces: stored }) - wet);
  const unclocked = Math.max(0, facts.unclockedPieces - wet);
  const shelf = stored ? `; ${stored} lie stored: look whether they are dry and untouched, and take them up` : '';
  const drying = wet ? `; ${wet} still dry. Never fire a wet coat` : '';
  if (pieces > ready) return [coat(`${ready} coated pieces are ready, ${pieces} asked${drying}${shelf}`, true)];
  return [
    ...(unclocked ? [coat(`drying of ${unclocked} not clocked`, false)] : []),
    ...(facts.offBandPieces ? [coat(`film of ${facts.offBandPieces} out of band`, false)] : []),
  ];
}

function afterRuns(
  done: number,
  { runs }: TicketFacts,
  waiting: string,
  finished: string,
): Omit<StationState, 'station'> {
  if (runs === 0) return { state: 'open', word: 'nothing run yet' };
  return done >= runs ? { state: 'done', word: finished } : { state: 'attention', word: `${runs - done} ${waiting}` };
}
