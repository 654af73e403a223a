import { wrap, type Remote } from 'comlink';
import { onUnmounted } from 'vue';
import type { Computations } from './computations';

/** A worker of this view's own, started by the first thing asked of it and ended with the view; one that dies rejects whoever waits. */
export function useComputations(): { readonly core: Remote<Computations>; stop: () => void } {
  let worker: Worker | null = null;
  let core: Remote<Computations> | null = null;
  /** Ends what is being computed; the next thing asked starts afresh. */
  const stop = () => {
    worker?.terminate();
    [worker, core] = [null, null];
  };
  onUnmounted(stop);
  return {
    get core() {
      worker ??= start();
      core ??= wrap<Computations>(worker);
      return core;
    },
    stop,
  };
}

function start(): Worker {
  return new Worker(new URL('./computation.worker.ts', import.meta.url), { type: 'module' });
}
