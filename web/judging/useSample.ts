import { mostLost, sampleFor, samplePlans } from '@unto/core';
import type { LedgerRecord, RunSample } from '@unto/contract';
import { useQuery } from '@pinia/colada';
import { v4 as uuid } from 'uuid';
import { computed } from 'vue';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useAct } from '../stores/useAct';

/** The scrub that proves a run: normal clean is no proof. */
const SCRUB = 'abrasive pad';
/** Strokes of a wet pad; common practice, no source. */
const STROKES = 40;

/** How many of a run’s pieces to scrub, which, what they stood, and what that says of all that look right. */
export function useSample(run: () => LedgerRecord | null) {
  const { act, busy } = useAct();
  const { data } = useQuery({
    key: () => KEYS.sample(run()?.id ?? ''),
    query: () => api.call('runSample', { params: { id: run()!.id } }),
    enabled: () => run() !== null,
  });
  const sample = computed<RunSample | null>(() => (data.value?.runId === run()?.id ? (data.value ?? null) : null));
  /** Pieces that look right: those set aside are counted bad and are not in the draw. */
  const lot = computed(() => (run()?.pieces ?? 0) - (sample.value?.aside.length ?? 0));
  const plans = computed(() => (lot.value > 0 ? samplePlans(lot.value) : []));
  const scrubbed = computed(() => {
    const { drawn = [], checks = [] } = sample.value ?? {};
    return checks.filter(({ piece, test }) => test === SCRUB && drawn.includes(piece));
  });
  const lost = computed(() => scrubbed.value.filter(({ result }) => result === 'lost').length);
  const paler = computed(() => scrubbed.value.filter(({ result }) => result === 'slightly paler').length);
  const next = computed(() => {
    const done = new Set(scrubbed.value.map(({ piece }) => piece));
    return sample.value?.drawn.find((piece) => !done.has(piece)) ?? null;
  });
  /** At most these shares lose their mark: so far; when the rest holds; when one more is lost, and how many would mend that. */
  const says = computed(() => {
    const all = sample.value?.drawn.length ?? 0;
    const done = scrubbed.value.length;
    const bound = (n: number, bad: number) => mostLost({ scrubbed: n, lost: bad }, lot.value);
    if (!all || all > lot.value) return null;
    const whole = bound(all, lost.value);
    return {
      soFar: done ? bound(done, lost.value) : null,
      whole,
      oneMore: all > lost.value ? bound(all, lost.value + 1) : null,
      mends: sampleFor(whole, lot.value, lost.value + 1),
    };
  });

  const draw = (scrub: number) =>
    act('createSampleDraw', { params: { id: run()!.id }, body: { id: uuid(), scrub } }, 'which pieces are scrubbed');
  const stood = (result: RunSample['checks'][number]['result']) =>
    act(
      'createPieceCheck',
      {
        params: { id: run()!.id },
        body: { id: uuid(), piece: next.value!, test: SCRUB, strokes: STROKES, result },
      },
      `the scrub of piece ${next.value!}`,
    );
  return { sample, lot, plans, scrubbed, lost, paler, next, says, draw, stood, busy, STROKES };
}
