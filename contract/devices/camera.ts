import { object, type InferType } from 'yup';
import type { Stage } from '@unto/core';
import { positive, uuid } from '../fields/index.js';
import type { BurnSetup } from './controller.js';
import type { Frozen } from '../routing/index.js';

/** What lies before the camera. A real one needs none of it; the simulator draws it. */
export type CameraScene = CoatScene | CouponScene;

/** A coated part with a bare twin beside it. */
export interface CoatScene {
  readonly kind: 'coat';
  /** The coat that is looked at: the ticket's. */
  readonly batch: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly ground: 'light' | 'dark' | 'clear';
}

/** A burnt coupon on the reference card; the program it was burnt by, should the simulator not know the blank. */
export interface CouponScene {
  readonly kind: 'coupon';
  readonly stage: Stage;
  readonly setup: BurnSetup;
  readonly program: string;
}

/** A bench camera. @throws when it cannot be reached */
export interface Camera {
  /** One picture as JPEG. */
  take(scene: CameraScene): Promise<Uint8Array>;
}

export const takePicture = object({
  ticketId: uuid().label('Ticket'),
  widthMm: positive('Width', 'mm').max(2000),
  heightMm: positive('Height', 'mm').max(2000),
}).noUnknown();
export type TakePicture = Frozen<InferType<typeof takePicture>>;
