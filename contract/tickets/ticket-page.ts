import type { Figure, StationState, YieldOf } from '@unto/core';
import type { Clock, CoatPicture, CoatReading, StoredCoat, Weighing } from '../coat/index.js';
import type { CouponSummary, KeptClimbStep } from '../coupons/index.js';
import type { Fitting, PlaceReading } from '../place/index.js';
import type { Sheet } from '../prepare/index.js';
import type { Recipe } from '../recipes/index.js';
import type { LedgerRecord } from '../runs/index.js';
import type { Check, Ticket } from './tickets.js';

/** A ticket with everything recorded on it. */
export interface TicketPage {
  readonly ticket: Ticket;
  readonly stations: readonly StationState[];
  readonly checks: readonly Check[];
  readonly clocks: readonly Clock[];
  readonly weighings: readonly Weighing[];
  /** Oldest first. */
  readonly coatReadings: readonly CoatReading[];
  /** Pictures of coats, oldest first. */
  readonly coatPictures: readonly CoatPicture[];
  /** Coated pieces on the shelf and those taken up since, oldest first. */
  readonly storedCoats: readonly StoredCoat[];
  readonly coupons: readonly CouponSummary[];
  /** Tiny cells fired on the piece itself, oldest first. */
  readonly climb: readonly KeptClimbStep[];
  readonly recipes: readonly Recipe[];
  readonly runs: readonly LedgerRecord[];
  /** Newest first. */
  readonly placeReadings: readonly PlaceReading[];
  /** What was fitted last to the machine this ticket is planned on; null where nobody ever changed anything. */
  readonly fitting: Fitting | null;
  /** The newest offset from pointer to beam of the head, on whatever ticket. */
  readonly pointer: PlaceReading<'pointer'> | null;
  /** The newest layout of a sheet; null where none was kept. */
  readonly sheet: Sheet | null;
  /** Depth of focus of the lens as its newest dot hunt found it. */
  readonly huntedDepth: Figure | null;
  /** Pieces judged before and how many came out good: of this pairing, or of the shop where the pairing is new. */
  readonly yieldBefore: { readonly good: number; readonly made: number; readonly of: YieldOf };
  /** Transfer efficiencies learnt for the chosen compound, newest first. */
  readonly transferSamples: readonly number[];
  /** Mass laid and strokes counted for the chosen compound by whoever is asked for, newest first. */
  readonly strokeSamples: readonly { readonly grams: number; readonly strokes: number }[];
  /** Contents of the containers of the chosen compound at their newest weighing, or as bought. */
  readonly containersLeft: readonly {
    readonly containerId: string;
    readonly leftG: number;
    readonly weighed: boolean;
  }[];
}
