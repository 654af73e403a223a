import { type InferType } from 'yup';
import { SWITCH_STATES } from '@unto/core';
import {
  amount,
  instant,
  list,
  oneOf,
  optionalNumber,
  optionalOneOf,
  orNull,
  record,
  shape,
  uuid,
  who,
  whole,
  word,
  words,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

/** A program to be run. */
export interface Program {
  /** Told back in every state, so that a program is known from another. */
  readonly name: string;
  readonly gcode: string;
}

export const CONTROLLER_STATES = ['idle', 'running', 'paused', 'waiting', 'stopped', 'done'] as const;

/** How far a controller is with its program. */
export interface ControllerState {
  /** Name of the program; empty while none was sent since it was switched on. */
  readonly program: string;
  readonly state: (typeof CONTROLLER_STATES)[number];
  readonly elapsedS: number;
  readonly totalS: number;
  /** Cells of a coupon or pieces of a run, as the program names them less one, burnt whole. */
  readonly cellsDone: readonly number[];
  /** The one it is at; null between them. */
  readonly cell: number | null;
  /** What the program asks for while it waits. */
  readonly message: string;
  /** Whether air assist and extraction run; null where the controller cannot tell. */
  readonly air: boolean | null;
  readonly extraction: boolean | null;
}

/** A controller of a head. @throws when it cannot be reached */
export interface Controller {
  /** Begins a program. @throws DeviceRefusal when the controller says that it will not */
  send(program: Program): Promise<ControllerState>;
  state(): Promise<ControllerState>;
  pause(): Promise<ControllerState>;
  resume(): Promise<ControllerState>;
  /** Ends the program, beam off. */
  stop(): Promise<ControllerState>;
}

export const CONTROLLER_ACTIONS = ['pause', 'resume', 'stop'] as const;
export type ControllerAction = (typeof CONTROLLER_ACTIONS)[number];

/** Sends a coupon's program; cells already burnt are left out where a run broke off. */
export const startBurn = shape({
  id: uuid().label('id'),
  version: whole('Version', 1, 1e9),
  laserOn: oneOf('Laser on', ['M3', 'M4'] as const),
  air: optionalOneOf('Air assist', SWITCH_STATES),
  extraction: optionalOneOf('Extraction', SWITCH_STATES),
});
export type StartBurn = Frozen<InferType<typeof startBurn>>;
export const actOnBurn = shape({ action: oneOf('Action', CONTROLLER_ACTIONS) });
export type ActOnBurn = Frozen<InferType<typeof actOnBurn>>;

/** What somebody found who looked at the machine: nothing, some or every cell burnt; or that its other cells are to be burnt. */
export const SETTLEMENTS = ['nothing', 'partly', 'whole', 'resume'] as const;
export const settleBurn = shape({
  as: oneOf('As', SETTLEMENTS),
  /** Cells found burnt whole, counted in the order of burning; null where the controller told which. */
  seen: optionalNumber('Cells burnt whole').integer('Cells burnt whole must be a whole number.'),
});
export type SettleBurn = Frozen<InferType<typeof settleBurn>>;

/**
 * queued: kept, nothing sent. sending: given to the controller, no word of it yet. running, paused, waiting: as the controller says.
 * silent: it does not answer, and is asked again. unknown: nobody can know but who looks at the machine. stopped: broken off, beam
 * off. Ended for good: not sent (nothing left this server), nothing (nothing was burnt), partly, done.
 */
export const BURN_STATES = [
  'queued',
  'sending',
  'running',
  'paused',
  'waiting',
  'silent',
  'unknown',
  'stopped',
  'not sent',
  'nothing',
  'partly',
  'done',
] as const;
export type BurnState = (typeof BURN_STATES)[number];

/** The controller may still have something to do, or may yet be given it. */
export const BURN_LIVE: readonly BurnState[] = ['queued', 'sending', 'running', 'paused', 'waiting', 'silent'];
/** Broken off: somebody says what is to become of it. */
export const BURN_BROKEN_OFF: readonly BurnState[] = ['silent', 'unknown', 'stopped'];
/** It ended, and the coupon is as it was. */
export const BURN_UNFIRED: readonly BurnState[] = ['not sent', 'nothing'];

/** Sends a counted run: the pieces of it that are to go, as many as the jig holds. */
export const startRunBurn = shape({ id: uuid().label('id') });
export type StartRunBurn = Frozen<InferType<typeof startRunBurn>>;

/** A program's run as kept, of a coupon's cells (from 0) or of a ticket's pieces (less one). */
export const burn = record({
  id: uuid(),
  state: word(BURN_STATES),
  /** Which it was sent for; null for every cell of a coupon. */
  parts: orNull(list(amount())),
  elapsedS: amount(),
  totalS: amount(),
  cellsDone: list(amount()),
  /** Cells burnt in part as it broke off: they are read as nothing. */
  cellsCut: list(amount()),
  cell: orNull(amount()),
  message: words(),
  /** What is asked of the controller and not answered yet. */
  asked: orNull(word(CONTROLLER_ACTIONS)),
  /** Why it was not sent, or what was not answered; empty for nothing. */
  fault: words(),
  startedAt: instant(),
  seenAt: instant(),
  endedAt: orNull(instant()),
  by: who(),
});
export type Burn = Frozen<InferType<typeof burn>>;
