import { type InferType } from 'yup';
import { MASS_UNITS, type MassUnit } from '@unto/core';
import { amount, flag, instant, oneOf, record, shape, uuid, whole, word } from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

/** One look at a scale's display. */
export interface ScaleReading {
  readonly value: number;
  readonly unit: MassUnit;
  /** The scale itself says that it has settled. */
  readonly stable: boolean;
}

/** A bench scale. @throws when it cannot be reached */
export interface Scale {
  /** What its display shows now. */
  weigh(): Promise<ScaleReading>;
}

export const weighOnScale = shape({
  ticketId: uuid().label('Ticket'),
  containerId: uuid().label('Container'),
  what: oneOf('What is weighed', ['container', 'parts'] as const),
  moment: oneOf('When', ['before', 'after'] as const),
  pieces: whole('Pieces', 1, 100_000),
});
export type WeighOnScale = Frozen<InferType<typeof weighOnScale>>;

/** A settled weight. */
export const scaleAnswer = record({ value: amount(), unit: word(MASS_UNITS), at: instant() });
export type ScaleAnswer = Frozen<InferType<typeof scaleAnswer>>;

/** Devices that this server is tied to. */
export const deviceList = record({ scale: flag(), camera: flag(), controller: flag() });
export type DeviceList = Frozen<InferType<typeof deviceList>>;
