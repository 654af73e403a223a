import type { CreatePieceFault, LedgerRecord } from '@unto/contract';
import { v4 as uuid } from 'uuid';
import { computed, ref, type Ref } from 'vue';
import type { DrawnPiece } from '../marking/PieceGrid.vue';
import { useAct } from '../stores/useAct';
import type { useSample } from './useSample';

type Fault = NonNullable<CreatePieceFault['fault']>;
const STOOD = { 'no change': 'held', 'slightly paler': 'paler', lost: 'lost' } as const;

/** The pieces of a run as they are judged: set aside, faulty and where, drawn for the scrub, and what each stood. */
export function useJudgedPieces(
  run: Readonly<Ref<LedgerRecord | null>>,
  sampled: ReturnType<typeof useSample>,
  placed: (fault: Fault) => void,
) {
  const { act } = useAct();
  const drawn = computed<DrawnPiece[]>(() => {
    const { aside = [], drawn: chosen = [], checks = [], faults = [], names = [] } = sampled.sample.value ?? {};
    return Array.from({ length: run.value?.pieces ?? 0 }, (_, i): DrawnPiece => {
      const piece = i + 1;
      const fault = faults.find((one) => one.piece === piece);
      const check = checks.find((one) => one.piece === piece);
      const base = { piece, label: names[i], spot: fault?.spot };
      if (fault) return { ...base, look: 'bad', word: fault.fault };
      if (aside.includes(piece)) return { ...base, look: 'bad', word: 'set aside' };
      if (check)
        return {
          ...{ ...base, title: `${check.test}, ${check.strokes ?? ''} strokes`, word: STOOD[check.result] },
          look: check.result === 'lost' ? 'bad' : 'good',
        };
      if (piece === sampled.next.value) return { ...base, look: 'now', word: 'scrub now' };
      return chosen.includes(piece)
        ? { ...base, look: 'drawn', word: 'to scrub' }
        : { ...base, look: 'open', word: '' };
    });
  });
  /** Pieces that are faulty already: a test that takes the mark off is made on one of those. */
  const spoilt = computed(() => drawn.value.filter(({ look }) => look === 'bad').map(({ piece }) => piece));
  const goodHint = computed(() => {
    const { aside = [], faults = [] } = sampled.sample.value ?? {};
    const lost = sampled.lost.value;
    return [
      `Of ${run.value?.pieces ?? 0}`,
      ...(aside.length ? [`${aside.length} set aside`] : []),
      ...(faults.length ? [`${faults.length} with a fault`] : []),
      ...(lost ? [`${lost} lost`] : []),
    ].join(', ');
  });

  const placing = ref<{ piece: number; spot: { x: number; y: number } | null } | null>(null);
  /** Keeps what is wrong with a piece, and where; null where nothing is after all. */
  async function say(piece: number, fault: Fault | null, spot: CreatePieceFault['spot']): Promise<void> {
    const body = { id: uuid(), piece, fault, spot: fault ? spot : null };
    await act('createPieceFault', { params: { id: run.value!.id }, body }, `what is wrong with piece ${piece}`);
    if (fault) placed(fault);
  }
  /** As say, of the piece that was pressed. */
  async function place(fault: Fault | null): Promise<void> {
    const { piece, spot } = placing.value!;
    placing.value = null;
    await say(piece, fault, spot);
  }
  return { drawn, spoilt, goodHint, placing, place, say };
}
