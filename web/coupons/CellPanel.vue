<script setup lang="ts">
import {
  settingWords,
  type CellPrediction,
  type CouponLayout,
  type Grade,
  type Outcome,
  type ProposedOutcome,
  type Stage,
} from '@unto/core';
import type { Aim } from '@unto/contract';
import { computed } from 'vue';
import { formatFigure } from '../ui/format';
import GradeMark from '../evidence/GradeMark.vue';
import { contrastSpan, keptShare, SHOWN_MEASURES, shownNumber, type StagePictures } from './measures';
import type { OpenedPicture } from './opened-picture';
import { useUnits } from '../ui/useUnits';

/** One cell: its setting, both of its pictures at one scale, its measures before and after, its outcome. */
const props = defineProps<{
  layout: CouponLayout;
  prediction: CellPrediction;
  index: number;
  pictures: Readonly<Record<Stage, OpenedPicture | null>>;
  tone: Aim['tone'];
  outcome: Outcome | null;
  proposed: ProposedOutcome | null;
  reason: string;
  /** Whether what is shown is kept after the scrub, kept, or neither. */
  grade: Grade;
}>();
const cell = computed(() => props.layout.cells[props.index]!);
const units = useUnits();
const entries = computed<StagePictures>(() => ({
  rinsed: props.pictures.rinsed?.entries ?? null,
  scrubbed: props.pictures.scrubbed?.entries ?? null,
}));
const crop = computed(() => {
  const { cell: size, blank, gapMm } = props.layout.design;
  const margin = Math.max(gapMm, 0.6);
  return {
    box: `${cell.value.xMm - margin} ${blank.heightMm - cell.value.yMm - size.heightMm - margin} ${size.widthMm + 2 * margin} ${size.heightMm + 2 * margin}`,
    ...blank,
  };
});
const read = computed(() => (['rinsed', 'scrubbed'] as const).map((stage) => entries.value[stage]?.cells[props.index]));
const spans = computed(() =>
  (['rinsed', 'scrubbed'] as const).map((stage) => {
    const one = entries.value[stage];
    return one && contrastSpan(one, props.tone, props.index);
  }),
);
const saysProposed = computed(() => {
  if (!props.proposed) return '';
  const { because, sure } = props.proposed;
  return `Proposed: ${because}.${sure ? '' : ' Look at it: as it is kept, it counts as judged by eye.'}`;
});
const unreadable = computed(() => read.value.map((measure) => measure?.unreadable ?? null));
const kept = computed(() => keptShare(entries.value, props.index));
const WHY = { glare: 'glare lies on it', blur: 'it is out of focus', outside: 'it lies outside the picture' } as const;
</script>

<template>
  <div class="head">
    <h2>{{ settingWords(cell, units.reading.value) }}</h2>
    <GradeMark :grade="grade" />
  </div>
  <p class="quiet small">
    {{ prediction.doseJPerMm2 === null ? 'line cell' : `${formatFigure(prediction.doseJPerMm2)} J/mm²` }} · heat index
    {{ prediction.heatIndexK === null ? `none: ${cell.unreachableBecause}` : formatFigure(prediction.heatIndexK) }}
    · cell {{ index + 1 }}{{ cell.role === 'anchor' ? ', anchor' : cell.role === 'bare' ? ', uncoated' : '' }}
  </p>
  <div v-if="pictures.rinsed?.level || pictures.scrubbed?.level" class="crops">
    <figure v-for="stage in ['rinsed', 'scrubbed'] as const" :key="stage">
      <svg v-if="pictures[stage]?.level" :viewBox="crop.box" :aria-label="`Cell ${index + 1}, ${stage}`" role="img">
        <image
          :href="pictures[stage]!.level!.url"
          :width="crop.widthMm"
          :height="crop.heightMm"
          preserveAspectRatio="none"
        />
      </svg>
      <p v-else class="none quiet">no picture</p>
      <figcaption class="quiet small">{{ stage }}</figcaption>
    </figure>
  </div>
  <table v-if="entries.rinsed || entries.scrubbed" class="plain measures" data-test-id="cell-measures">
    <thead>
      <tr>
        <th>measured</th>
        <th class="number">rinsed</th>
        <th class="number">scrubbed</th>
        <th class="number">keeps</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="measure in SHOWN_MEASURES" :key="measure.key">
        <td>{{ measure.name }} {{ measure.unit }}</td>
        <td v-for="(one, i) in read" :key="i" class="number mono">
          {{ one ? shownNumber(measure.of(one, tone), measure.digits) : '–' }}
        </td>
        <td class="number mono">
          {{ measure.key === 'contrast' && kept !== null ? `${Math.round(100 * kept)} %` : '–' }}
        </td>
      </tr>
      <tr v-if="spans.some(Boolean)" class="quiet">
        <td>within, ΔL*</td>
        <td v-for="(span, i) in spans" :key="i" class="number mono">
          {{ span ? `${Math.round(span[0]) + 0} to ${Math.round(span[1]) + 0}` : '–' }}
        </td>
        <td></td>
      </tr>
    </tbody>
  </table>
  <p v-for="(why, i) in unreadable" v-show="why" :key="i" class="fault small">
    {{ i ? 'Scrubbed' : 'Rinsed' }} picture: this cell cannot be read, {{ why ? WHY[why] : '' }}.
  </p>
  <p v-if="proposed" class="small" data-test-id="cell-proposal">
    <template v-if="outcome === proposed.outcome">{{ saysProposed }}</template>
    <template v-else>Taken by hand against the picture ({{ proposed.because }}): {{ reason }}</template>
  </p>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: start;
  gap: 0.6rem;
}

h2 {
  font-size: 1.05rem;
}

.crops {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.6rem;
}

figure {
  margin: 0;
}

.crops svg,
.none {
  display: block;
  width: 100%;
  height: 96px;
  border: 1px solid var(--unto-rule);
}

.none {
  display: grid;
  place-items: center;
  margin: 0;
}

.measures {
  font-size: 0.9rem;
}

.measures td,
.measures th {
  padding: 0.12rem 0.2rem;
  white-space: nowrap;
}

p {
  margin: 0;
}
</style>
