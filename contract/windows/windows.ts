import { object, type InferType } from 'yup';
import { OUTCOMES } from '@unto/core';
import {
  amount,
  flag,
  instant,
  list,
  optionalUuid,
  orNull,
  page,
  pageQuery,
  record,
  uuid,
  word,
  words,
} from '../fields/index.js';
import { pairingParts, recipe } from '../recipes/index.js';
import type { Frozen } from '../routing/index.js';
import { keptSetting } from '../setting/index.js';

/** A scrubbed cell, or a judged run, as a window takes it, with its whole setting. */
export const windowCell = record({
  /** The coupon it lies on; null for a run. */
  couponId: orNull(uuid()),
  /** The run that it speaks of; null for a cell of a coupon. */
  runId: orNull(uuid()),
  /** Its place on the coupon, from 0. */
  cell: amount(),
  ...keptSetting,
  powerPercent: amount(),
  powerW: amount(),
  speedMmPerS: amount(),
  intervalMm: amount(),
  /** Coats under it; null for a run, which does not say. */
  coats: orNull(amount()),
  outcome: word(OUTCOMES),
  /** Judged by eye, or taken against what the picture proposed. */
  byEye: flag(),
  /** Somebody looked once more, since it disagrees with the cells around. */
  lookedAgain: flag(),
  /** Share of its contrast that was left after the scrub, and the limit from which it holds; null where no pictures told. */
  kept: orNull(record({ share: amount(), limit: amount() })),
  /** Lot of the compound and whoever sprayed it, as far as that is known; none for a run. */
  seen: record({ lot: words().optional(), by: words().optional() }).optional(),
  /** What its picture after the scrub tells of the mark; null where none was read, or not of this cell. */
  measures: orNull(
    record({
      contrast: orNull(amount()),
      chroma: orNull(amount()),
      grain: orNull(amount()),
      edgeUm: orNull(amount()),
    }),
  ),
});

/** What a fit takes of a scrubbed cell. */
const fitCell = record({
  ...{ powerW: amount(), speedMmPerS: amount(), intervalMm: amount(), passes: amount(), hatches: amount() },
  ...{ angleDeg: amount(), focusOffsetMm: amount() },
  ...{ frequencyKHz: orNull(amount()), pulseNs: orNull(amount()) },
  outcome: word(OUTCOMES),
  byEye: flag(),
  lookedAgain: flag(),
  kept: orNull(record({ share: amount(), limit: amount() })),
});

/** Cells of the same compound on another substrate, head or lens, which teach this window something. */
export const teaching = record({
  name: words(),
  /** What heats alike: spot (1/e²) radius mm, W/(mm·K), mm²/s. */
  under: record({ radiusMm: amount(), conductivity: amount(), diffusivity: amount() }),
  /** What its cells did not vary; a window that differs in these learns nothing from it. */
  shared: record({ fill: keptSetting.fill, air: keptSetting.air, coats: amount() }),
  cells: list(fitCell),
});
export type Teaching = Frozen<InferType<typeof teaching>>;

/** What a window is fitted to: the scrubbed coupons of a pairing, the runs on it that speak of their setting, and its recipes. */
export const pairingWindow = record({
  coupons: list(
    record({
      id: uuid(),
      code: words(),
      version: amount(),
      burntAt: orNull(instant()),
      /** Fired on the revisions that would be marked on now. */
      sameRevisions: flag(),
      cells: amount(),
      /** How much it counts, 0 to 1, and why less than whole. */
      weight: amount(),
      why: words(),
      /** Lots that it was sprayed from, where that is known. */
      lot: words(),
      by: words(),
    }),
  ),
  runs: list(
    record({ id: uuid(), at: instant(), ticketTitle: words(), pieces: amount(), lost: amount(), weight: amount() }),
  ),
  cells: list(windowCell),
  /** What the shop knows of this compound elsewhere, most cells first. */
  teachings: list(teaching),
  /** Newest first. */
  recipes: list(recipe),
});
export type PairingWindow = Frozen<InferType<typeof pairingWindow>>;

/** A row of the list of windows. */
export const windowSummary = record({
  ...pairingParts,
  coupons: amount(),
  cells: amount(),
  holds: amount(),
  newestAt: instant(),
  /** The newest recipe that any ticket may take; null while there is none. */
  recipe: orNull(record({ id: uuid(), number: amount(), suspended: flag() })),
});
export type WindowSummary = Frozen<InferType<typeof windowSummary>>;
export const windowPage = page(windowSummary);

export const listWindowsQuery = object({ ...pageQuery });
export type ListWindowsQuery = Frozen<InferType<typeof listWindowsQuery>>;

export const windowQuery = object({
  substrateId: uuid().label('Substrate'),
  compoundId: optionalUuid(),
  headId: uuid().label('Head'),
  lensId: uuid().label('Lens'),
});
export type WindowQuery = Frozen<InferType<typeof windowQuery>>;
