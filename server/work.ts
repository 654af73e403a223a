import { randomUUID } from 'node:crypto';
import type { WeighOnScale } from '@unto/contract';
import type { PictureAsk } from './devices/ask-of-device.js';
import { takePicture } from './bench-devices/take-picture.js';
import { weighOnScale } from './bench-devices/weigh-on-scale.js';
import { adoptBurns, driveBurn, type BurnWork } from './burns/burn-worker.js';
import { couponBurns } from './coupons/burns.js';
import type { SceneTeller } from './devices/simulated.js';
import { contextOf, type AppDeps } from './http/deps.js';
import { runBurns } from './markings/burns.js';

/** Burns that nobody holds are looked for so often, ms. */
const ADOPT_EVERY_MS = 3000;

/** How the work is done: what only a simulator needs to be told, and how often a running program is looked at. */
export interface WorkOptions {
  readonly tell?: SceneTeller;
  readonly lookEveryMs?: number;
}

/** Does what requests left for the devices, and takes up what a server that was killed held. @returns what stops it, work that is going on first */
export async function startWork(deps: AppDeps, options: WorkOptions = {}): Promise<() => Promise<void>> {
  const { jobs } = deps;
  if (!jobs) throw new Error('There are no jobs to be done.');
  const work: BurnWork = {
    subjects: { coupon: couponBurns, run: runBurns },
    get devices() {
      return deps.devices;
    },
    tell: options.tell ?? null,
    holder: randomUUID(),
    lookEveryMs: options.lookEveryMs ?? 700,
    context: (actor) => contextOf(deps, actor),
  };
  await jobs.work('burn', (data) => driveBurn(work, (data as { burnId: string }).burnId));
  await jobs.work('weigh', (data) => asked<WeighOnScale>(data, (by, ask) => weighOnScale(work, by, ask)));
  await jobs.work('picture', (data) => asked<PictureAsk>(data, (by, ask) => takePicture(work, by, ask)));
  const adopt = () => adoptBurns(work).catch((error: unknown) => deps.log.warn({ err: error }, 'burns not looked for'));
  const timer = setInterval(adopt, ADOPT_EVERY_MS);
  await adopt();
  return async () => {
    clearInterval(timer);
    await jobs.stop();
  };
}

function asked<Ask>(data: object, work: (by: string, ask: Ask) => Promise<object>): Promise<object> {
  const { ask, by } = data as { ask: Ask; by: string };
  return work(by, ask);
}
