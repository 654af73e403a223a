import {
  openBeforeRun,
  placeChecks,
  prepareChecks,
  stationLine,
  type OpenStation,
  type StationState,
  type SwitchState,
  type TicketFacts,
} from '@unto/core';
import type {
  AskedQuestion,
  Check,
  CompoundBody,
  Fitting,
  SubstrateBody,
  Ticket,
  TicketProgress,
} from '@unto/contract';
import { holdsUnder, isOther } from '../place/fittings.js';

/** What the station line of a ticket is told from. */
export interface StationFacts {
  readonly ticket: Pick<Ticket, 'pieces' | 'compoundId' | 'choiceReason' | 'headId' | 'lensId'>;
  readonly progress: TicketProgress;
  readonly checks: readonly Pick<Check, 'station' | 'kind' | 'code' | 'sequence'>[];
  readonly fitting: Fitting | null;
  /** What the shop asks at its stations, and whether it was answered. */
  readonly questions: readonly Pick<AskedQuestion, 'station' | 'text' | 'answered'>[];
  readonly substrate: Pick<SubstrateBody, 'family' | 'layer'>;
  readonly compound: Pick<CompoundBody, 'name' | 'airAssist'> | null;
  /** Name of the head that is fitted; used only where it is another than the planned one. */
  readonly fittedName: string;
}

/** State and word of the eight stations of a ticket at a moment, in their order. */
export function stationStates(facts: StationFacts, now: Date): StationState[] {
  return stationLine(ticketFacts(facts, now));
}

/** What stands in the way of firing some pieces of a ticket at a moment. */
export function openForRun(facts: StationFacts, pieces: number, now: Date, air: SwitchState | null): OpenStation[] {
  return openBeforeRun(ticketFacts(facts, now), pieces, air);
}

function ticketFacts(facts: StationFacts, now: Date): TicketFacts {
  const { ticket, progress, substrate, compound, fitting, questions } = facts;
  const asked = (station: string) => questions.filter((question) => question.station === station);
  const answered = (station: string) => asked(station).filter((question) => question.answered).length;
  const coated = ticket.compoundId !== null;
  const prepare = prepareChecks({ ...substrate, coated }).map(({ code }) => code);
  const place = placeChecks({ coated }).map(({ code }) => code);
  return {
    pieces: ticket.pieces,
    compoundName: compound?.name ?? null,
    choiceMade: coated || ticket.choiceReason !== '',
    prepareDone: ticked(facts, 'prepare', prepare) + answered('prepare'),
    prepareNeeded: prepare.length + asked('prepare').length,
    placeDone: ticked(facts, 'place', place) + answered('place'),
    placeNeeded: place.length + asked('place').length,
    airRule: compound?.airAssist ?? null,
    openQuestions: questions.filter((question) => !question.answered).map(({ station, text }) => ({ station, text })),
    otherHead: isOther(fitting, ticket) ? facts.fittedName : null,
    coatedPieces: progress.coatedPieces,
    unclockedPieces: progress.unclockedPieces,
    offBandPieces: progress.offBandPieces,
    stored: progress.storedPieces ? { pieces: progress.storedPieces, past: isPast(progress.storedUntil, now) } : null,
    dryingLeftS: progress.dryingUntil === null ? null : secondsLeft(progress.dryingUntil, now),
    dryingPieces: progress.dryingPieces,
    coupon: progress.coupon,
    recipe: progress.recipeNumber === null ? null : `recipe v${progress.recipeNumber}`,
    recipeSuspended: progress.recipeSuspended,
    recipeOffered: progress.recipeOffered === null ? null : `recipe v${progress.recipeOffered}`,
    markedPieces: progress.markedPieces,
    rejectedPieces: progress.rejectedPieces,
    runs: progress.runs,
    runsCleaned: progress.runsCleaned,
    runsJudged: progress.runsJudged,
    faults: progress.runsFaulty,
  };
}

/** How many of some checks of a station are ticked and still hold under what is fitted. */
function ticked({ checks, fitting }: StationFacts, station: string, codes: readonly string[]): number {
  const holds = (code: string) =>
    checks.some(
      (check) =>
        check.kind === 'check' && check.station === station && check.code === code && holdsUnder(check, fitting),
    );
  return codes.filter(holds).length;
}

function isPast(moment: string | null, now: Date): boolean {
  return moment !== null && now.getTime() > Date.parse(moment);
}

function secondsLeft(moment: string, now: Date): number {
  return Math.max(0, (Date.parse(moment) - now.getTime()) / 1000);
}
