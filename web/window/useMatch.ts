import type { PieceReading, Point2 } from '@unto/core';
import type { KeptFile } from '@unto/contract';
import { useObjectUrl } from '@vueuse/core';
import { v4 as uuid } from 'uuid';
import { ref, shallowRef } from 'vue';
import { useCardPrints } from '../cards/useCardPrints';
import { checkPictureFile } from '../pictures/picture-file';
import { useReading } from '../pictures/useReading';
import { valueOf, type ComparedWindow, type MatchedWindow } from '../workers/computations';
import { useComputations } from '../workers/useComputations';
import { FIT_SEED } from './useWindow';

/** Where a spot is put first, as shares of the picture. */
const FIRST = { mark: { x: 0.45, y: 0.5 }, bare: { x: 0.55, y: 0.5 } };

/** A photograph of a piece with the card, the mark read off it, and what comes nearest in some windows. */
export function useMatch(windows: () => readonly ComparedWindow[]) {
  const worker = useComputations();
  const { known } = useCardPrints();
  const reading = useReading(() => {
    worker.stop();
    key = '';
  });
  const file = shallowRef<Blob | null>(null);
  const url = useObjectUrl(file);
  const size = shallowRef<{ readonly width: number; readonly height: number } | null>(null);
  let key = '';
  const spots = ref<{ mark: Point2; bare: Point2; sizeMm: number } | null>(null);
  const piece = shallowRef<PieceReading | null>(null);
  const matched = shallowRef<readonly MatchedWindow[] | null>(null);

  async function opened(picture: Blob) {
    const own = uuid();
    const answer = valueOf(await worker.core.openCoupon({ key: own, picture, prints: await known() }));
    key = own;
    return answer;
  }

  /** Opens a photograph; where its mark is somebody must show. */
  async function bring(picture: File): Promise<void> {
    await reading.run(async (step) => {
      await checkPictureFile(picture.type as KeptFile['mediaType'], picture);
      step('open');
      const found = await opened(picture);
      const { width, height } = found;
      const at = ({ x, y }: Point2) => ({ x: x * width, y: y * height });
      [file.value, size.value, piece.value, matched.value] = [picture, found, null, null];
      spots.value = { mark: at(FIRST.mark), bare: at(FIRST.bare), sizeMm: 1 };
    });
  }

  /** Reads the mark where the spots lie, and looks for what comes nearest. */
  async function read(): Promise<void> {
    const { mark, bare, sizeMm } = spots.value!;
    const spotsNow = { mark: { ...mark }, bare: { ...bare }, sizeMm };
    await reading.run(async (step) => {
      step('open');
      if (!key) await opened(file.value!);
      step('read');
      [piece.value, matched.value] = [null, null];
      piece.value = valueOf(await worker.core.readPiece({ key, spots: spotsNow }));
      matched.value = valueOf(await worker.core.match({ windows: windows(), target: piece.value, seed: FIT_SEED }));
    });
  }

  return { ...reading, url, size, spots, piece, matched, bring, read };
}
