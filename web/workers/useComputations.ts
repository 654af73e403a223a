import { wrap, type Remote } from 'comlink';
import { onUnmounted } from 'vue';
import type { Computations } from './computations';

/** A worker of this view's own, ended with it; one that dies rejects whoever waits. */
export function useComputations(): { core: Remote<Computations>; stop: () => void } {
  let worker = start();
  let core = wrap<Computations>(worker);
  onUnmounted(() => worker.terminate());
  return {
    get core() {
      return core;
    },
    /** Ends what is being computed and starts afresh. */
    stop: () => {
      worker.terminate();
      worker = start();
      core = wrap<Computations>(worker);
    },
  };
}

function start(): Worker {
  return new Worker(new URL('./computation.worker.ts', import.meta.url), { type: 'module' });
}
