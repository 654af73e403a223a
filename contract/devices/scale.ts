import { object, type InferType } from 'yup';
import type { MassUnit } from '@unto/core';
import { oneOf, uuid, whole } from '../fields/index.js';

/** One look at a scale's display. */
export interface ScaleReading {
  readonly value: number;
  readonly unit: MassUnit;
  /** The scale itself says that it has settled. */
  readonly stable: boolean;
}

/** What is about to be weighed. A real scale needs none of it; the stand-in puts it on its pan. */
export interface ScaleScene {
  /** Names the thing on the pan: the same name is the same thing. */
  readonly key: string;
  readonly moment: 'before' | 'after';
  /** The coat that lies between before and after: the ticket's. */
  readonly batch: string;
  readonly lastKnownG: number;
  /** Mass meant to leave the container, g. */
  readonly layG: number;
  readonly massSolids: number;
}

/** A bench scale. @throws when it cannot be reached */
export interface Scale {
  read(scene: ScaleScene): Promise<ScaleReading>;
}

export const weighOnScale = object({
  ticketId: uuid().label('Ticket'),
  containerId: uuid().label('Container'),
  what: oneOf('What is weighed', ['container', 'parts'] as const),
  moment: oneOf('When', ['before', 'after'] as const),
  pieces: whole('Pieces', 1, 100_000),
}).noUnknown();
export type WeighOnScale = InferType<typeof weighOnScale>;

/** A settled weight. */
export interface ScaleAnswer {
  readonly value: number;
  readonly unit: MassUnit;
  readonly at: string;
}

/** Devices that this server is tied to. */
export interface DeviceList {
  readonly scale: boolean;
  readonly camera: boolean;
  readonly controller: boolean;
}
