import type { Logger } from 'pino';
import type { Sequelize } from 'sequelize';
import type { Models } from '../db/models/index.js';
import type { Context } from '../db/context.js';
import { tiedDevices, type Devices } from '../devices/devices.js';
import type { JobQueue } from '../jobs/queue.js';
import type { CallLimits } from './shield.js';
import type { Pool } from '../pool/pool.js';
import type { FileStore } from '../storage/file-store.js';

/** Everything the application needs from outside; nothing of it is reached for. */
export interface AppDeps {
  readonly sequelize: Sequelize;
  readonly models: Models;
  /** Contents of kept files. */
  readonly files: FileStore;
  /** Devices at this bench; null where none is tied. */
  readonly devices: Devices;
  /** Where work for devices is left; null where no worker does any. */
  readonly jobs: JobQueue | null;
  /** Where heavy work is done. */
  readonly pool: Pool;
  readonly clock: () => Date;
  readonly log: Logger;
  /** Host names this server answers to. */
  readonly hosts: readonly string[];
  /** Calls that one client may make in a minute, CALLS_PER_MINUTE when not given. */
  readonly callsPerMinute?: CallLimits | undefined;
  /** Folder of the built client, if it is served from here. */
  readonly clientFolder?: string | undefined;
}

/** What a service works with at this moment, in somebody's name and outside a transaction. */
export function contextOf({ sequelize, models, files, devices, jobs, pool, clock }: AppDeps, actor: string): Context {
  const tied = tiedDevices(devices);
  return { sequelize, models, files, tied, jobs, pool, now: clock(), transaction: undefined, actor };
}
