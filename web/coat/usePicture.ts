import type { CoatMap, CoatReference, Point2 } from '@unto/core';
import type { CreateCoatPicture, KeptFile, PictureEntries } from '@unto/contract';
import { judgePicture } from '@unto/domain';
import { v4 as uuid } from 'uuid';
import { computed, onUnmounted, ref, shallowRef, watch } from 'vue';
import { ofDevice } from '../api/device-jobs';
import { keepPictureFile, keptPicture } from '../pictures/kept-picture';
import { useAct } from '../stores/useAct';
import { useShop } from '../stores/shop';
import { useNotices } from '../stores/notices';
import { useTicket } from '../stores/ticket';
import { checkPictureFile } from '../pictures/picture-file';
import { useReading } from '../pictures/useReading';
import { valueOf } from '../workers/computations';
import { useComputations } from '../workers/useComputations';

/** Names of the handles on a picture: the coat’s corners, a bare place, and a well-coated one where it is wanted. */
export const HANDLES = ['lower left', 'lower right', 'upper right', 'upper left', 'bare', 'well coated'] as const;
export type Handle = (typeof HANDLES)[number];

interface Opened {
  readonly hash: string;
  readonly url: string;
  readonly width: number;
  readonly height: number;
}

/** A cell of about this many across the coat’s longer side. */
const CELLS_ACROSS = 60;

/** A picture of the dry coat: brought or taken, its handles, the film under it and what that costs the mark. */
export function usePicture(weighingId: () => string | null) {
  const ticket = useTicket();
  const shop = useShop();
  const worker = useComputations();
  const { act, busy } = useAct();
  const own = ticket.ticket!;
  const blank = shop.inUse('blank').find(({ body }) => body.substrateId === own.substrateId)?.body;
  const size = ref({
    widthMm: blank?.widthMm ?? own.markWidthMm + 2 * own.coatMarginMm,
    heightMm: blank?.heightMm ?? own.markHeightMm + 2 * own.coatMarginMm,
  });
  const opened = shallowRef<Opened | null>(null);
  const handles = ref<Record<Handle, Point2> | null>(null);
  const uses = ref({ bare: true, good: false });
  const map = shallowRef<CoatMap | null>(null);
  const { doing, fault, run, stop: stopReading } = useReading(worker.stop);

  async function bring(file: File): Promise<void> {
    await open(
      () => keepPictureFile(file),
      async () => file,
    );
  }
  async function take(): Promise<void> {
    const ask = { ticketId: own.id, ...size.value };
    await open(async () => (await ofDevice('takePicture', { body: ask }, shop.operatorId)).picture!, keptPicture);
  }

  async function open(keep: () => Promise<KeptFile>, content: (kept: KeptFile) => Promise<Blob>): Promise<void> {
    await run(async (step) => {
      const kept = await keep();
      step('open');
      const picture = await content(kept);
      await checkPictureFile(kept.mediaType, picture);
      await show(kept.hash, picture);
    });
  }

  /** Ends a reading; what was open is brought again. */
  function stop(): void {
    stopReading();
    close();
    [opened.value, handles.value, map.value] = [null, null, null];
  }

  async function show(hash: string, blob: Blob): Promise<void> {
    const found = valueOf(await worker.core.openPicture(blob));
    close();
    map.value = null;
    opened.value = { hash, url: URL.createObjectURL(blob), width: found.width, height: found.height };
    handles.value = startingHandles(found.width, found.height, found.corners);
  }

  function close(): void {
    if (opened.value) URL.revokeObjectURL(opened.value.url);
  }
  onUnmounted(close);

  const entries = computed<Omit<PictureEntries, 'map'> | null>(() => {
    const [picture, at] = [opened.value, handles.value];
    if (!picture || !at) return null;
    const corners = HANDLES.slice(0, 4).map((name) => ({ ...at[name] }));
    return {
      fileHash: picture.hash,
      ...size.value,
      corners,
      bare: uses.value.bare ? { ...at.bare } : null,
      good: uses.value.good ? { ...at['well coated'] } : null,
    };
  });

  // Every moved handle reads the picture again; one that overtakes another wins.
  let asked = 0;
  watch(entries, async (now) => {
    if (!now || !(now.widthMm > 0) || !(now.heightMm > 0)) return;
    const mine = (asked += 1);
    const ground: CoatReference['ground'] = ticket.substrate!.body.ground;
    const cellMm = Math.max(now.widthMm, now.heightMm) / CELLS_ACROSS;
    const answer = await worker.core.readCoat({ ...JSON.parse(JSON.stringify(now)), cellMm, ground });
    if (mine !== asked) return;
    map.value = answer.ok ? answer.value : null;
    fault.value = answer.ok ? '' : answer.message;
  });
  const judgement = computed(() => (map.value ? judgePicture(map.value, size.value, own) : null));

  async function keep(decision: CreateCoatPicture['decision']): Promise<void> {
    if (!entries.value || !map.value) return;
    const body = {
      id: uuid(),
      weighingId: weighingId(),
      entries: { ...entries.value, map: map.value },
      decision,
      note: '',
    };
    if (await act('createCoatPicture', { params: { id: own.id }, body }, 'a picture of the coat'))
      useNotices().say(
        decision === 'rinsed off' ? 'Rinsed off before firing: only compound was lost.' : `Kept: ${decision}.`,
      );
  }

  return { size, opened, handles, uses, map, judgement, fault, doing, stop, busy, bring, take, keep };
}

export type CoatPictureState = ReturnType<typeof usePicture>;

function startingHandles(width: number, height: number, corners: readonly Point2[] | null): Record<Handle, Point2> {
  const [ll, lr, ur, ul] = corners ?? [
    { x: 0.2 * width, y: 0.8 * height },
    { x: 0.8 * width, y: 0.8 * height },
    { x: 0.8 * width, y: 0.2 * height },
    { x: 0.2 * width, y: 0.2 * height },
  ];
  const middle = { x: (ll!.x + ur!.x) / 2, y: (ll!.y + ur!.y) / 2 };
  // A bare twin lies to the right of the part as a rule.
  const bare = { x: Math.min(0.95 * width, (lr!.x + ur!.x) / 2 + 0.11 * width), y: (lr!.y + ur!.y) / 2 };
  return { 'lower left': ll!, 'lower right': lr!, 'upper right': ur!, 'upper left': ul!, bare, 'well coated': middle };
}
