import type { CouponLayout, Point2, Stage } from '@unto/core';
import type { Aim, Coupon, CouponPictureEntries, KeptFile } from '@unto/contract';
import { pictureEntriesOf } from '@unto/domain';
import { onUnmounted, ref, shallowReactive, type Ref } from 'vue';
import { Unreachable } from '../api/client';
import { ofDevice } from '../api/device-jobs';
import { useCardPrints } from '../cards/useCardPrints';
import { keepPictureFile, keptPicture } from '../pictures/kept-picture';
import { checkPictureFile } from '../pictures/picture-file';
import { useReading } from '../pictures/useReading';
import { useShop } from '../stores/shop';
import { valueOf } from '../workers/computations';
import { useComputations } from '../workers/useComputations';
import { asKept, keptParts, type OpenedPicture } from './opened-picture';
import { useProposals } from './useProposals';

const HANDLE_RESTS_MS = 300;

/** Pictures of a coupon after the rinse and after the scrub, read in a worker, with the outcomes proposed of them. */
export function useCouponPictures(
  coupon: Ref<Coupon | null>,
  layout: Ref<CouponLayout | null>,
  tone: Ref<Aim['tone']>,
) {
  const shop = useShop();
  const worker = useComputations();
  const { known: knownPrints } = useCardPrints();
  const pictures = shallowReactive<Record<Stage, OpenedPicture | null>>({ rinsed: null, scrubbed: null });
  const proposals = useProposals(coupon, layout, tone, pictures);
  /** Somebody says that an unreadable code is this coupon's; asked anew of every picture. */
  const codeSure = ref(false);
  const { doing, fault, run, stop: stopReading } = useReading(worker.stop);
  /** What was asked last of each stage: an answer that something newer has overtaken is let go. */
  const asked: Record<Stage, number> = { rinsed: 0, scrubbed: 0 };
  const urls: string[] = [];
  onUnmounted(() => urls.forEach((url) => URL.revokeObjectURL(url)));
  const urlOf = (blob: Blob) => {
    const url = URL.createObjectURL(blob);
    urls.push(url);
    return url;
  };

  /** What is kept on the server; a picture opened and not kept yet stays. */
  function adopt(): void {
    for (const stage of ['rinsed', 'scrubbed'] as const) {
      const kept = coupon.value?.pictures.filter((one) => one.stage === stage).at(-1) ?? null;
      const open = pictures[stage];
      if (open && open.keptAs === null && open.hash !== kept?.entries.fileHash) continue;
      pictures[stage] = kept && (open?.hash === kept.entries.fileHash ? { ...open, ...keptParts(kept) } : asKept(kept));
    }
  }

  async function bring(file: File, stage: Stage): Promise<void> {
    codeSure.value = false;
    await open(
      stage,
      () => keepPictureFile(file),
      async () => file,
    );
  }

  async function take(stage: Stage): Promise<void> {
    codeSure.value = false;
    const call = { params: { id: coupon.value!.id }, body: { stage } };
    const taken = async () => (await ofDevice('takeCouponPicture', call, shop.operatorId)).picture!;
    await open(stage, taken, keptPicture);
  }

  async function open(
    stage: Stage,
    keep: () => Promise<KeptFile>,
    content: (kept: KeptFile) => Promise<Blob>,
  ): Promise<void> {
    await run(async (step) => {
      const kept = await keep();
      refuseOther(kept.hash, stage);
      step('open');
      const blob = await content(kept);
      await checkPictureFile(kept.mediaType, blob);
      const found = valueOf(
        await worker.core.openCoupon({ key: kept.hash, picture: blob, prints: await knownPrints() }),
      );
      step('read');
      proposals.byHand[stage].clear();
      asked[stage] += 1;
      await read(stage, { hash: kept.hash, photo: { url: urlOf(blob), ...found }, keptAs: null, at: null }, null);
    });
  }

  /** Opens the photograph of a kept picture again; makes it straight anew where that was not kept. */
  async function reopen(stage: Stage): Promise<void> {
    const known = pictures[stage];
    if (!known || known.photo || !known.entries) return;
    const { card, print } = known.entries;
    await run(async (step) => {
      step('open');
      const blob = await keptPicture({ hash: known.hash });
      // By the print that it was read by: what is known of the card since changes nothing kept.
      const prints = { [card]: print ?? undefined };
      const found = valueOf(await worker.core.openCoupon({ key: known.hash, picture: blob, prints }));
      const photo = { url: urlOf(blob), ...found };
      const level = known.level ?? (await straightened(known));
      if (pictures[stage]?.hash === known.hash) pictures[stage] = { ...pictures[stage], photo, level };
    });
  }

  async function straightened({ hash, corners }: OpenedPicture) {
    const answer = valueOf(await worker.core.readCoupon({ key: hash, layout: layout.value!, corners: plain(corners) }));
    return { url: urlOf(answer.level), pxMm: answer.levelPxMm, made: answer.level };
  }

  /** Pictures kept before their straight view was kept are made straight again; the others show what is kept. */
  async function show(stage: Stage): Promise<void> {
    if (!pictures[stage]?.level) await reopen(stage);
  }

  /** The entries of an open picture with its straight view kept beside it; without it where the server is away. */
  async function entriesToKeep(stage: Stage): Promise<CouponPictureEntries> {
    const { entries: read, level } = pictures[stage]!;
    const entries = codeSure.value ? { ...read!, codeConfirmed: true } : read;
    if (!level?.made) return entries!;
    try {
      const name = `${coupon.value!.design.code}, ${stage}, straight.jpg`;
      const { hash } = await keepPictureFile(new File([level.made], name, { type: 'image/jpeg' }));
      return { ...entries!, level: { fileHash: hash, pxMm: level.pxMm } };
    } catch (error) {
      if (error instanceof Unreachable) return entries!;
      throw error;
    }
  }

  /** Reads the open picture of a stage again by corners that somebody moved. */
  async function place(stage: Stage, corners: readonly Point2[]): Promise<void> {
    const known = pictures[stage];
    if (!known?.photo) return;
    pictures[stage] = { ...known, corners };
    // A handle that is still on its way is not read at every step.
    const mine = (asked[stage] += 1);
    await new Promise((resolve) => setTimeout(resolve, HANDLE_RESTS_MS));
    if (mine !== asked[stage]) return;
    await run((step) => {
      step('read');
      return read(stage, { ...known, keptAs: null, photo: known.photo! }, corners);
    });
    // What was read by other corners is not kept under these.
    if (fault.value && mine === asked[stage]) pictures[stage] = { ...pictures[stage]!, entries: null, sure: false };
  }

  async function read(
    stage: Stage,
    picture: Pick<OpenedPicture, 'hash' | 'keptAs' | 'at'> & { readonly photo: NonNullable<OpenedPicture['photo']> },
    corners: readonly Point2[] | null,
  ): Promise<void> {
    const { hash, photo, keptAs, at } = picture;
    const mine = asked[stage];
    const answer = valueOf(
      await worker.core.readCoupon({ key: hash, layout: layout.value!, corners: corners && plain(corners) }),
    );
    if (mine !== asked[stage]) return;
    const { reading } = answer;
    const entries = reading.sure ? pictureEntriesOf(reading, hash, corners !== null) : null;
    pictures[stage] = {
      hash,
      photo,
      keptAs,
      at,
      entries,
      level: { url: urlOf(answer.level), pxMm: answer.levelPxMm, made: answer.level },
      corners: reading.corners,
      sure: reading.sure,
      missing: reading.missing,
      tookS: answer.tookMs / 1000,
    };
    if (!reading.sure)
      fault.value = 'The corner marks of the coupon cannot be found: put the four handles on them, then it is read.';
  }

  /** Ends a reading; photographs that were open are opened again when they are next wanted. */
  function stop(): void {
    stopReading();
    for (const stage of ['rinsed', 'scrubbed'] as const)
      if (pictures[stage]?.photo) pictures[stage] = { ...pictures[stage], photo: null };
  }

  /** One picture cannot show a coupon before and after the scrub. */
  function refuseOther(hash: string, stage: Stage): void {
    const other = stage === 'rinsed' ? 'scrubbed' : 'rinsed';
    if (pictures[other]?.hash === hash)
      throw new Error(`This very picture was brought as ${other}. Take another now that the coupon is ${stage}.`);
  }

  return {
    ...proposals,
    pictures,
    ...{ codeSure, fault, doing, stop },
    ...{ adopt, bring, take, show, reopen, place, entriesToKeep },
  };
}

export type CouponPictures = ReturnType<typeof useCouponPictures>;

function plain(corners: readonly Point2[]): Point2[] {
  return corners.map(({ x, y }) => ({ x, y }));
}
