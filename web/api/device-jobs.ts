import type { DeviceJob } from '@unto/contract';
import { api, type CallOf } from './client';

/** A device did not do what was asked; the message says what to do instead. */
export class DeviceFault extends Error {}

/** What is asked of a device is looked after so often, ms. */
const LOOK_EVERY_MS = 200;

/**
 * Asks a device and waits for what came of it.
 * @throws DeviceFault in words for whoever stands beside it; ApiProblem and Unreachable as api.call
 */
export async function ofDevice<N extends 'weighOnScale' | 'takePicture' | 'takeCouponPicture' | 'takeTrayPicture'>(
  name: N,
  call: CallOf<N>,
  operator: string | null,
): Promise<DeviceJob> {
  let job: DeviceJob = await api.call(name, call, { operator: operator ?? '' });
  while (job.state === 'waiting') {
    await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_MS));
    job = await api.call('deviceJob', { params: { kind: job.kind, id: job.id } });
  }
  if (job.state === 'failed') throw new DeviceFault(job.fault);
  return job;
}
