import type { DeviceJob, DeviceJobKind, KeptFile, ScaleAnswer, WeighOnScale } from '@unto/contract';
import type { Stage } from '@unto/core';
import type { Context } from '../db/context.js';
import { ApiError } from '../errors/api-error.js';
import type { JobNow } from '../jobs/queue.js';

/** What is wanted of a device. */
export interface DeviceAsks {
  weigh: WeighOnScale;
  picture: PictureAsk;
}
export type PictureAsk =
  | { readonly of: 'coat'; readonly ticketId: string; readonly widthMm: number; readonly heightMm: number }
  | { readonly of: 'coupon'; readonly couponId: string; readonly stage: Stage }
  | { readonly of: 'tray'; readonly runId: string; readonly pieces: readonly number[] };

/** What came of it: the answer, or why there is none. */
export interface DeviceCame {
  readonly weight?: ScaleAnswer;
  readonly picture?: KeptFile;
  readonly fault?: string;
}

const NONE_TIED: Record<DeviceJobKind, string> = {
  weigh: 'No scale is tied to this server. Type the weight.',
  picture: 'No camera is tied to this server. Bring the picture as a file.',
};
const CUT_OFF: Record<DeviceJobKind, string> = {
  weigh: 'The server was stopped before the scale answered. Press again, or type the weight.',
  picture: 'The server was stopped before the picture was there. Press again, or bring it as a file.',
};

/** Keeps that something is wanted of scale or camera; a worker does it. @throws device-away where there is no such device */
export async function askOfDevice<K extends DeviceJobKind>(
  context: Context,
  kind: K,
  ask: DeviceAsks[K],
): Promise<DeviceJob> {
  const there = kind === 'weigh' ? context.tied.scale : context.tied.camera;
  if (!there || !context.jobs) throw new ApiError('device-away', NONE_TIED[kind]);
  const id = await context.jobs.add(kind, { ask, by: context.actor }, context.transaction);
  return jobView(kind, id, { state: 'waiting' });
}

/** What became of it. @throws not-found */
export async function deviceJob(context: Context, kind: DeviceJobKind, id: string): Promise<DeviceJob> {
  const now = await context.jobs?.look(kind, id);
  if (!now) throw new ApiError('not-found', 'Nothing was asked under that.');
  return jobView(kind, id, now);
}

function jobView(kind: DeviceJobKind, id: string, now: JobNow): DeviceJob {
  const { weight = null, picture = null, fault = '' } = now.state === 'done' ? (now.came as DeviceCame) : {};
  const view = { id, kind, weight, picture };
  if (now.state === 'waiting') return { ...view, state: 'waiting', fault: '' };
  if (now.state === 'cut off') return { ...view, state: 'failed', fault: CUT_OFF[kind] };
  return { ...view, state: fault ? 'failed' : 'done', fault };
}
