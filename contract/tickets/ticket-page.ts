import type { Figure, StationState, YieldOf } from '@unto/core';
import type { CouponSummary } from '../coupons/index.js';
import type { PlaceReading } from '../place/index.js';
import type { Recipe } from '../recipes/index.js';
import type { LedgerRecord } from '../runs/index.js';
import type { Check, Clock, Ticket, Weighing } from './tickets.js';

/** A ticket with everything recorded on it. */
export interface TicketPage {
  readonly ticket: Ticket;
  readonly stations: readonly StationState[];
  readonly checks: readonly Check[];
  readonly clocks: readonly Clock[];
  readonly weighings: readonly Weighing[];
  readonly coupons: readonly CouponSummary[];
  readonly recipes: readonly Recipe[];
  readonly runs: readonly LedgerRecord[];
  /** Newest first. */
  readonly placeReadings: readonly PlaceReading[];
  /** Depth of focus of the lens as its newest dot hunt found it. */
  readonly huntedDepth: Figure | null;
  /** Pieces judged before and how many came out good: of this pairing, or of the shop where the pairing is new. */
  readonly yieldBefore: { readonly good: number; readonly made: number; readonly of: YieldOf };
  /** Transfer efficiencies learnt for the chosen compound, newest first. */
  readonly transferSamples: readonly number[];
}
