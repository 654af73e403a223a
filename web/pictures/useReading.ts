import { ref } from 'vue';

/** What reading a picture takes, in its order. */
export const READING_STEPS = {
  keep: 'Keeping the picture',
  open: 'Opening it, finding the card',
  read: 'Reading it',
} as const;
export type ReadingStep = keyof typeof READING_STEPS;

const STOPPED = 'Stopped. The picture as far as it was kept stands; bring it again to read it.';

/**
 * Reading of a picture: which step it is at, what was wrong, and a stop. What was stopped says nothing more, however late it answers.
 * @param stopWorker ends what a worker computes for it
 */
export function useReading(stopWorker: () => void) {
  const doing = ref<ReadingStep | null>(null);
  const fault = ref('');
  let abandon: (() => void) | null = null;

  /** Does a piece of work that says its steps; what is wrong with it is said in `fault`. */
  async function run(work: (at: (step: ReadingStep) => void) => Promise<void>): Promise<void> {
    let stopped = false;
    doing.value = 'keep';
    fault.value = '';
    const stop = new Promise<never>((_, reject) => {
      abandon = () => {
        stopped = true;
        reject(new Error(STOPPED));
      };
    });
    const at = (step: ReadingStep) => {
      if (stopped) throw new Error(STOPPED);
      doing.value = step;
    };
    try {
      await Promise.race([work(at), stop]);
    } catch (error) {
      if (!(error instanceof Error)) throw error;
      fault.value = error.message;
    } finally {
      [doing.value, abandon] = [null, null];
    }
  }

  function stop(): void {
    stopWorker();
    abandon?.();
  }

  return { doing, fault, run, stop };
}
