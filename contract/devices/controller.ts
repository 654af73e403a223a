import { object, type InferType } from 'yup';
import {
  SWITCH_STATES,
  type CalibrationRow,
  type SubstrateFamily,
  type SurfaceLayer,
  type WavelengthClass,
} from '@unto/core';
import {
  amount,
  instant,
  list,
  oneOf,
  optionalOneOf,
  orNull,
  record,
  uuid,
  who,
  whole,
  word,
  words,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

/** A part of a blank that was sprayed like no other: by its left and right edge, mm. */
export interface SprayedBlock {
  readonly fromMm: number;
  readonly toMm: number;
  /** Name of the compound; empty where nothing was sprayed. */
  readonly compound: string;
  readonly coats: number;
  /** Dries to loose powder, which air carries away. */
  readonly powder: boolean;
}

/** What lies under the head. A real controller needs none of it; the simulator burns it. */
export interface BurnSetup {
  /** Names the blank: the same name is the same blank. */
  readonly key: string;
  readonly blank: { readonly widthMm: number; readonly heightMm: number };
  readonly blocks: readonly SprayedBlock[];
  /** The coat it was sprayed with: the ticket's, as a scale may have weighed it; empty for none. */
  readonly batch: string;
  /** Focus above the surface as the head was set, mm. */
  readonly focusMm: number;
  readonly family: SubstrateFamily;
  readonly layer: SurfaceLayer;
  readonly ground: 'light' | 'dark' | 'clear';
  readonly conductivity: number;
  readonly diffusivity: number;
  readonly beam: WavelengthClass;
  readonly ratedW: number;
  readonly firingThresholdPercent: number;
  readonly calibration: readonly CalibrationRow[] | null;
  /** Radius of the spot (1/e²), mm. */
  readonly radiusMm: number;
  readonly rayleighMm: number;
  readonly accelerationMmPerS2: number;
  readonly rapidMmPerS: number;
  readonly fullScaleS: number;
}

/** A program to be run, G-code. */
export interface ControllerJob {
  readonly id: string;
  readonly program: string;
  readonly setup: BurnSetup;
}

export const JOB_STATES = ['idle', 'running', 'paused', 'waiting', 'stopped', 'done'] as const;
export type JobState = (typeof JOB_STATES)[number];

/** How far a controller is with its program. */
export interface ControllerReport {
  /** Empty while nothing was sent. */
  readonly id: string;
  readonly state: JobState;
  readonly elapsedS: number;
  readonly totalS: number;
  /** Cells (counted from 0) burnt whole. */
  readonly cellsDone: readonly number[];
  /** The cell it is at; null between cells. */
  readonly cell: number | null;
  /** What the program asks for while it waits. */
  readonly message: string;
}

/** A controller of a head. @throws when it cannot be reached */
export interface Controller {
  send(job: ControllerJob): Promise<ControllerReport>;
  report(): Promise<ControllerReport>;
  act(action: ControllerAction): Promise<ControllerReport>;
}

export const CONTROLLER_ACTIONS = ['pause', 'resume', 'stop'] as const;
export type ControllerAction = (typeof CONTROLLER_ACTIONS)[number];

/** Sends a coupon's program; cells already burnt are left out where a run broke off. */
export const startBurn = object({
  id: uuid().label('id'),
  version: whole('Version', 1, 1e9),
  laserOn: oneOf('Laser on', ['M3', 'M4'] as const),
  air: optionalOneOf('Air assist', SWITCH_STATES),
  extraction: optionalOneOf('Extraction', SWITCH_STATES),
}).noUnknown();
export type StartBurn = Frozen<InferType<typeof startBurn>>;
export const actOnBurn = object({ action: oneOf('Action', CONTROLLER_ACTIONS) }).noUnknown();
export const settleBurn = object({
  as: oneOf('As', ['partly', 'resume'] as const),
}).noUnknown();

export const BURN_STATES = ['running', 'paused', 'waiting', 'dropped', 'stopped', 'partly', 'done'] as const;
export type BurnState = (typeof BURN_STATES)[number];

/** A run of a coupon's program as kept. */
export const burn = record({
  id: uuid(),
  state: word(BURN_STATES),
  elapsedS: amount(),
  totalS: amount(),
  cellsDone: list(amount()),
  cell: orNull(amount()),
  message: words(),
  startedAt: instant(),
  endedAt: orNull(instant()),
  by: who(),
});
export type Burn = Frozen<InferType<typeof burn>>;
export type ActOnBurn = Frozen<InferType<typeof actOnBurn>>;
export type SettleBurn = Frozen<InferType<typeof settleBurn>>;
