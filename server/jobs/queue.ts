import { EventEmitter } from 'node:events';
import PgBoss from 'pg-boss';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';

/** What a worker does apart from requests: programs to the controller, weights, pictures. */
export const JOB_KINDS = ['burn', 'weigh', 'picture'] as const;
export type JobKind = (typeof JOB_KINDS)[number];

/** After this long a job that was begun counts as cut off, s. A burn has a lease of its own in its row. */
const CUT_OFF_AFTER_S: Record<JobKind, number> = { burn: 12 * 3600, weigh: 15, picture: 45 };
/** After this long a job that nobody began is not begun any more, s: whoever asked has turned away. */
const BEGIN_WITHIN_S = 15;
/** How often a worker looks for jobs of another server's requests, s; those of its own wake it. */
const LOOK_EVERY_S = 0.5;

/** A job as it stands: waiting to be done, done with what came of it, or cut off. */
export type JobNow =
  { readonly state: 'waiting' } | { readonly state: 'done'; readonly came: unknown } | { readonly state: 'cut off' };

/** Jobs for workers, kept in the same database. A job is begun once at the most: what may have fired is not begun again. */
export interface JobQueue {
  /**
   * Adds a job with the caller's transaction: it is there when the rest is.
   * @param about jobs of a kind about the same wait but once
   * @returns its id; empty where one waits already
   */
  add(kind: JobKind, data: object, transaction: Transaction | undefined, about?: string): Promise<string>;
  look(kind: JobKind, id: string): Promise<JobNow | null>;
  /** Has jobs of a kind done, one after another, until it is stopped. What `work` gives is kept as what came of it. */
  work(kind: JobKind, work: (data: object) => Promise<unknown>): Promise<void>;
  /** Tells work of a kind that is going on here that something is asked of it. */
  nudge(kind: JobKind): void;
  /** Until it is nudged, at the most so long, ms; at once when the queue stops. */
  rest(kind: JobKind, ms: number): Promise<void>;
  /** Whether work that is going on is to end. */
  readonly stopping: boolean;
  /** Lets jobs that were begun end, and begins no more. */
  stop(): Promise<void>;
}

/** Opens the queue in the schema `pgboss` of a database. @param failed told of what no job's owner can be told */
export async function openJobQueue(sequelize: Sequelize, failed: (error: Error) => void): Promise<JobQueue> {
  const boss = new PgBoss({ db: through(sequelize), schedule: false, maintenanceIntervalSeconds: 60 });
  boss.on('error', failed);
  await boss.start();
  // One that waits stands for all that would: of jobs about a burn the next one does the work.
  for (const name of JOB_KINDS) await boss.createQueue(name, { name, policy: name === 'burn' ? 'short' : 'standard' });
  const workers = new Map<JobKind, string>();
  const nudges = new EventEmitter();
  let stopping = false;
  return {
    get stopping() {
      return stopping;
    },
    nudge: (kind) => void nudges.emit(kind),
    rest: (kind, ms) =>
      new Promise((resolve) => {
        const on = () => {
          clearTimeout(timer);
          nudges.off(kind, on);
          resolve();
        };
        const timer = setTimeout(on, ms);
        nudges.once(kind, on);
      }),
    add: async (kind, data, transaction, about) => {
      const id = await boss.send(kind, data, {
        retryLimit: 0,
        ...(about ? { singletonKey: about } : {}),
        expireInSeconds: CUT_OFF_AFTER_S[kind],
        retentionSeconds: BEGIN_WITHIN_S,
        db: through(sequelize, transaction),
      });
      const wake = () => {
        if (workers.has(kind)) boss.notifyWorker(workers.get(kind)!);
      };
      if (transaction) transaction.afterCommit(wake);
      else wake();
      return id ?? '';
    },
    look: async (kind, id) => {
      const job = await boss.getJobById<object>(kind, id, { includeArchive: true });
      return job && jobNow(kind, job);
    },
    work: async (kind, work) => {
      const options = { batchSize: 1, pollingIntervalSeconds: LOOK_EVERY_S };
      workers.set(kind, await boss.work<object>(kind, options, async ([job]) => work(job!.data)));
    },
    stop: async () => {
      stopping = true;
      for (const kind of JOB_KINDS) nudges.emit(kind);
      await boss.stop({ graceful: true, timeout: 5000 });
    },
  };
}

/** Statements of the queue on this application's own connections. */
function through(sequelize: Sequelize, transaction?: Transaction): PgBoss.Db {
  return {
    executeSql: async (text, values) => {
      const rows = await sequelize.query(text, {
        ...(values?.length ? { bind: values.map((value) => value ?? null) } : {}),
        transaction: transaction ?? null,
        raw: true,
        type: QueryTypes.SELECT,
      });
      return { rows };
    },
  };
}

function jobNow(kind: JobKind, { state, createdOn, startedOn, output }: PgBoss.JobWithMetadata): JobNow {
  const since = (from: Date) => (Date.now() - from.getTime()) / 1000;
  if (state === 'completed') return { state: 'done', came: output };
  const waits = state === 'created' && since(createdOn) < BEGIN_WITHIN_S;
  const works = state === 'active' && since(startedOn) < CUT_OFF_AFTER_S[kind];
  return { state: waits || works ? 'waiting' : 'cut off' };
}
