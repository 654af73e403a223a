import type { Context } from '../db/context.js';
import type { Devices } from './devices.js';
import type { SceneTeller } from './simulated.js';

/** What a worker has that requests have not: the devices themselves. */
export interface DeviceWork {
  readonly devices: Devices;
  readonly tell: SceneTeller;
  /** This server among all that hold leases. */
  readonly holder: string;
  /** A running program is looked at so often, ms. */
  readonly lookEveryMs: number;
  /** What a service works with at this moment, in somebody's name. */
  context(actor: string): Context;
}
