import { bedCorners, type BedPiece, type CardOnMachine, type PlanePoint, type Point2 } from '@unto/core';
import type { PlaceEntriesOf } from '@unto/contract';
import { pieceSize } from '@unto/domain';
import { useObjectUrl } from '@vueuse/core';
import { computed, ref, shallowRef } from 'vue';
import { useCardPrints } from '../cards/useCardPrints';
import { keepPictureFile } from '../pictures/kept-picture';
import { checkPictureFile } from '../pictures/picture-file';
import { useReading } from '../pictures/useReading';
import { useShop } from '../stores/shop';
import { useTicket } from '../stores/ticket';
import { valueOf, type SeenBed, type SeenCross } from '../workers/computations';
import { useComputations } from '../workers/useComputations';
import { usePlaceEntry } from './usePlaceEntry';

/** Where crosses are offered to be burnt, mm on the machine. */
const OFFERED: readonly PlanePoint[] = [
  { xMm: 20, yMm: 20 },
  { xMm: 180, yMm: 120 },
];

/**
 * The bed photographed with the card lying in its place: how that lies in the machine, learnt once by two burnt crosses; then where pieces lie,
 * each to be moved and turned by hand.
 */
export function useBed() {
  const ticket = useTicket();
  const shop = useShop();
  const worker = useComputations();
  const { known } = useCardPrints();
  const reading = useReading(worker.stop);
  const file = shallowRef<Blob | null>(null);
  const url = useObjectUrl(file);
  const size = shallowRef<{ readonly width: number; readonly height: number } | null>(null);
  const hash = ref('');
  /** Somebody learns how the card lies, though it is known. */
  const learning = ref(false);

  const cardZero = computed(() => ticket.page?.cardZero ?? null);
  const card = computed<CardOnMachine | null>(() => {
    const result = cardZero.value?.result;
    return result
      ? { turnDegrees: result.turn.value, zero: { xMm: result.zeroX.value, yMm: result.zeroY.value } }
      : null;
  });
  /** The head was fitted anew since: what was learnt before may not be so any more. */
  const stale = computed(() => {
    const fitted = ticket.page?.fitting;
    return cardZero.value !== null && !!fitted && fitted.at > cardZero.value.at;
  });
  const learns = computed(() => learning.value || card.value === null);

  const own = ticket.ticket!;
  const blank = shop.inUse('blank').find(({ body }) => body.substrateId === own.substrateId)?.body ?? null;
  const sheet = ticket.page?.sheet?.entries;
  const piece =
    sheet?.mode === 'rows'
      ? { widthMm: sheet.pieceWidthMm, heightMm: sheet.pieceHeightMm }
      : { ...pieceSize(own, blank) };

  const burnt = ref(OFFERED.map((point) => ({ ...point })));
  const crosses = ref<Point2[]>([]);
  const seen = shallowRef<readonly SeenCross[]>([]);
  const bed = shallowRef<SeenBed | null>(null);
  const bedUrl = useObjectUrl(computed(() => bed.value?.level ?? null));
  const pieces = ref<BedPiece[]>([]);

  async function bring(picture: File): Promise<void> {
    await reading.run(async (step) => {
      await checkPictureFile(picture.type as 'image/jpeg', picture);
      hash.value = (await keepPictureFile(picture)).hash;
      step('open');
      const found = valueOf(await worker.core.openCoupon({ key: hash.value, picture, prints: await known() }));
      [file.value, size.value] = [picture, found];
      step('read');
      if (learns.value) await placeCrosses(found);
      else await look();
    });
  }

  async function placeCrosses({ width, height }: { width: number; height: number }): Promise<void> {
    crosses.value = [
      { x: 0.4 * width, y: 0.6 * height },
      { x: 0.6 * width, y: 0.4 * height },
    ];
    await readCrosses();
  }
  /** Where the crosses lie on the card, once they were moved. */
  async function readCrosses(): Promise<void> {
    const places = crosses.value.map(({ x, y }) => ({ x, y }));
    seen.value = valueOf(await worker.core.crosses({ key: hash.value, places }));
  }

  async function look(): Promise<void> {
    bed.value = valueOf(await worker.core.bedPicture({ key: hash.value, card: card.value!, size: piece }));
    pieces.value = bed.value.pieces.map((one) => ({ ...one }));
  }

  const zero = usePlaceEntry(
    'zero',
    computed(
      () =>
        ({
          fileHash: hash.value,
          burnt: burnt.value,
          seen: seen.value.map(({ xMm, yMm }) => ({ xMm, yMm })),
        }) as PlaceEntriesOf['zero'],
    ),
  );
  const laid = usePlaceEntry(
    'laid',
    computed(() => ({
      ...{ fileHash: hash.value, pieceWidthMm: piece.widthMm, pieceHeightMm: piece.heightMm },
      pieces: pieces.value.map(({ xMm, yMm, turnDeg }) => ({ xMm: fine(xMm), yMm: fine(yMm), turnDeg: fine(turnDeg) })),
    })),
  );
  async function keepZero(): Promise<void> {
    if (!(await zero.keep('taken'))) return;
    learning.value = false;
    [file.value, size.value, crosses.value] = [null, null, []];
  }

  /** Turns a piece about its middle. */
  function turn(index: number, byDeg: number): void {
    const one = pieces.value[index]!;
    const to = ((one.turnDeg + byDeg + 540) % 360) - 180;
    const [a, b] = [middleOf(one), middleOf({ ...one, turnDeg: to })];
    pieces.value[index] = { xMm: one.xMm + a.xMm - b.xMm, yMm: one.yMm + a.yMm - b.yMm, turnDeg: to };
  }
  function middleOf(one: BedPiece): PlanePoint {
    const [a, , c] = bedCorners(one, piece);
    return { xMm: (a!.xMm + c!.xMm) / 2, yMm: (a!.yMm + c!.yMm) / 2 };
  }
  function add(): void {
    const { xMm, yMm, widthMm, heightMm } = bed.value!;
    pieces.value.push({
      ...{ xMm: xMm + (widthMm - piece.widthMm) / 2, yMm: yMm + (heightMm - piece.heightMm) / 2, turnDeg: 0 },
    });
  }
  const remove = (index: number) => pieces.value.splice(index, 1);

  return {
    ...reading,
    ...{
      bring,
      url,
      size,
      learns,
      learning,
      cardZero,
      stale,
      piece,
      burnt,
      crosses,
      seen,
      readCrosses,
      zero,
      keepZero,
    },
    ...{ bed, bedUrl, pieces, laid, turn, add, remove },
  };
}
export type BedState = ReturnType<typeof useBed>;

const fine = (value: number) => Math.round(value * 1000) / 1000;
