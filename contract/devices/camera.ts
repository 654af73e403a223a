import { type InferType } from 'yup';
import { positive, shape, uuid } from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

/** A bench camera. @throws when it cannot be reached */
export interface Camera {
  /** One picture of what lies before it, JPEG. */
  takePicture(): Promise<Uint8Array>;
}

export const takePicture = shape({
  ticketId: uuid().label('Ticket'),
  widthMm: positive('Width', 'mm').max(2000),
  heightMm: positive('Height', 'mm').max(2000),
});
export type TakePicture = Frozen<InferType<typeof takePicture>>;
