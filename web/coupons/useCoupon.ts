import { STAGES, type CouponLayout, type FiringNotes, type Outcome, type Stage } from '@unto/core';
import type { Aim, Coupon, CreateReading } from '@unto/contract';
import { couponEquipment, couponLimits, type FittedEquipment } from '@unto/domain';
import { useQuery } from '@pinia/colada';
import { v4 as uuid } from 'uuid';
import { computed, ref, shallowRef, watch, type Ref } from 'vue';
import { api, ApiProblem, type CallOf } from '../api/client';
import { KEYS } from '../api/keys';
import { useShop } from '../stores/shop';
import { firedEquipment, fittedEquipment } from '../stores/fitted-equipment';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import { valueOf, type DesignedCoupon } from '../workers/computations';
import { useComputations } from '../workers/useComputations';
import { useCouponPictures } from './useCouponPictures';
import { useEyeMarks } from './useEyeMarks';

/** A coupon with its layout, its pictures and marks, and the ways to keep what was read. */
export function useCoupon(id: Ref<string>) {
  const shop = useShop();
  const outbox = useOutbox();
  const notices = useNotices();
  const worker = useComputations();
  const coupon = shallowRef<Coupon | null>(null);
  const { data, error } = useQuery({
    key: () => KEYS.coupon(id.value),
    query: () => api.call('coupon', { params: { id: id.value } }),
  });
  const made = shallowRef<DesignedCoupon | null>(null);
  const tone = ref<Aim['tone']>('dark on light');
  const stage = ref<Stage>('rinsed');
  const fault = ref('');
  const fitted = shallowRef<FittedEquipment | null>(null);
  const layout = computed<CouponLayout | null>(() => made.value?.layout ?? null);
  const pictures = useCouponPictures(coupon, layout, tone);
  const eye = useEyeMarks(coupon, stage, pictures.rules);

  async function show(found: Coupon): Promise<void> {
    try {
      if (coupon.value?.id !== found.id) await first(found);
      adopt(found);
    } catch (problem) {
      fault.value = (problem as Error).message;
    }
  }

  async function first(found: Coupon): Promise<void> {
    coupon.value = found;
    stage.value = found.stage === 'rinsed' || found.stage === 'scrubbed' ? 'scrubbed' : 'rinsed';
    if (found.ticketId) {
      const page = await api.call('ticket', { params: { id: found.ticketId } });
      tone.value = page.ticket.aim.tone;
    }
    fitted.value = found.burntAt ? await firedEquipment(shop, found) : fittedEquipment(shop, found);
    const task = {
      design: found.design,
      limits: couponLimits(fitted.value!),
      equipment: couponEquipment(fitted.value!),
    };
    made.value = valueOf(await worker.core.design(task));
    const used = found.readings.findLast(({ rules }) => rules)?.rules;
    pictures.setRules(used ?? null);
  }

  function adopt(found: Coupon): void {
    coupon.value = found;
    pictures.adopt();
    eye.restore();
    for (const each of STAGES) void pictures.show(each);
  }

  watch(data, (found) => found && void show(found), { immediate: true });
  watch(error, (problem) => problem && (fault.value = problem.message), { immediate: true });

  type CouponWrite = 'markBurnt' | 'createReading' | 'createCouponPicture';
  async function send<N extends CouponWrite>(name: N, call: CallOf<N>, label: string): Promise<boolean> {
    try {
      await outbox.send(name, call, label);
      return true;
    } catch (problem) {
      if (!(problem instanceof ApiProblem)) throw problem;
      notices.say(problem.first, 'danger');
      return false;
    }
  }

  const markBurnt = (notes: FiringNotes) =>
    send('markBurnt', { params: { id: id.value }, body: { version: coupon.value!.version, notes } }, `${code()} burnt`);

  /** Keeps outcomes marked by eye or brought as a table. */
  async function keepMarks(source: 'entered' | 'csv', entries: CreateReading['entries'], at: Stage): Promise<boolean> {
    const by = entries.some(({ step }) => step !== undefined) ? ('scale' as const) : source;
    const body = { id: uuid(), stage: at, source: by, entries };
    if (!(await send('createReading', { params: { id: id.value }, body }, `${entries.length} outcomes of ${code()}`)))
      return false;
    eye.forget();
    notices.say(`${entries.length} outcomes kept.`);
    return true;
  }

  /** Outcomes of a stage's picture that are not kept so yet. */
  const pending = computed(() => {
    const open = pictures.pictures[stage.value];
    if (!open?.entries) return [];
    return [...pictures.outcomes(stage.value)]
      .filter(([cell, outcome]) => eye.kept.value.get(cell) !== outcome)
      .map(([cell, outcome]) => ({ cell, outcome, ...why(cell, outcome) }));
  });

  function why(cell: number, outcome: Outcome): { reason?: string } {
    const taken = pictures.byHand[stage.value].get(cell);
    return taken && taken.outcome === outcome && taken.reason.trim() ? { reason: taken.reason.trim() } : {};
  }

  /** Keeps the picture of the stage and the outcomes read from it. */
  async function keepPicture(): Promise<boolean> {
    const at = stage.value;
    const open = pictures.pictures[at]!;
    const entries = pending.value;
    const pictureId = open.keptAs ?? uuid();
    if (!open.keptAs) {
      const body = { id: pictureId, stage: at, entries: await pictures.entriesToKeep(at) };
      if (!(await send('createCouponPicture', { params: { id: id.value }, body }, `a picture of ${code()}`)))
        return false;
    }
    if (!entries.length) return true;
    const body = {
      id: uuid(),
      stage: at,
      source: 'picture' as const,
      pictureId,
      rules: { ...pictures.rules.value },
      entries,
    };
    if (!(await send('createReading', { params: { id: id.value }, body }, `${entries.length} readings of ${code()}`)))
      return false;
    pictures.byHand[at].clear();
    notices.say(`${entries.length} readings kept with their picture.`);
    return true;
  }

  function code(): string {
    return coupon.value!.design.code;
  }

  return {
    coupon,
    made,
    fitted,
    layout,
    tone,
    stage,
    fault,
    worker,
    pictures,
    eye,
    pending,
    adopt,
    markBurnt,
    keepMarks,
    keepPicture,
  };
}
