import { numbersText, pieceNumbers } from '@unto/domain';
import type { KeptFile, LedgerRecord, TrayPieceRead, TrayReadingRecord } from '@unto/contract';
import { useQuery } from '@pinia/colada';
import { v4 as uuid } from 'uuid';
import { computed, ref, watch, type Ref } from 'vue';
import { api, ApiProblem, PATIENT_MS } from '../api/client';
import { ofDevice } from '../api/device-jobs';
import { KEYS } from '../api/keys';
import { keepPictureFile } from '../pictures/kept-picture';
import { useReading } from '../pictures/useReading';
import { useShop } from '../stores/shop';
import { useTouch } from '../stores/useTouch';
import type { useSample } from './useSample';

/** Pieces that are offered to be laid beside one card at most. */
const OFFERED = 24;

/** Pieces of a run read from a picture of the tray they lie on: which lie there, what it told, what of that is taken as a fault. */
export function useTray(run: Readonly<Ref<LedgerRecord | null>>, sampled: ReturnType<typeof useSample>) {
  const shop = useShop();
  const { touchedBy } = useTouch();
  const reading = useReading(() => {});
  const { data } = useQuery({
    key: () => KEYS.trays(run.value?.id ?? ''),
    query: () => api.call('trayReadings', { params: { id: run.value!.id } }),
    enabled: () => run.value !== null,
  });
  const newest = computed<TrayReadingRecord | null>(
    () => data.value?.find(({ runId }) => runId === run.value?.id) ?? null,
  );
  /** Which pieces lie there, as “1-24”. */
  const lying = ref('');
  watch(
    [() => run.value?.id, () => sampled.sample.value?.drawn],
    () => {
      const drawn = [...(sampled.sample.value?.drawn ?? [])].sort((a, b) => a - b);
      const first = Math.min(run.value?.pieces ?? 0, OFFERED);
      lying.value = drawn.length ? numbersText(drawn) : first ? `1-${first}` : '';
    },
    { immediate: true },
  );
  const pieces = computed(() => pieceNumbers(lying.value));

  async function readKept(keep: () => Promise<KeptFile>): Promise<void> {
    await reading.run(async (step) => {
      if (!pieces.value) throw new Error('Say which pieces lie there: numbers and ranges, as 1-24.');
      const { hash } = await keep();
      step('read');
      const call = { params: { id: run.value!.id }, body: { id: uuid(), fileHash: hash, pieces: pieces.value } };
      await api
        .call('createTrayReading', call, { operator: shop.operatorId ?? '', withinMs: PATIENT_MS })
        .catch(inWords);
      await touchedBy('createTrayReading', call);
    });
  }
  const bring = (file: File) => readKept(() => keepPictureFile(file));
  const take = () =>
    readKept(async () => {
      const call = { params: { id: run.value!.id }, body: { pieces: pieces.value! } };
      return (await ofDevice('takeTrayPicture', call, shop.operatorId)).picture!;
    });

  const nameOf = (piece: number) => sampled.sample.value?.names[piece - 1] || `Piece ${piece}`;
  const isTaken = ({ piece }: TrayPieceRead, kind: string) =>
    sampled.sample.value?.faults.some((fault) => fault.piece === piece && fault.fault === kind) ?? false;
  return { ...reading, newest, lying, bring, take, nameOf, isTaken };
}

/** A refusal of the picture is said in the words that stand at it. */
function inWords(error: unknown): never {
  throw error instanceof ApiProblem ? new Error(error.first) : error;
}
