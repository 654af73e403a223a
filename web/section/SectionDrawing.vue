<script setup lang="ts">
import { useElementSize } from '@vueuse/core';
import { computed, ref, useTemplateRef } from 'vue';
import {
  bandAlong,
  beamOutline,
  filmScale,
  hatchMarks,
  lineAlong,
  pixelsPerUm,
  riseAt,
  surfaceRise,
  VIEW,
  type SectionModel,
} from './geometry';
import { useUnits } from '../ui/useUnits';
import SectionBeam from './SectionBeam.vue';
import SectionCoat from './SectionCoat.vue';
import SectionLayer from './SectionLayer.vue';
import { sectionWords } from './section-words';

/** A live cut through the part: metal or glass, coat, beam. Hover or focus a layer to read its numbers below. */
const props = defineProps<{ model: SectionModel; title: string }>();
const units = useUnits();
const { left, right, surface, slab } = VIEW;
const centre = (left + right) / 2;
const read = ref('');

const perUm = computed(() => pixelsPerUm(props.model));
const film = computed(() => props.model.film);
const dryPx = computed(() => (film.value?.dryUm ?? 0) * perUm.value);
/** Fired and washed. */
const done = computed(() => props.model.mode === 'done' && props.model.fired);
const filmTop = computed(() => surface - (done.value ? Math.max(2, dryPx.value * 0.25) : dryPx.value));
const beam = computed(() => (props.model.beam ? beamOutline(props.model.beam, surface - dryPx.value) : null));
const rise = computed(() => surfaceRise(props.model, beam.value?.depthPx ?? 0));
const marks = computed(() =>
  props.model.beam?.intervalMm && beam.value ? hatchMarks(props.model.beam.intervalMm * beam.value.pxPerMm) : [],
);
/** Nothing is drawn above a part without beam or spray. */
const top = computed(() => (props.model.mode === 'plan' || props.model.mode === 'done' ? 150 : 20));
const bandTextY = computed(() => Math.min(band.value?.top ?? surface, surface - dryPx.value) - 56);

/** Letters stay readable however small the drawing is: 11.5 px at least, counted in the units it is drawn in. */
const drawing = useTemplateRef<SVGSVGElement>('drawing');
const { width: shownWidth, height: shownHeight } = useElementSize(drawing);
const letters = computed(() => {
  const scale = Math.min(shownWidth.value / VIEW.width, shownHeight.value / (VIEW.height - top.value));
  return `${Math.max(14, scale > 0 ? 12.2 / scale : 14).toFixed(1)}px`;
});

const words = computed(() => sectionWords(props.model, units));
/** Flat parts are broken at their sides; a warped one is drawn whole, as its artwork lies. */
const partPath = computed(() =>
  props.model.surface && props.model.mode === 'beam'
    ? bandAlong(rise.value, 0, slab)
    : `M${left} ${surface} H${right} v22 l-9 9 9 9 V${surface + slab} H${left} v-22 l9 -9 -9 -9 Z`,
);
const coatPath = computed(() => bandAlong(rise.value, surface - filmTop.value, 0));
const band = computed(() => {
  const { band: wanted } = props.model;
  return wanted ? { top: surface - wanted.highUm * perUm.value, bottom: surface - wanted.lowUm * perUm.value } : null;
});
</script>

<template>
  <figure class="section">
    <figcaption>
      <h2>{{ title }}</h2>
      <span class="quiet small"
        >film drawn {{ filmScale(model) }} ·
        {{
          model.mode === 'beam' && model.surface
            ? 'heights to the depth of focus'
            : `${model.vitreous ? 'glass' : 'metal'} broken`
        }}</span
      >
    </figcaption>
    <svg
      ref="drawing"
      :style="{ fontSize: letters }"
      :viewBox="`0 ${top} ${VIEW.width} ${VIEW.height - top}`"
      role="group"
      :aria-label="`${words.part} ${words.film} ${words.beam}`"
    >
      <defs>
        <pattern id="hatch" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V9" class="hatch" />
        </pattern>
        <pattern id="grain" width="6" height="6" patternUnits="userSpaceOnUse">
          <circle cx="1.5" cy="1.5" r="0.7" class="grain" />
          <circle cx="4.5" cy="4.5" r="0.7" class="grain" />
        </pattern>
      </defs>

      <SectionLayer :words="words.part" @read="read = $event">
        <path :d="partPath" :class="model.vitreous ? 'glass' : 'metal'" />
        <path v-if="!model.vitreous" :d="partPath" fill="url(#hatch)" />
        <path :d="`${lineAlong(rise, 0)} ${lineAlong(rise, -slab)}`" class="edge" />
        <text :x="centre" :y="surface + 38 - riseAt(rise, centre)" text-anchor="middle" class="on-part">
          {{ model.material }}
        </text>
      </SectionLayer>

      <SectionCoat v-if="film && model.mode === 'coat'" :model="model" :words="words.film" @read="read = $event" />

      <template v-else-if="film">
        <SectionLayer :words="words.film" @read="read = $event">
          <template v-if="done">
            <rect
              v-for="x in marks"
              :key="x"
              :x="x - 4"
              :y="filmTop"
              width="8"
              :height="surface - filmTop"
              class="bonded"
            />
          </template>
          <template v-else>
            <path :d="coatPath" :class="model.mode === 'plan' ? 'ghost' : 'wet'" />
            <template v-if="model.mode !== 'plan'">
              <path :d="coatPath" fill="url(#grain)" />
              <path :d="lineAlong(rise, surface - filmTop)" class="film-line" />
            </template>
          </template>
        </SectionLayer>
        <text
          v-if="!done"
          :x="right - 40"
          :y="filmTop - 14 - riseAt(rise, right - 60)"
          text-anchor="end"
          class="mono strong"
        >
          {{ units.figure('film', film.dryUm) }}
          <tspan class="small-text">dry{{ model.mode === 'plan' ? ', planned' : '' }}</tspan>
        </text>
        <text v-else :x="left + 8" :y="surface - 26" class="small-text">fired, washed: only what bonded is left</text>
        <text v-if="model.mode === 'done' && !done" :x="left + 8" :y="filmTop - 14" class="small-text">
          nothing was fired yet
        </text>
      </template>

      <g v-if="band && !done" aria-hidden="true" :transform="`translate(0 ${-riseAt(rise, right - 8)})`">
        <rect :x="right - 14" :y="band.top" width="12" :height="Math.max(3, band.bottom - band.top)" class="band" />
        <text :x="right" :y="bandTextY" text-anchor="end" class="band-text">
          band {{ units.span('film', model.band!.lowUm, model.band!.highUm) }}
        </text>
        <path :d="`M${right - 8} ${bandTextY + 6} V${band.top - 3}`" class="band-line" />
      </g>

      <SectionBeam
        v-if="beam && model.mode === 'beam'"
        :model="model"
        :beam="beam"
        :marks="marks"
        :rise="rise"
        :words="words.beam"
        @read="read = $event"
      />
    </svg>
    <p class="read quiet" aria-live="polite">
      {{ read || 'Point at a layer, or go to it with Tab, to read its numbers.' }}
    </p>
  </figure>
</template>

<style scoped src="./section.css"></style>

<style scoped>
.section {
  margin: 0;
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
}

figcaption {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 1rem;
}

svg {
  width: 100%;
  flex: 1;
  min-height: 240px;
  max-height: 520px;
}

.read {
  font-size: 0.88rem;
  min-height: 1.3em;
}
</style>
