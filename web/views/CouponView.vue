<script setup lang="ts">
import { CoreError, decodeTable, STAGES, type Outcome, type Stage } from '@unto/core';
import { couponBench, couponLimits, type Coupon } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref, shallowRef, watch } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { ApiProblem, request } from '../api/client';
import CouponGrid from '../coupons/CouponGrid.vue';
import { changedEntries, newestOutcomes } from '../coupons/outcome-map';
import { useBench } from '../stores/bench';
import { fittedBench } from '../stores/fitted';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import { saveFile } from '../ui/save-file';
import { formatDuration, formatFigure, formatNumber, withUnit } from '../ui/format';
import GradeMark from '../ui/GradeMark.vue';
import PageHead from '../ui/PageHead.vue';
import { valueOf, type DesignedCoupon } from '../workers/computations';
import { useComputations } from '../workers/useComputations';

/** A coupon: burn it, read its cells after the rinse and after the scrub, export and import. */
const props = defineProps<{ id: string }>();
const bench = useBench();
const outbox = useOutbox();
const notices = useNotices();
const router = useRouter();
const worker = useComputations();

const coupon = shallowRef<Coupon | null>(null);
const made = shallowRef<DesignedCoupon | null>(null);
const stage = ref<Stage>('rinsed');
const selected = ref(0);
const brush = ref<Outcome>('holds');
const marks = ref(new Map<number, Outcome>());
const fault = ref('');

const fitted = computed(() => (coupon.value ? fittedBench(bench, coupon.value) : null));
const kept = computed(() => (coupon.value ? newestOutcomes(coupon.value, stage.value) : new Map<number, Outcome>()));
const changed = computed(() => changedEntries(kept.value, marks.value));
const cell = computed(() => made.value?.layout.cells[selected.value]);
const prediction = computed(() => made.value?.predictions[selected.value]);
const draftKey = computed(() => `unto-cells-${props.id}-${stage.value}`);
const ticketTo = computed(() => (coupon.value?.ticketId ? `/tickets/${coupon.value.ticketId}/prove` : '/coupons'));

async function load(): Promise<void> {
  try {
    const found = await request<Coupon>('GET', `/api/coupons/${props.id}`);
    const first = coupon.value === null;
    coupon.value = found;
    if (first) stage.value = found.stage === 'rinsed' || found.stage === 'scrubbed' ? 'scrubbed' : 'rinsed';
    made.value = valueOf(
      await worker.core.design({
        design: found.design,
        limits: couponLimits(fitted.value!),
        bench: couponBench(fitted.value!),
      }),
    );
    takeMarks();
  } catch (error) {
    fault.value = (error as Error).message;
  }
}

function takeMarks(): void {
  const draft = JSON.parse(localStorage.getItem(draftKey.value) ?? '[]') as [number, Outcome][];
  marks.value = new Map([...kept.value, ...draft]);
}
watch(() => props.id, load, { immediate: true });
watch(stage, takeMarks);
watch(() => outbox.sentCount, load);

function mark(index: number, outcome: Outcome | null): void {
  const next = new Map(marks.value);
  const before = kept.value.get(index);
  if (outcome) next.set(index, outcome);
  else if (before) next.set(index, before);
  else next.delete(index);
  marks.value = next;
  localStorage.setItem(
    draftKey.value,
    JSON.stringify(changedEntries(kept.value, next).map(({ cell: at, outcome: found }) => [at, found])),
  );
}

function markAll(outcome: Outcome): void {
  made.value?.layout.cells.forEach(({ index }) => marks.value.has(index) || mark(index, outcome));
}

async function burnt(): Promise<void> {
  await send(
    'PUT',
    `/api/coupons/${props.id}/burnt`,
    { version: coupon.value!.version },
    `${coupon.value!.design.code} burnt`,
  );
}

async function keep(source: 'entered' | 'csv', entries = changed.value, at = stage.value): Promise<void> {
  const sent = await send(
    'POST',
    `/api/coupons/${props.id}/readings`,
    { id: uuid(), stage: at, source, entries },
    `${entries.length} outcomes of ${coupon.value!.design.code}`,
  );
  if (!sent) return;
  localStorage.removeItem(`unto-cells-${props.id}-${at}`);
  notices.say(`${entries.length} outcomes kept.`);
  if (at === 'rinsed' && source === 'entered') stage.value = 'scrubbed';
}

async function send(method: 'PUT' | 'POST', path: string, body: unknown, label: string): Promise<boolean> {
  try {
    await outbox.send(method, path, body, label);
    await load();
    return true;
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    notices.say(error.problem.detail, 'danger');
    return false;
  }
}

async function exportAs(kind: 'svg' | 'gcode' | 'csv'): Promise<void> {
  const { layout, predictions } = made.value!;
  const { machine } = fitted.value!;
  const code = coupon.value!.design.code;
  if (kind === 'svg') return saveFile(`${code}.svg`, 'image/svg+xml', valueOf(await worker.core.drawing(layout)));
  if (kind === 'gcode') {
    const options = {
      motion: couponBench(fitted.value!).motion,
      fullScaleS: machine.fullScaleS,
      laserOn: 'M3' as const,
    };
    return saveFile(`${code}.gcode`, 'text/plain', valueOf(await worker.core.program({ layout, options })));
  }
  const rinsed = newestOutcomes(coupon.value!, 'rinsed');
  const scrubbed = newestOutcomes(coupon.value!, 'scrubbed');
  const outcomes = layout.cells.map(({ index }) => ({
    cell: index,
    rinsed: rinsed.get(index),
    scrubbed: scrubbed.get(index),
  }));
  saveFile(`${code}.csv`, 'text/csv', valueOf(await worker.core.table({ layout, predictions, outcomes })));
}

async function importCsv(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (!file) return;
  fault.value = '';
  try {
    const text = decodeTable(new Uint8Array(await file.arrayBuffer()));
    const rows = valueOf(await worker.core.readTable({ text, layout: made.value!.layout }));
    for (const at of STAGES) {
      const before = newestOutcomes(coupon.value!, at);
      const entries = rows.flatMap((row) =>
        row[at] && before.get(row.cell) !== row[at] ? [{ cell: row.cell, outcome: row[at]! }] : [],
      );
      if (entries.length) await keep('csv', entries, at);
    }
    takeMarks();
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    fault.value = error.message;
  }
}

const BRUSHES: { outcome: Outcome; word: string; sign: string }[] = [
  { outcome: 'under', word: 'Too little', sign: '○' },
  { outcome: 'holds', word: 'Holds', sign: '●' },
  { outcome: 'over', word: 'Too much', sign: '✕' },
];
const counts = computed(() => ({ marked: marks.value.size, all: made.value?.layout.cells.length ?? 0 }));
</script>

<template>
  <PageHead
    v-if="coupon"
    :title="`Coupon ${coupon.design.code}`"
    :about="`${bench.nameOf(coupon.substrateId)} · ${bench.nameOf(coupon.compoundId) || 'no compound'} · ${bench.nameOf(coupon.headId)}, ${bench.nameOf(coupon.lensId)}`"
  >
    <RouterLink :to="ticketTo">its ticket</RouterLink>
  </PageHead>
  <p v-if="fault" class="fault said" role="alert" data-test-id="coupon-fault">{{ fault }}</p>
  <div v-if="coupon && made" class="coupon">
    <div class="left">
      <div class="bar">
        <div class="stages" role="group" aria-label="Stage">
          <button
            v-for="name in STAGES"
            :key="name"
            type="button"
            :class="{ here: stage === name }"
            :aria-pressed="stage === name"
            :data-test-id="`stage-${name}`"
            @click="stage = name"
          >
            {{ name === 'rinsed' ? 'Rinsed' : 'Scrubbed' }}
          </button>
        </div>
        <span class="quiet small"
          >{{ counts.marked }} of {{ counts.all }} cells marked · {{ formatDuration(made.runTimeS) }} to burn</span
        >
        <span class="files">
          <Button size="small" text label="SVG" data-test-id="export-svg" @click="exportAs('svg')" />
          <Button size="small" text label="G-code" data-test-id="export-gcode" @click="exportAs('gcode')" />
          <Button size="small" text label="CSV" data-test-id="export-csv" @click="exportAs('csv')" />
          <label class="import"
            >Bring a CSV<input type="file" accept=".csv,text/csv" data-test-id="import-csv" @change="importCsv"
          /></label>
        </span>
      </div>
      <CouponGrid
        v-model:selected="selected"
        :layout="made.layout"
        :predictions="made.predictions"
        :outcomes="marks"
        :editable="coupon.burntAt !== null"
        @mark="mark"
        @paint="mark($event, brush)"
      />
      <p class="quiet small">
        ○ too little &nbsp; ● holds &nbsp; ✕ too much &nbsp;·&nbsp; arrows move, T H M mark, or press and drag with the
        outcome in hand
      </p>
    </div>
    <aside class="right">
      <template v-if="cell && prediction">
        <div class="cell-head">
          <h2>Cell {{ cell.index + 1 }}</h2>
          <GradeMark
            :grade="stage === 'scrubbed' && kept.get(cell.index) ? 'proved' : kept.get(cell.index) ? 'seen' : 'guess'"
          />
        </div>
        <p class="mono big">
          {{ formatNumber(cell.powerPercent) }} % · {{ withUnit(cell.speedMmPerS, 'mm/s') }} ·
          {{ withUnit(cell.intervalMm, 'mm') }}
        </p>
        <p class="quiet">
          {{ prediction.doseJPerMm2 === null ? 'line cell' : `${formatFigure(prediction.doseJPerMm2)} J/mm²` }} · heat
          index
          {{ prediction.heatIndexK === null ? 'none: does not fire' : `${formatFigure(prediction.heatIndexK)} K` }} ·
          {{ `${formatFigure(prediction.powerW)} W` }} at the part
        </p>
      </template>
      <template v-if="!coupon.burntAt">
        <h3>Burn it</h3>
        <p>
          Coat a spare blank as for the pieces, let it dry, take the SVG or G-code to the head, and burn. Labels stand
          beside every cell, so nothing rests on memory.
        </p>
      </template>
      <template v-else>
        <h3>{{ stage === 'rinsed' ? 'After the rinse' : 'After the scrub with the pad' }}</h3>
        <div class="brushes" role="group" aria-label="Outcome in hand">
          <button
            v-for="entry in BRUSHES"
            :key="entry.outcome"
            type="button"
            :class="[entry.outcome, { here: brush === entry.outcome }]"
            :aria-pressed="brush === entry.outcome"
            :data-test-id="`brush-${entry.outcome}`"
            @click="brush = entry.outcome"
          >
            {{ entry.sign }} {{ entry.word }}
          </button>
        </div>
        <Button
          size="small"
          text
          :label="`Mark the rest “${BRUSHES.find(({ outcome }) => outcome === brush)!.word.toLowerCase()}”`"
          data-test-id="mark-rest"
          @click="markAll(brush)"
        />
        <p v-if="stage === 'rinsed'" class="quiet">
          After the rinse nearly every cell looks marked. It counts as proof only after the scrub.
        </p>
        <p v-else class="quiet">Only bonded cells remain. These outcomes make the window.</p>
      </template>
      <div class="foot">
        <Button v-if="!coupon.burntAt" label="It is burnt" data-test-id="burnt" @click="burnt" />
        <Button
          v-else-if="changed.length"
          :label="`Keep ${changed.length} outcome${changed.length > 1 ? 's' : ''}`"
          data-test-id="keep-outcomes"
          @click="keep('entered')"
        />
        <Button
          v-else-if="coupon.stage === 'scrubbed' && coupon.ticketId"
          label="Go to the window"
          data-test-id="to-window"
          @click="router.push(`/windows/${coupon.ticketId}`)"
        />
        <Button v-else disabled label="Mark the cells" />
      </div>
    </aside>
  </div>
</template>

<style scoped>
.said {
  padding: 0.6rem 1.5rem;
  background: var(--unto-danger-tint);
}

.coupon {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 400px;
  grid-template-rows: minmax(0, 1fr);
  min-height: 0;
}

.left {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  padding: 0.7rem 1.2rem 0.8rem 1.5rem;
  min-width: 0;
}

.bar {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.4rem 1rem;
}

.stages button {
  min-height: 44px;
  padding: 0 1rem;
  border: 1px solid var(--unto-rule);
  background: var(--unto-surface);
  color: var(--unto-ink);
  cursor: pointer;
}

.stages button.here {
  background: var(--unto-ink);
  color: var(--unto-ground);
  font-weight: 700;
}

.files {
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: 0.2rem;
}

.import {
  position: relative;
  padding: 0.6rem;
  color: var(--unto-action);
  font-weight: 700;
  font-size: 0.88rem;
  cursor: pointer;
  overflow: hidden;
}

.import input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}

.import:focus-within {
  outline: 2px solid var(--unto-action);
}

.right {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
  padding: 0.9rem 1.3rem 1rem;
  background: var(--unto-surface);
  border-left: 1px solid var(--unto-rule);
}

.cell-head {
  display: flex;
  justify-content: space-between;
  align-items: center;
}

.big {
  font-size: 1.1rem;
}

.brushes {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 0.5rem;
}

.brushes button {
  min-height: 48px;
  border: 1px solid var(--unto-action);
  border-radius: 4px;
  background: var(--unto-surface);
  color: var(--unto-action);
  font-weight: 700;
  cursor: pointer;
}

.brushes button.here {
  background: var(--unto-ink);
  border-color: var(--unto-ink);
  color: var(--unto-ground);
}

.brushes button.here.holds {
  background: var(--unto-bonded);
  border-color: var(--unto-bonded);
}

.brushes button.here.over {
  background: var(--unto-danger);
  border-color: var(--unto-danger);
}

.foot {
  margin-top: auto;
  display: flex;
}

.foot :deep(.p-button) {
  flex: 1;
}

@media (max-width: 900px) {
  .coupon {
    grid-template-columns: minmax(0, 1fr);
  }

  .right {
    border-left: 0;
  }
}
</style>
