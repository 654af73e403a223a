<script setup lang="ts">
import {
  compoundForJob,
  CoreError,
  lineOverlap,
  thinSheetFactor,
  makeFigure,
  USUAL_TRANSFER,
  decisive,
  PARAMETER_UNITS,
} from '@unto/core';
import { couponBench, couponLimits, type Coupon, type CreateCoupon, type Ticket } from '@unto/contract';
import { watchDebounced } from '@vueuse/core';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import { ApiProblem } from '../api/client';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import { useTicket } from '../stores/ticket';
import ChoiceField from '../ui/ChoiceField.vue';
import { formatDuration, formatFigure, formatNumber, withUnit } from '../ui/format';
import NumberField from '../ui/NumberField.vue';
import { useDraft } from '../ui/useDraft';
import { valueOf, type DesignedCoupon } from '../workers/computations';
import { useComputations } from '../workers/useComputations';
import AxisFields from './AxisFields.vue';
import CouponGrid from './CouponGrid.vue';
import { designOf, firstDraft, fixedParameters } from './design-form';

/** Design a coupon for a ticket: axes, cells, labels; with its figures as it is changed. */
const props = defineProps<{ ticket: Ticket }>();
const emit = defineEmits<{ close: [] }>();
const store = useTicket();
const outbox = useOutbox();
const router = useRouter();
const worker = useComputations();
const bench = store.fitted!;
const limits = couponLimits(bench);

const draft = ref(firstDraft(limits));
const kept = useDraft(`coupon-${props.ticket.id}`, draft);
const made = shallowRef<DesignedCoupon | null>(null);
const fault = ref('');
const selected = ref(0);
const computing = ref(false);
const fixed = computed(() => fixedParameters(draft.value));
const NAMES = { power: 'Power', speed: 'Speed', interval: 'Line interval' } as const;
const FIXED_KEYS = { power: 'powerPercent', speed: 'speedMmPerS', interval: 'intervalMm' } as const;

async function compute(): Promise<void> {
  if (computing.value) worker.stop();
  computing.value = true;
  try {
    made.value = valueOf(
      await worker.core.design({ design: designOf(draft.value), limits, bench: couponBench(bench) }),
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

const cell = computed(() => made.value?.layout.cells[selected.value]);
const prediction = computed(() => made.value?.predictions[selected.value]);
const spotMm = Math.sqrt(bench.lens.spotXMm * bench.lens.spotYMm);
const overlap = computed(() => (cell.value ? lineOverlap(cell.value.intervalMm, spotMm) : 0));
/** How much hotter the sheet runs than a thick piece, over the time of a row. */
const thinSheet = computed(() => {
  if (!cell.value || !prediction.value?.heatIndexK) return 1;
  const { conductivity, diffusivity, thicknessMm } = bench.substrate;
  const { speedMmPerS } = cell.value;
  const heat = { powerW: prediction.value.powerW, speedMmPerS, radiusMm: spotMm / 2, conductivity, diffusivity };
  return thinSheetFactor(heat, { thicknessMm, historyS: draft.value.cellWidthMm / speedMmPerS });
});
const unreachable = computed(() => made.value?.layout.cells.filter(({ reachable }) => !reachable).length ?? 0);
const hottest = computed(() =>
  Math.max(0, ...(made.value?.predictions.map(({ heatIndexK }) => heatIndexK ?? 0) ?? [])),
);
const compound = computed(() => {
  const { compound: chosen } = store;
  if (!chosen) return null;
  const { body } = chosen;
  const areaMm2 = draft.value.blankWidthMm * draft.value.blankHeightMm;
  if (!(areaMm2 > 0)) return null;
  return makeFigure({
    formula: 'compoundForJob',
    value: compoundForJob({
      ...body,
      areaMm2,
      dryFilmUm: (body.bandLowUm + body.bandHighUm) / 2,
      transfer: USUAL_TRANSFER.value,
    }),
    unit: 'g',
    inputs: [decisive('share reaching the part', 'usual', { value: USUAL_TRANSFER.value })],
  });
});

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
    design: designOf(draft.value),
  };
  try {
    const answer = await outbox.send<Coupon>('POST', '/api/coupons', body, 'a coupon');
    kept.forget();
    if (answer) await router.push(`/coupons/${id}`);
    else emit('close');
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    useNotices().say(error.problem.faults?.[0]?.message ?? error.problem.detail, 'danger');
  }
}
const FILLS = [
  { value: 'filled', label: 'filled' },
  { value: 'lines', label: 'separate lines' },
] as const;
const DIRECTIONS = [
  { value: 'two-way', label: 'both ways' },
  { value: 'one-way', label: 'one way' },
] as const;
const LABELS = [
  { value: 'each', label: 'at every cell' },
  { value: 'edges', label: 'rows and columns' },
] as const;
</script>

<template>
  <div class="designer">
    <div class="left">
      <div class="bar">
        <h2>Coupon for {{ store.compound?.body.name ?? 'the bare material' }} on {{ bench.substrate.name }}</h2>
      </div>
      <CouponGrid v-if="made" v-model:selected="selected" :layout="made.layout" :predictions="made.predictions" />
      <p v-if="fault" class="fault over" role="alert" data-test-id="design-fault">
        {{ fault }} <span class="quiet">The drawing shows the last design that fits.</span>
      </p>
      <dl v-if="made" class="figures">
        <div>
          <dt>cells</dt>
          <dd class="mono" data-test-id="cell-count">{{ made.layout.cells.length }}</dd>
        </div>
        <div>
          <dt>run time</dt>
          <dd class="mono">{{ formatDuration(made.runTimeS) }}</dd>
        </div>
        <div v-if="made.runUpMm">
          <dt>run-up beside the cells</dt>
          <dd class="mono">{{ formatFigure(made.runUpMm, 2) }} mm</dd>
        </div>
        <div v-if="compound">
          <dt>compound, whole blank</dt>
          <dd class="mono">{{ `${formatFigure(compound.value, 2)} g` }}</dd>
        </div>
        <div>
          <dt>hottest cell</dt>
          <dd class="mono">{{ `${formatFigure(hottest)} K` }}</dd>
        </div>
        <div v-if="cell && prediction">
          <dt>
            cell {{ cell.index + 1 }}: {{ formatNumber(cell.powerPercent) }} %,
            {{ withUnit(cell.speedMmPerS, 'mm/s') }}, {{ withUnit(cell.intervalMm, 'mm') }}
          </dt>
          <dd class="mono" data-test-id="cell-dose">
            {{ prediction.doseJPerMm2 === null ? 'lines' : `${formatFigure(prediction.doseJPerMm2)} J/mm²` }} ·
            {{ prediction.heatIndexK === null ? 'does not fire' : `${formatFigure(prediction.heatIndexK)} K` }}
          </dd>
        </div>
        <div v-if="cell && draft.fill === 'filled'">
          <dt>lines overlap</dt>
          <dd class="mono">{{ overlap > 0 ? `${formatFigure(overlap * 100, 2)} %` : 'not at all' }}</dd>
        </div>
        <div v-if="thinSheet > 1.1">
          <dt>thin sheet, runs hotter</dt>
          <dd class="mono">× {{ formatFigure(thinSheet, 2) }}</dd>
        </div>
        <p v-if="unreachable" class="fault">
          {{ unreachable }} crossed cells: the head does not fire below {{ bench.head.firingThresholdPercent }} %.
        </p>
      </dl>
    </div>
    <form class="right" novalidate @submit.prevent="keep">
      <AxisFields v-model="draft.x" title="Across" name="x" />
      <AxisFields v-model="draft.y" title="Down" name="y" />
      <label class="third"
        ><input v-model="draft.third" type="checkbox" data-test-id="third" /> A third axis, in blocks side by
        side</label
      >
      <AxisFields v-if="draft.third" v-model="draft.block" title="Blocks" name="block" />
      <div class="grid">
        <NumberField
          v-for="parameter in fixed"
          :key="parameter"
          v-model="draft[FIXED_KEYS[parameter]]"
          :label="`${NAMES[parameter]}, all cells`"
          :unit="PARAMETER_UNITS[parameter]"
          :test-id="`fixed-${parameter}`"
        />
        <NumberField v-model="draft.passes" label="Passes" />
        <NumberField v-model="draft.focusOffsetMm" label="Focus offset" unit="mm" />
        <NumberField v-model="draft.blankWidthMm" label="Blank width" unit="mm" test-id="blank-width" />
        <NumberField v-model="draft.blankHeightMm" label="Blank height" unit="mm" test-id="blank-height" />
        <NumberField v-model="draft.marginMm" label="Margin" unit="mm" test-id="margin" />
        <NumberField v-model="draft.cellWidthMm" label="Cell width" unit="mm" test-id="cell-width" />
        <NumberField v-model="draft.cellHeightMm" label="Cell height" unit="mm" test-id="cell-height" />
        <NumberField v-model="draft.gapMm" label="Gap" unit="mm" test-id="gap" />
        <ChoiceField v-model="draft.fill" label="Cells" :options="FILLS" test-id="fill" />
        <NumberField v-if="draft.fill === 'lines'" v-model="draft.lineSpacingMm" label="Line spacing" unit="mm" />
        <NumberField v-model="draft.hatchAngleDeg" label="Hatch angle" unit="°" test-id="angle" />
        <ChoiceField v-model="draft.directions" label="Rows run" :options="DIRECTIONS" />
        <ChoiceField v-model="draft.labelsAt" label="Labels" :options="LABELS" test-id="labels" />
        <NumberField v-model="draft.labelHeightMm" label="Letter height" unit="mm" />
        <NumberField v-model="draft.labelPowerPercent" label="Label power" unit="%" />
        <NumberField v-model="draft.labelSpeedMmPerS" label="Label speed" unit="mm/s" />
      </div>
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

.right {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  padding: 0.8rem 1.2rem 0;
  background: var(--unto-surface);
  border-left: 1px solid var(--unto-rule);
  overflow-y: auto;
}

.grid {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0.45rem 0.7rem;
  align-items: end;
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

.figures {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.6rem;
  margin: 0;
}

dt {
  font-size: 0.8rem;
  color: var(--unto-quiet);
}

dd {
  margin: 0;
  font-size: 1.05rem;
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
