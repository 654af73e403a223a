import type { WindowCell, WindowMap } from '@unto/core';
import type { ChartColours } from '../theme/colours';
import type { Axis, Units } from '../ui/useUnits';
import type { MapLevel } from './map-shown';
import type { ProposedBlock } from './proposed-block';

/** A setting to be marked on the map with its tolerance box. */
export interface MarkedSetting {
  readonly powerPercent: number;
  readonly speedMmPerS: number;
}

/** A block of cells that a next coupon would try. */
export type MarkedBlock = Pick<ProposedBlock, 'powersPercent' | 'speedsMmPerS'>;

/** What the window's chart is drawn from. */
export interface WindowInput {
  readonly map: WindowMap;
  /** Values at which its tint changes, rising. */
  readonly levels: readonly MapLevel[];
  readonly powersPercent: readonly number[];
  /** Watts at the part as the percentage that delivers them; null beyond the head. */
  readonly percentOf: (watts: number) => number | null;
  readonly wattsOf: (percent: number) => number;
  readonly cells: readonly (WindowCell & { readonly powerPercent: number; readonly odd?: boolean })[];
  readonly setting: MarkedSetting | null;
  readonly next: MarkedBlock | null;
  /** Line interval of the map, mm, and how often a place is passed: what makes a dose of power and speed. */
  readonly intervalMm: number;
  readonly passes: number;
  readonly powerShare: number;
  /** Heat index of one W at a speed: what tells lines of equal heat. */
  readonly heatOf: (speedMmPerS: number) => number;
  readonly colours: ChartColours;
  readonly units: Units;
}

/** Both axes as they read here, from the first of the map to the last. */
export interface Axes {
  readonly x: Axis & { readonly from: number; readonly to: number };
  readonly y: Axis & { readonly from: number; readonly to: number };
}
