import type { InferType } from 'yup';
import { orNull, record, uuid, word, words } from '../fields/index.js';
import { keptFile } from '../files/index.js';
import { scaleAnswer } from './scale.js';
import type { Frozen } from '../routing/index.js';

export const DEVICE_JOBS = ['weigh', 'picture'] as const;
export type DeviceJobKind = (typeof DEVICE_JOBS)[number];

/** Something asked of scale or camera: kept first, done by a worker, read here until it is there. */
export const deviceJob = record({
  id: uuid(),
  kind: word(DEVICE_JOBS),
  state: word(['waiting', 'done', 'failed'] as const),
  /** Why it failed; empty for not. */
  fault: words(),
  weight: orNull(scaleAnswer),
  picture: orNull(keptFile),
});
export type DeviceJob = Frozen<InferType<typeof deviceJob>>;
