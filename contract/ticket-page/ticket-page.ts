import { type InferType } from 'yup';
import { APPLICATIONS, STATION_STATES, STATIONS, YIELD_OF, type StationState } from '@unto/core';
import { coatPicture, coatReading, storedCoat, timer, weighing } from '../coat/index.js';
import { couponSummary, COUPON_STAGES, keptTestStep } from '../coupons/index.js';
import { figure } from '../evidence/index.js';
import { amount, describes, flag, instant, list, orNull, record, uuid, who, word, words } from '../fields/index.js';
import { fitting, placeReading, pointerReading, zeroReading } from '../place/index.js';
import { sheet } from '../prepare/index.js';
import { offeredRecipe, recipe } from '../recipes/index.js';
import type { Frozen } from '../routing/index.js';
import { artwork, layout } from '../artworks/index.js';
import { durabilityTest } from '../durability/index.js';
import { verdict } from '../verdicts/index.js';
import { marking } from '../markings/index.js';
import { rework } from '../faults/index.js';
import { askedQuestion } from '../questions/index.js';
import { ledgerRecord } from '../runs/index.js';
import { check, ticket } from '../tickets/index.js';

/** How far a ticket is, counted from what stands after corrections and rinsed-off coats. */
export const ticketProgress = record({
  coatedPieces: amount(),
  /** Of those not fired yet, those whose drying nobody clocked. */
  unclockedPieces: amount(),
  /** Of those not fired yet, those whose film lies outside its compound’s band. */
  offBandPieces: amount(),
  storedPieces: amount(),
  /** The earliest date of a stored coat; null where none is stored or none has a date. */
  storedUntil: orNull(instant()),
  /** When the last running drying timer has run its minimum; null when none runs. */
  dryingUntil: orNull(instant()),
  /** Pieces on trays that dry; null where none dries, or where a clock does not say how many it is of. */
  dryingPieces: orNull(amount()),
  coupon: word(['none', ...COUPON_STAGES]),
  /** Version of the recipe that it took into use last. */
  recipeNumber: orNull(amount()),
  recipeSuspended: flag(),
  /** Newest proved version of its pairing that it may take into use; null where it has one, or there is none. */
  recipeOffered: orNull(amount()),
  markedPieces: amount(),
  /** Of those, judged not good: they are to be made again. */
  rejectedPieces: amount(),
  runs: amount(),
  runsCleaned: amount(),
  runsJudged: amount(),
  runsFaulty: amount(),
});
export type TicketProgress = Frozen<InferType<typeof ticketProgress>>;

export const stationState = describes<StationState>()(
  record({ station: word(STATIONS), state: word(STATION_STATES), word: words() }),
);

/** A ticket with everything recorded on it. */
export const ticketPage = record({
  ticket,
  stations: list(stationState),
  progress: ticketProgress,
  checks: list(check),
  timers: list(timer),
  weighings: list(weighing),
  /** Oldest first. */
  coatReadings: list(coatReading),
  /** Pictures of coats, oldest first. */
  coatPictures: list(coatPicture),
  /** Coated pieces on the shelf and those taken up since, oldest first. */
  storedCoats: list(storedCoat),
  coupons: list(couponSummary),
  /** Tiny cells fired on the piece itself, oldest first. */
  testSteps: list(keptTestStep),
  /** Recipes that it took into use, the newest first; those of before it began anew are not among them. */
  recipes: list(recipe),
  /** The newest proved recipe of its pairing where it is another than the one in use. */
  offeredRecipe: orNull(offeredRecipe),
  runs: list(ledgerRecord),
  /** The run that is being counted; null while none is. */
  marking: orNull(marking),
  /** Newest first. */
  placeReadings: list(placeReading),
  /** What was fitted last to the machine this ticket is planned on; null where nobody ever changed anything. */
  fitting: orNull(fitting),
  /** The newest offset from pointer to beam of the head, on whatever ticket. */
  pointer: orNull(pointerReading),
  /** How the reference card lies in the machine under the head, as learnt last, on whatever ticket. */
  cardZero: orNull(zeroReading),
  /** Files of artwork that were brought, newest first. */
  artworks: list(artwork),
  /** Tests of what its marks stand, oldest first. */
  durability: list(durabilityTest),
  /** What was decided on its pieces, newest first. */
  verdicts: list(verdict),
  /** Pieces that are made anew, oldest first. */
  reworks: list(rework),
  /** What the shop asks at the stations of this ticket. */
  questions: list(askedQuestion),
  /** How its pieces are marked; null where nothing is laid out. */
  layout: orNull(layout),
  /** The newest layout of a sheet; null where none was kept. */
  sheet: orNull(sheet),
  /** Depth of focus of the lens as its newest dot hunt found it. */
  huntedDepth: orNull(figure()),
  /** Pieces judged before and how many came out good: of this pairing, or of the shop where the pairing is new. */
  yieldBefore: record({ good: amount(), made: amount(), of: word(YIELD_OF) }),
  /** Transfer efficiencies weighed with the chosen compound, how and by whom, newest first. */
  transferSamples: list(record({ value: amount(), application: word(APPLICATIONS), by: who() })),
  /** Mass applied and strokes counted for the chosen compound by whoever is asked for, newest first. */
  strokeSamples: list(record({ grams: amount(), strokes: amount() })),
  /** Contents of the containers of the chosen compound at their newest weighing, or as bought. */
  containersLeft: list(record({ containerId: uuid(), leftG: amount(), weighed: flag(), pieces: orNull(figure()) })),
});
export type TicketPage = Frozen<InferType<typeof ticketPage>>;
