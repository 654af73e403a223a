import {
  proposeOutcome,
  type CouponLayout,
  type Outcome,
  type OutcomeRules,
  type Point2,
  type ProposedOutcome,
  type Stage,
} from '@unto/core';
import type { Aim, Coupon, CouponPicture, CouponPictureEntries, KeptFile } from '@unto/contract';
import { couponRules, pictureEntriesOf } from '@unto/domain';
import { computed, onUnmounted, reactive, ref, shallowReactive, type Ref } from 'vue';
import { api, PATIENT_MS } from '../api/client';
import { keepPictureFile, keptPicture } from '../pictures/kept-picture';
import { useShop } from '../stores/shop';
import { valueOf } from '../workers/computations';
import { useComputations } from '../workers/useComputations';
import { checkPictureFile } from '../pictures/picture-file';

const HANDLE_RESTS_MS = 300;

/** A picture of a coupon at a stage: as kept, or opened and not kept yet. */
export interface OpenedPicture {
  readonly hash: string;
  /** The row it is kept under; null until it is. */
  readonly keptAs: string | null;
  readonly at: string | null;
  readonly entries: CouponPictureEntries | null;
  /** The photograph and its size; null while it was not opened again. */
  readonly photo: { readonly url: string; readonly width: number; readonly height: number } | null;
  /** The coupon straight from above. */
  readonly level: { readonly url: string; readonly pxMm: number } | null;
  /** Corner marks in the photograph, px. */
  readonly corners: readonly Point2[];
  readonly sure: boolean;
  readonly missing: readonly string[];
  readonly tookS: number | null;
}

/** An outcome somebody took against what was proposed, and why. */
export interface TakenByHand {
  readonly outcome: Outcome;
  readonly reason: string;
}

/** Pictures of a coupon after the rinse and after the scrub, read in a worker, with the outcomes proposed of them. */
export function useCouponPictures(
  coupon: Ref<Coupon | null>,
  layout: Ref<CouponLayout | null>,
  tone: Ref<Aim['tone']>,
) {
  const shop = useShop();
  const worker = useComputations();
  const pictures = shallowReactive<Record<Stage, OpenedPicture | null>>({ rinsed: null, scrubbed: null });
  const byHand = reactive<Record<Stage, Map<number, TakenByHand>>>({ rinsed: new Map(), scrubbed: new Map() });
  const usual = computed(() => {
    const compound = shop.item('compound', coupon.value?.compoundId ?? undefined);
    return couponRules(tone.value, compound?.body ?? null);
  });
  const rules = ref<OutcomeRules>(usual.value);
  const fault = ref('');
  const working = ref(false);
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
      pictures[stage] =
        kept && (open?.hash === kept.entries.fileHash ? { ...open, ...keptParts(kept) } : unopened(kept));
    }
  }

  async function bring(file: File, stage: Stage): Promise<void> {
    await open(
      stage,
      () => keepPictureFile(file),
      async () => file,
    );
  }

  async function take(stage: Stage): Promise<void> {
    const call = { params: { id: coupon.value!.id }, body: { stage } };
    const how = { operator: shop.operatorId ?? '', withinMs: PATIENT_MS };
    await open(stage, () => api.call('takeCouponPicture', call, how), keptPicture);
  }

  async function open(
    stage: Stage,
    keep: () => Promise<KeptFile>,
    content: (kept: KeptFile) => Promise<Blob>,
  ): Promise<void> {
    await guarded(async () => {
      const kept = await keep();
      refuseOther(kept.hash, stage);
      const blob = await content(kept);
      await checkPictureFile(kept.mediaType, blob);
      const found = valueOf(await worker.core.openCoupon({ key: kept.hash, picture: blob }));
      byHand[stage].clear();
      asked[stage] += 1;
      await read(stage, { hash: kept.hash, photo: { url: urlOf(blob), ...found }, keptAs: null, at: null }, null);
    });
  }

  /** The straightened picture of what is kept, made again from its file. */
  async function reopen(stage: Stage): Promise<void> {
    const known = pictures[stage];
    if (!known || known.level || !known.entries) return;
    await guarded(async () => {
      const blob = await keptPicture({ hash: known.hash });
      const found = valueOf(await worker.core.openCoupon({ key: known.hash, picture: blob }));
      const photo = { url: urlOf(blob), ...found };
      const answer = valueOf(
        await worker.core.readCoupon({ key: known.hash, layout: layout.value!, corners: plain(known.corners) }),
      );
      const level = { url: urlOf(answer.level), pxMm: answer.levelPxMm };
      if (pictures[stage]?.hash === known.hash) pictures[stage] = { ...pictures[stage], photo, level };
    });
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
    await guarded(() => read(stage, { ...known, keptAs: null, photo: known.photo! }, corners));
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
      level: { url: urlOf(answer.level), pxMm: answer.levelPxMm },
      corners: reading.corners,
      sure: reading.sure,
      missing: reading.missing,
      tookS: answer.tookMs / 1000,
    };
    if (!reading.sure)
      fault.value = 'The corner marks of the coupon cannot be found: put the four handles on them, then it is read.';
  }

  async function guarded(work: () => Promise<void>): Promise<void> {
    working.value = true;
    fault.value = '';
    try {
      await work();
    } catch (error) {
      if (!(error instanceof Error)) throw error;
      fault.value = error.message;
    } finally {
      working.value = false;
    }
  }

  /** One picture cannot show a coupon before and after the scrub. */
  function refuseOther(hash: string, stage: Stage): void {
    const other = stage === 'rinsed' ? 'scrubbed' : 'rinsed';
    if (pictures[other]?.hash === hash)
      throw new Error(`This very picture was brought as ${other}. Take another now that the coupon is ${stage}.`);
  }

  const proposals = computed<Record<Stage, Map<number, ProposedOutcome>>>(() => ({
    rinsed: proposed(pictures.rinsed?.entries ?? null, null),
    scrubbed: proposed(pictures.scrubbed?.entries ?? null, pictures.rinsed?.entries ?? null),
  }));

  function proposed(
    now: CouponPictureEntries | null,
    before: CouponPictureEntries | null,
  ): Map<number, ProposedOutcome> {
    const found = new Map<number, ProposedOutcome>();
    for (const measure of now?.cells ?? []) {
      if (!burnt(measure.cell)) continue;
      const earlier = before ? { measure: before.cells[measure.cell]!, noise: before.noise } : null;
      const outcome = proposeOutcome(measure, earlier, rules.value, tone.value);
      if (outcome) found.set(measure.cell, outcome);
    }
    return found;
  }

  /** Cells that the head could not reach, or that a broken-off run left out, have no outcome. */
  function burnt(cell: number): boolean {
    return (layout.value?.cells[cell]?.reachable ?? false) && (coupon.value?.burntCells?.includes(cell) ?? true);
  }

  /** Outcomes of a stage: as proposed, or as taken by hand. */
  function outcomes(stage: Stage): Map<number, Outcome> {
    const found = new Map<number, Outcome>();
    for (const [cell, { outcome }] of proposals.value[stage]) found.set(cell, outcome);
    for (const [cell, { outcome }] of byHand[stage]) found.set(cell, outcome);
    return found;
  }

  /** Rules of an earlier reading go on; without one the usual ones of the aim. */
  function setRules(used: OutcomeRules | null): void {
    rules.value = { ...usual.value, ...used };
  }

  return {
    setRules,
    pictures,
    byHand,
    usual,
    rules,
    fault,
    working,
    proposals,
    adopt,
    bring,
    take,
    reopen,
    place,
    outcomes,
    burnt,
  };
}

export type CouponPictures = ReturnType<typeof useCouponPictures>;

function keptParts({ id, at, entries }: CouponPicture) {
  return { keptAs: id, at, entries, corners: entries.corners, sure: true };
}

function unopened(kept: CouponPicture): OpenedPicture {
  return { hash: kept.entries.fileHash, ...keptParts(kept), photo: null, level: null, missing: [], tookS: null };
}

function plain(corners: readonly Point2[]): Point2[] {
  return corners.map(({ x, y }) => ({ x, y }));
}
