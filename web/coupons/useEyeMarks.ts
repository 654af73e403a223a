import { contrastOfSteps, type Outcome, type OutcomeRules, type Stage } from '@unto/core';
import type { Coupon, CreateReading } from '@unto/contract';
import { newestReads, type ReadOutcome } from '@unto/domain';
import { computed, ref, watch, type Ref } from 'vue';
import { changedEntries } from './outcome-map';

/** Outcomes marked by eye, kept in the browser until they are sent; with the step of the printed scale where one was named. */
export function useEyeMarks(coupon: Ref<Coupon | null>, stage: Ref<Stage>, rules: Ref<OutcomeRules>) {
  const marks = ref(new Map<number, Outcome>());
  const steps = ref(new Map<number, number>());
  const reads = computed(() =>
    coupon.value ? newestReads(coupon.value, stage.value) : new Map<number, ReadOutcome>(),
  );
  const kept = computed(() => new Map([...reads.value].map(([cell, { outcome }]) => [cell, outcome])));
  const changed = computed<CreateReading['entries']>(() =>
    changedEntries(kept.value, marks.value).map((entry) => {
      const step = steps.value.get(entry.cell);
      return step === undefined ? entry : { ...entry, step };
    }),
  );
  const key = () => `unto-cells-${coupon.value?.id ?? ''}-${stage.value}`;

  /** What is kept, and over it what was typed and not sent yet. */
  function restore(): void {
    const draft = JSON.parse(localStorage.getItem(key()) ?? '[]') as [number, Outcome, number | null][];
    marks.value = new Map([...kept.value, ...draft.map(([cell, outcome]) => [cell, outcome] as const)]);
    steps.value = new Map(draft.flatMap(([cell, , step]) => (step === null ? [] : [[cell, step] as const])));
  }
  watch(stage, restore);

  function save(): void {
    const draft = changed.value.map(({ cell, outcome, step }) => [cell, outcome, step ?? null]);
    localStorage.setItem(key(), JSON.stringify(draft));
  }

  function mark(cell: number, outcome: Outcome | null): void {
    const next = new Map(marks.value);
    const before = kept.value.get(cell);
    if (outcome) next.set(cell, outcome);
    else if (before) next.set(cell, before);
    else next.delete(cell);
    marks.value = next;
    steps.value.delete(cell);
    save();
  }

  /** Names the step of the scale a cell differs from its ground by; the outcome follows from the rules. */
  function step(cell: number, count: number): void {
    mark(cell, contrastOfSteps(count) >= rules.value.contrast ? 'holds' : 'under');
    steps.value = new Map(steps.value).set(cell, count);
    save();
  }

  return { marks, steps, kept, reads, changed, restore, mark, step, forget: () => localStorage.removeItem(key()) };
}
