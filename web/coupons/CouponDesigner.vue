<script setup lang="ts">
import { CoreError, decodeTable, readEmbeddedDesign, type CouponDesign } from '@unto/core';
import {
  couponDesign,
  type CouponsElsewhere,
  type CreateCoupon,
  type StatedSetting,
  type Ticket,
} from '@unto/contract';
import {
  assumedOf,
  couponEquipment,
  couponLimits,
  isStatedFor,
  startingBench,
  startingPoints,
  type TriedCell,
} from '@unto/domain';
import { watchDebounced } from '@vueuse/core';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { useStillHere } from '../ui/useStillHere';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { ApiProblem } from '../api/client';
import { useNotices } from '../stores/notices';
import { useShop } from '../stores/shop';
import { useOutbox } from '../stores/outbox';
import { useTicket } from '../stores/ticket';
import { useDraft } from '../ui/useDraft';
import { useUnits } from '../ui/useUnits';
import FileLabel from '../ui/FileLabel.vue';
import { valueOf, type DesignedCoupon } from '../workers/computations';
import { useComputations } from '../workers/useComputations';
import AxisFields from './AxisFields.vue';
import CouponGrid from './CouponGrid.vue';
import DesignFigures from './DesignFigures.vue';
import DesignOptions from './DesignOptions.vue';
import { designOf, draftOf } from './design-form';
import { blockOf } from '../window/proposed-block';
import { draftOfBlock } from './next-draft';
import StartingNote from './StartingNote.vue';
import { startingDraft } from './starting-draft';
import TickField from '../ui/TickField.vue';

/** Design a coupon for a ticket: axes, cells, labels; with its figures as it is changed. */
const props = defineProps<{
  ticket: Ticket;
  stated: readonly StatedSetting[];
  tried: readonly TriedCell[];
  elsewhere: readonly CouponsElsewhere[];
}>();
const emit = defineEmits<{ close: [] }>();
const store = useTicket();
const shop = useShop();
const outbox = useOutbox();
const router = useRouter();
const worker = useComputations();
const equipment = store.fitted!;
const limits = couponLimits(equipment);
const units = useUnits();
/** Burnt labels say what is keyed in here; frozen with the design. */
const labelReading = units.reading.value;

/** Spare blanks of this very substrate. */
const blanks = shop
  .inUse('blank')
  .map(({ body }) => body)
  .filter(({ substrateId, left }) => substrateId === props.ticket.substrateId && left > 0);
/** What notes leave out and was typed here; the axes follow it. */
const typed = shallowRef<ReadonlyMap<string, number>>(new Map());
const compound = store.compound?.body ?? null;
const startOf = () => {
  const { stated, tried, elsewhere } = props;
  const points = startingPoints(equipment, compound, { stated, tried, elsewhere, typed: typed.value });
  return startingDraft(limits, startingBench(equipment), points, blanks, labelReading);
};
const start = shallowRef(startOf());
/** Only where the coupon rests on notes does what they leave out matter. */
const assumed = computed(() =>
  props.stated.filter((one) => isStatedFor(one, equipment, compound)).flatMap((one) => assumedOf(one)),
);
const refused = computed(() => props.elsewhere.flatMap(({ refused: why }) => why ?? []));
const draft = ref(start.value.draft);
watch(typed, () => {
  start.value = startOf();
  draft.value = start.value.draft;
});
const kept = useDraft(`coupon-${props.ticket.id}`, draft);
/** What a window proposes goes before what was typed here another time. */
const proposed = blockOf(useRoute().query.next);
if (proposed) draft.value = draftOfBlock(start.value.draft, proposed, { limits, reading: labelReading });
const made = shallowRef<DesignedCoupon | null>(null);
const fault = ref('');
const selected = ref(0);
const computing = ref(false);

async function compute(): Promise<void> {
  if (computing.value) worker.stop();
  computing.value = true;
  try {
    made.value = valueOf(
      await worker.core.design({
        design: designOf(draft.value, labelReading),
        limits,
        equipment: couponEquipment(equipment),
      }),
    );
    fault.value = '';
    selected.value = Math.min(selected.value, made.value.layout.cells.length - 1);
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    fault.value = error.message;
  } finally {
    computing.value = false;
  }
}
watchDebounced(draft, compute, { deep: true, debounce: 150, immediate: true });

/** A coupon's own file makes the same coupon again: SVG, DXF, G-code or CSV. */
async function bring(file: File): Promise<void> {
  try {
    const found = readEmbeddedDesign(decodeTable(new Uint8Array(await file.arrayBuffer())));
    const design = (await couponDesign.validate(found, { stripUnknown: true })) as CouponDesign;
    draft.value = draftOf(design, draft.value.focusOffsetMm);
    useNotices().say(`The design of ${design.code || file.name} was brought back; it gets a code of its own.`);
  } catch (error) {
    useNotices().say(`${file.name}: ${(error as Error).message} The design shown was left as it is.`, 'danger');
  }
}

const stillHere = useStillHere();

async function keep(): Promise<void> {
  if (fault.value || !made.value) return;
  const { ticket } = props;
  const id = uuid();
  const body: CreateCoupon = {
    id,
    ticketId: ticket.id,
    substrateId: ticket.substrateId,
    compoundId: ticket.compoundId,
    headId: ticket.headId,
    lensId: ticket.lensId,
    focusOffsetMm: draft.value.focusOffsetMm,
    design: designOf(draft.value, labelReading),
  };
  try {
    const answer = await outbox.send('createCoupon', { body }, 'a coupon');
    kept.forget();
    if (!stillHere()) return;
    if (answer) await router.push(`/coupons/${id}`);
    else emit('close');
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    useNotices().say(error.first, 'danger');
  }
}
</script>

<template>
  <div class="designer">
    <div class="left">
      <div class="bar">
        <h2>Coupon for {{ store.compound?.body.name ?? 'the bare material' }} on {{ equipment.substrate.name }}</h2>
        <FileLabel
          label="Bring a coupon file"
          accept=".svg,.dxf,.gcode,.nc,.csv"
          test-id="bring-design"
          @brought="bring"
        />
      </div>
      <StartingNote v-model:typed="typed" :start="start" :equipment="equipment" :assumed="assumed" :refused="refused" />
      <CouponGrid v-if="made" v-model:selected="selected" :layout="made.layout" :predictions="made.predictions" />
      <p v-if="fault" class="fault over" role="alert" data-test-id="design-fault">
        {{ fault }} <span class="quiet">The drawing shows the last design that fits.</span>
      </p>
      <DesignFigures v-if="made" :made="made" :selected="selected" />
    </div>
    <form class="right" novalidate @submit.prevent="keep">
      <AxisFields v-model="draft.x" title="Across" name="x" :limits="limits" />
      <AxisFields v-model="draft.y" title="Down" name="y" :limits="limits" />
      <TickField v-model="draft.third" class="third" test-id="third">A third axis, in blocks side by side</TickField>
      <AxisFields v-if="draft.third" v-model="draft.block" title="Blocks" name="block" sprayed :limits="limits" />
      <DesignOptions v-model="draft" />
      <div class="foot">
        <Button type="submit" label="Keep this coupon" :disabled="Boolean(fault) || !made" data-test-id="keep-coupon" />
        <Button type="button" outlined label="Back" @click="emit('close')" />
      </div>
    </form>
  </div>
</template>

<style scoped>
.designer {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(440px, 480px);
  grid-template-rows: minmax(0, 1fr);
  min-height: 0;
}

.left {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  padding: 0.8rem 1.2rem 1rem 1.5rem;
  min-width: 0;
}

.bar {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 1rem;
}

.right {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  padding: 0.8rem 1.2rem 0;
  background: var(--unto-surface);
  border-left: 1px solid var(--unto-rule);
  overflow-y: auto;
}

.third {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: 32px;
}

.third input {
  width: 1.1rem;
  height: 1.1rem;
  accent-color: var(--unto-action);
}

.over {
  padding: 0.5rem 0.8rem;
  border-left: 4px solid var(--unto-danger);
  background: var(--unto-danger-tint);
}

.foot {
  position: sticky;
  bottom: 0;
  display: flex;
  gap: 0.6rem;
  padding: 0.5rem 0 0.9rem;
  margin-top: auto;
  background: var(--unto-surface);
}

.foot :deep(.p-button:first-child) {
  flex: 1;
}

@media (max-width: 900px) {
  .designer {
    grid-template-columns: minmax(0, 1fr);
  }

  .right {
    overflow-y: visible;
  }
}
</style>
