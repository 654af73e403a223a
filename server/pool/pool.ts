import { Piscina } from 'piscina';
import { ApiError } from '../errors/api-error.js';
import { outcomeOf, type InputOf, type Outcome, type OutputOf, type Task, type TaskName } from './tasks.js';

/** Where work is done that would hold up everybody's requests. */
export interface Pool {
  /** @throws ApiError as the task refuses, or `too-heavy` where it takes more time or memory than there is for it */
  run<N extends TaskName>(name: N, input: InputOf<N>): Promise<OutputOf<N>>;
  close(): Promise<void>;
}

/** Does everything at once on the caller's own thread: for scripts and tests, which hold up nobody. */
export const INLINE_POOL: Pool = {
  run: async <N extends TaskName>(name: N, input: InputOf<N>) => resultOf<N>(outcomeOf({ name, input })),
  close: async () => undefined,
};

export interface PoolLimits {
  readonly withinMs: number;
  readonly memoryMb: number;
}
const LIMITS: PoolLimits = { withinMs: 20_000, memoryMb: 1024 };
/** A ledger of years takes its time to be read. */
const PATIENT: Partial<Record<TaskName, number>> = { readLedger: 9 };
const THREADS = 2;

/**
 * A pool of threads with a limit of time and memory: what goes beyond is broken off, and its thread made anew.
 * @param worker the file each thread runs @param execArgv what Node is told to read it
 */
export function threadPool(worker: string, limits: Partial<PoolLimits> = {}, execArgv: string[] = []): Pool {
  const { withinMs, memoryMb } = { ...LIMITS, ...limits };
  const threads = new Piscina<Task, Outcome>({
    filename: worker,
    execArgv,
    minThreads: 0,
    maxThreads: THREADS,
    idleTimeout: 30_000,
    resourceLimits: { maxOldGenerationSizeMb: memoryMb },
  });
  // A thread that is broken off says so here too; whoever waits for it is told.
  threads.on('error', () => undefined);
  return {
    run: async <N extends TaskName>(name: N, input: InputOf<N>) => {
      const ownMs = withinMs * (PATIENT[name] ?? 1);
      try {
        return resultOf<N>(await threads.run({ name, input }, { signal: AbortSignal.timeout(ownMs) }));
      } catch (error) {
        throw brokenOff(error, ownMs) ?? error;
      }
    },
    close: () => threads.destroy(),
  };
}

function resultOf<N extends TaskName>(outcome: Outcome): OutputOf<N> {
  if ('done' in outcome) return outcome.done as OutputOf<N>;
  const { type, detail, faults } = outcome.refused;
  throw new ApiError(type, detail, faults ? { faults } : {});
}

function brokenOff(error: unknown, withinMs: number): ApiError | null {
  const { name, code } = error as { name?: string; code?: string };
  if (name === 'AbortError' || name === 'TimeoutError')
    return new ApiError(
      'too-heavy',
      `It was not worked out within ${withinMs / 1000} s. Nothing was kept; make it smaller.`,
    );
  if (code === 'ERR_WORKER_OUT_OF_MEMORY')
    return new ApiError('too-heavy', 'It takes more memory than there is for it. Nothing was kept; make it smaller.');
  return null;
}
