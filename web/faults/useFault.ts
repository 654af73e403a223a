import {
  causeChances,
  contradictions,
  faultFacts,
  FAULT_TESTS,
  learnFaults,
  offerTests,
  planRework,
  rankCauses,
  shopCounts,
  SURPRISING,
  chanceFound,
  type Cause,
  type Fault,
  type FaultSpot,
  type FaultTestKey,
  type FaultTestResult,
  type Remedy,
  type ReworkWay,
} from '@unto/core';
import type { FaultPage, FaultSubject } from '@unto/contract';
import { faultEvidence, putRight, recordAsSeen, regionShareOf, remediesOf, sameRemedy } from '@unto/domain';
import { useQuery } from '@pinia/colada';
import { v4 as uuid } from 'uuid';
import { computed, ref, watch } from 'vue';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useAct } from '../stores/useAct';

/** A cause as it is shown: usual with this look, by this record, and what each fact weighs. */
export interface ShownCause {
  readonly cause: Cause;
  readonly chance: number;
  readonly low: number;
  readonly high: number;
  readonly usual: number;
  readonly facts: readonly { readonly words: string; readonly weight: number }[];
  /** Of the shop’s cases that looked so. */
  readonly cases: number;
}

/** Usual practice alone. */
const USUAL = learnFaults([]);

/** A fact that moves the odds less than this is not worth its words. */
const WORTH = 1.08;

/** The search for a fault on a run, a coupon or a coat: what it looks like, what it may be, what tells, what is done. */
export function useFault(of: () => { readonly kind: FaultSubject; readonly id: string } | null) {
  const { act, busy } = useAct();
  const { data, error, refetch } = useQuery({
    key: () => KEYS.fault(of()?.kind ?? '', of()?.id ?? ''),
    query: () => api.call('faultPage', { params: of()! }),
    enabled: () => of() !== null,
  });
  const page = computed<FaultPage | null>(() => (data.value?.subjectId === of()?.id ? (data.value ?? null) : null));
  const kept = computed(() => page.value?.cases.at(-1) ?? null);
  const finding = computed(() => kept.value?.findings.at(-1) ?? null);

  const faults = ref<Fault[]>([]);
  const spots = ref<FaultSpot[]>([]);
  const pieces = ref<number[]>([]);
  // What was kept, else what the reading proposes: somebody presses it away where it is not so.
  watch(
    page,
    (now) => {
      if (!now) return;
      const look = now.cases.at(-1)?.looks.at(-1);
      faults.value = [...(look?.faults ?? [...new Set(now.proposals.map(({ fault }) => fault))])];
      spots.value = [...(look?.spots ?? now.proposals.flatMap(({ spot }) => (spot ? [spot] : [])).slice(0, 1))];
      const named = now.proposals.flatMap(({ piece }) => (piece ? [piece] : []));
      pieces.value = [...(now.cases.at(-1)?.pieces ?? new Set(named))];
    },
    { immediate: true },
  );
  /** What was to be marked on the piece that is looked at. */
  const shownPiece = computed(() => pieces.value[0] ?? 1);
  const drawn = useQuery({
    key: () => KEYS.pieceDrawing(page.value?.subjectId ?? '', shownPiece.value),
    query: () =>
      api.call('pieceDrawing', { params: { id: page.value!.subjectId }, query: { piece: shownPiece.value } }),
    enabled: () => page.value?.kind === 'run',
  });
  const drawing = computed(() => (page.value?.kind === 'run' ? (drawn.data.value?.drawing ?? null) : null));
  const looksOtherwise = computed(() => {
    const look = kept.value?.looks.at(-1);
    const same = (a: readonly unknown[], b: readonly unknown[]) => JSON.stringify(a) === JSON.stringify(b);
    return (
      look !== undefined && !(same([...look.faults].sort(), [...faults.value].sort()) && same(look.spots, spots.value))
    );
  });

  const cannot = computed(() => contradictions(faults.value));
  const record = computed(() => {
    if (!page.value) return null;
    return (
      kept.value?.record ??
      recordAsSeen(page.value.record, page.value, {
        faults: faults.value,
        spots: spots.value,
        pieces: pieces.value.length,
      })
    );
  });
  const settled = computed(() => page.value?.settled ?? []);
  const knowledge = computed(() => learnFaults(settled.value));
  const tests = computed(() => kept.value?.tests ?? []);
  const evidence = computed(() =>
    record.value && faults.value.length ? faultEvidence(record.value, faults.value, tests.value) : null,
  );
  const ranking = computed(() => evidence.value && rankCauses(evidence.value, knowledge.value));
  const facts = computed(() => (record.value ? faultFacts(record.value) : []));
  const causes = computed<ShownCause[]>(() => {
    if (!ranking.value || !evidence.value) return [];
    const { possible = [] } = evidence.value;
    const usual = causeChances({ seen: faults.value, possible }, USUAL);
    const own = shopCounts(settled.value, faults.value);
    return ranking.value.causes.map((one) => ({
      ...one,
      usual: usual.get(one.cause)!,
      cases: own.get(one.cause) ?? 0,
      facts: facts.value
        .map(({ words, weights }) => ({ words, weight: weights[one.cause] ?? 1 }))
        .filter(({ weight }) => Math.max(weight, 1 / weight) >= WORTH)
        .sort((a, b) => Math.abs(Math.log(b.weight)) - Math.abs(Math.log(a.weight))),
    }));
  });
  const offers = computed(() =>
    evidence.value && ranking.value && record.value
      ? offerTests(evidence.value, knowledge.value, {
          ranking: ranking.value.causes,
          record: record.value,
          made: tests.value.map(({ test }) => test),
        })
      : [],
  );

  /** Causes that were pressed as the ones it was; the likeliest stands as an offer only. */
  const was = ref<Cause[]>([]);
  const taken = ref<Remedy[]>([]);
  const way = ref<ReworkWay | null>(null);
  watch(finding, (now) => {
    was.value = [...(now?.causes ?? [])];
    way.value = now?.way ?? null;
    taken.value = [];
  });
  const thought = computed(() => (was.value.length ? was.value : causes.value.slice(0, 1).map(({ cause }) => cause)));
  const remedies = computed(() => (page.value ? remediesOf(thought.value, page.value) : []));
  function turn(remedy: Remedy): void {
    const on = taken.value.some((one) => sameRemedy(one, remedy));
    taken.value = on ? taken.value.filter((one) => !sameRemedy(one, remedy)) : [...taken.value, remedy];
  }
  const regionShare = ref<number | null>(null);
  const ways = computed(() => {
    const { work, before } = page.value ?? {};
    if (!work || !ranking.value) return [];
    return planRework(
      { ...work, regionShare: regionShare.value ?? regionShareOf(faults.value) },
      {
        seen: faults.value,
        ranking: ranking.value.causes,
        put: putRight(taken.value),
        before: Object.fromEntries((before ?? []).map(({ way: name, ...counts }) => [name, counts])),
      },
    );
  });

  const said = () => ({ faults: [...faults.value], spots: [...spots.value], note: '' });
  /** The case that is open, made or corrected by what is pressed now; null where that was refused. */
  async function opened(): Promise<string | null> {
    const subject = of()!;
    if (!kept.value) {
      const body = { id: uuid(), kind: subject.kind, subjectId: subject.id, pieces: [...pieces.value], ...said() };
      return (await act('createFaultCase', { body }, 'a fault'))?.id ?? null;
    }
    const { id } = kept.value;
    if (!looksOtherwise.value) return id;
    const again = await act('createFaultLook', { params: { id }, body: { id: uuid(), ...said() } }, 'another look');
    return again && id;
  }
  async function tested(test: FaultTestKey, result: FaultTestResult, note = ''): Promise<boolean> {
    const id = await opened();
    return (
      id !== null &&
      (await act('createFaultTest', { params: { id }, body: { id: uuid(), test, result, note } }, 'a test')) !== null
    );
  }
  async function settle(note: string): Promise<boolean> {
    const id = await opened();
    if (!id) return false;
    const body = {
      ...{ id: uuid(), causes: [...was.value], way: way.value, note },
      ...(regionShare.value === null ? {} : { regionShare: regionShare.value }),
      remedies: JSON.parse(JSON.stringify(taken.value)) as Remedy[],
    };
    return (await act('createFaultFinding', { params: { id }, body }, 'what it was')) !== null;
  }
  /** Tests whose result was hardly to be expected by what was known. */
  const surprises = computed(() => {
    if (!record.value || !faults.value.length) return [];
    const before = faultEvidence(record.value, faults.value, []);
    return tests.value.filter(({ test, result }) => {
      const found = chanceFound(before, FAULT_TESTS[test], knowledge.value);
      return (result === 'found' ? found : result === 'clear' ? 1 - found : 1) < SURPRISING;
    });
  });

  return {
    ...{
      page,
      error,
      refetch,
      busy,
      kept,
      finding,
      faults,
      spots,
      pieces,
      drawing,
      cannot,
      record,
      causes,
      ranking,
      offers,
      tests,
      surprises,
    },
    ...{ was, thought, taken, remedies, turn, way, ways, regionShare, opened, tested, settle, looksOtherwise },
  };
}
export type FaultSearch = ReturnType<typeof useFault>;
