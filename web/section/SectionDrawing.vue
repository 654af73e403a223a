<script setup lang="ts">
import { computed, ref } from 'vue';
import { formatTimer, formatNumber } from '../ui/format';
import {
  bandAlong,
  beamOutline,
  filmScale,
  hatchMarks,
  lineAlong,
  nowX,
  pixelsPerUm,
  riseAt,
  sinkingFilm,
  surfaceRise,
  VIEW,
  type SectionModel,
} from './geometry';
import { useUnits } from '../ui/useUnits';

/** A live cut through the part: metal or glass, coat, beam. Hover or focus a layer to read its numbers below. */
const props = defineProps<{ model: SectionModel; title: string }>();
const units = useUnits();
const { left, right, surface, slab } = VIEW;
const centre = (left + right) / 2;
const read = ref('');

const perUm = computed(() => pixelsPerUm(props.model));
const film = computed(() => props.model.film);
const wetPx = computed(() => (film.value?.wetUm ?? 0) * perUm.value);
const dryPx = computed(() => (film.value?.dryUm ?? 0) * perUm.value);
const sinking = computed(() => sinkingFilm(wetPx.value, dryPx.value));
const filmTop = computed(() => surface - (props.model.mode === 'done' ? Math.max(2, dryPx.value * 0.25) : dryPx.value));
const beam = computed(() => (props.model.beam ? beamOutline(props.model.beam, surface - dryPx.value) : null));
const rise = computed(() => surfaceRise(props.model, beam.value?.depthPx ?? 0));
const marks = computed(() =>
  props.model.beam && beam.value ? hatchMarks(props.model.beam.intervalMm * beam.value.pxPerMm) : [],
);
/** Nothing is drawn above a part without beam or spray. */
const top = computed(() => (props.model.mode === 'plan' || props.model.mode === 'done' ? 150 : 20));
const bandTextY = computed(() => Math.min(band.value?.top ?? surface, surface - dryPx.value) - 56);
const nowAt = computed(() => nowX(props.model.drying ?? 0));

const words = computed(() => {
  const { model } = props;
  const filmText = film.value
    ? `Coat: ${units.figure('film', film.value.wetUm)} laid wet, ${units.figure('film', film.value.dryUm)} dry, ${film.value.measured ? 'from the weighing' : 'as planned'}${model.band ? `; wanted ${units.span('film', model.band.lowUm, model.band.highUm)}` : ''}.`
    : 'No coat.';
  const beamText = model.beam
    ? `Beam: spot ${units.text('length', model.beam.spotMm, 3)} (1/e²), ± ${units.text('length', model.beam.depthMm, 3)} of depth until it grows ${formatNumber(model.beam.growth * 100)} %, focus ${model.beam.offsetMm === 0 ? 'on the surface' : `${units.text('length', Math.abs(model.beam.offsetMm), 3)} ${model.beam.offsetMm > 0 ? 'above' : 'below'} it`}, lines ${units.text('interval', model.beam.intervalMm, 3)} apart.`
    : '';
  const bent = model.mode === 'beam' && model.surface ? ` ${model.surface.words}` : '';
  return {
    part: `Part: ${model.material}, ${units.text('length', model.thicknessMm, 3)}.${bent}`,
    film: filmText,
    beam: beamText,
  };
});
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

      <g
        class="layer"
        tabindex="0"
        role="img"
        :aria-label="words.part"
        @focus="read = words.part"
        @mouseenter="read = words.part"
      >
        <path :d="partPath" :class="model.vitreous ? 'glass' : 'metal'" />
        <path v-if="!model.vitreous" :d="partPath" fill="url(#hatch)" />
        <path :d="`${lineAlong(rise, 0)} ${lineAlong(rise, -slab)}`" class="edge" />
        <text :x="centre" :y="surface + 38 - riseAt(rise, centre)" text-anchor="middle" class="on-part">
          {{ model.material }}
        </text>
      </g>

      <template v-if="film && model.mode === 'coat'">
        <g v-if="model.distanceMm" aria-hidden="true">
          <path :d="`M118 66 L76 ${surface - wetPx} H160 Z`" class="spray" />
          <path d="M110 42h16v14h4l4 10h-32l4 -10h4z" class="nozzle" />
          <path :d="`M40 66V${surface - wetPx} M36 66h8 M36 ${surface - wetPx}h8`" class="dimension" />
          <text x="48" :y="(66 + surface - wetPx) / 2 - 6" class="mono">
            {{ units.text('length', model.distanceMm, 3) }}
          </text>
        </g>
        <g
          class="layer"
          tabindex="0"
          role="img"
          :aria-label="words.film"
          @focus="read = words.film"
          @mouseenter="read = words.film"
        >
          <path :d="`${sinking.path} V${surface} H${left} Z`" class="wet" />
          <path
            :d="`${sinking.path} V${surface} H${left} Z`"
            fill="url(#grain)"
            :style="{ clipPath: `inset(0 0 0 ${36}%)` }"
          />
          <path :d="sinking.path" class="film-line" />
        </g>
        <text
          :x="left + 16"
          :y="wetPx > 40 ? surface - wetPx / 2 + 5 : surface - wetPx - 12"
          class="mono strong in-film"
        >
          {{ units.figure('film', film.wetUm) }}
          <tspan class="small-text">laid wet</tspan>
        </text>
        <text :x="right - 40" :y="surface - dryPx - 12" text-anchor="end" class="mono strong">
          {{ units.figure('film', film.dryUm) }}
          <tspan class="small-text">dry</tspan>
        </text>
        <text
          v-if="film.lowUm !== null && film.highUm !== null"
          :x="right - 40"
          :y="surface - dryPx - 31"
          text-anchor="end"
          class="small-text mono"
        >
          {{ units.figures('film', film.lowUm, film.highUm) }}
        </text>
        <g v-if="model.drying !== null" aria-hidden="true">
          <path :d="`M${nowAt} ${96} V${surface + slab}`" class="now" />
          <text :x="nowAt + 6" y="106" class="now-text">now</text>
        </g>
        <g v-if="model.dryS" aria-hidden="true" class="axis">
          <path
            :d="`M${left} 416 H${right} M${left + (right - left) * 0.12} 411v10 M${left + (right - left) * 0.7} 411v10`"
            class="axis-line"
          />
          <text :x="left + (right - left) * 0.12" y="434" text-anchor="middle" class="mono small-text">0:00</text>
          <text :x="left + (right - left) * 0.7" y="434" text-anchor="middle" class="mono small-text">
            {{ formatTimer(model.dryS) }} dry, look for gloss
          </text>
        </g>
      </template>

      <template v-else-if="film">
        <g
          class="layer"
          tabindex="0"
          role="img"
          :aria-label="words.film"
          @focus="read = words.film"
          @mouseenter="read = words.film"
        >
          <template v-if="model.mode === 'done'">
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
        </g>
        <text
          v-if="model.mode !== 'done'"
          :x="right - 40"
          :y="filmTop - 14 - riseAt(rise, right - 60)"
          text-anchor="end"
          class="mono strong"
        >
          {{ units.figure('film', film.dryUm) }}
          <tspan class="small-text">dry{{ model.mode === 'plan' ? ', planned' : '' }}</tspan>
        </text>
        <text v-else :x="left + 8" :y="surface - 26" class="small-text">fired, washed: only what bonded is left</text>
      </template>

      <g
        v-if="band && model.mode !== 'done'"
        aria-hidden="true"
        :transform="`translate(0 ${-riseAt(rise, right - 8)})`"
      >
        <rect :x="right - 14" :y="band.top" width="12" :height="Math.max(3, band.bottom - band.top)" class="band" />
        <text :x="right" :y="bandTextY" text-anchor="end" class="band-text">
          band {{ units.span('film', model.band!.lowUm, model.band!.highUm) }}
        </text>
        <path :d="`M${right - 8} ${bandTextY + 6} V${band.top - 3}`" class="band-line" />
      </g>

      <template v-if="beam && model.mode === 'beam'">
        <g
          class="layer"
          tabindex="0"
          role="img"
          :aria-label="words.beam"
          @focus="read = words.beam"
          @mouseenter="read = words.beam"
        >
          <polygon :points="beam.points" class="beam" />
          <path
            v-for="x in marks"
            :key="x"
            :d="`M${x} ${surface - dryPx - 2 - riseAt(rise, x)} v-8`"
            class="line-tick"
          />
        </g>
        <g aria-hidden="true">
          <path :d="`M${centre - 130} ${beam.focusY - beam.depthPx} h-10 v${2 * beam.depthPx} h10`" class="depth" />
          <text :x="centre - 148" :y="beam.focusY - beam.depthPx + 4" text-anchor="end" class="mono">
            ± {{ units.text('length', model.beam!.depthMm, 2) }}
          </text>
          <text :x="centre - 148" :y="beam.focusY - beam.depthPx + 22" text-anchor="end" class="small-text">
            in focus (spot +{{ formatNumber(model.beam!.growth * 100) }} %)
          </text>
          <path :d="`M${centre - 160} ${beam.focusY} H${centre + 160}`" class="focus-line" />
          <text :x="centre + 60" y="52" class="mono strong">
            {{ units.text('length', model.beam!.spotMm, 3) }}
            <tspan class="small-text">spot, 1/e²</tspan>
          </text>
          <text :x="centre + 60" y="74" class="mono strong">
            {{ units.text('interval', model.beam!.intervalMm, 3) }}
            <tspan class="small-text">between lines</tspan>
          </text>
        </g>
      </template>
    </svg>
    <p class="read quiet" aria-live="polite">
      {{ read || 'Point at a layer, or go to it with Tab, to read its numbers.' }}
    </p>
  </figure>
</template>

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
  font-size: 14px;
}

text {
  fill: var(--unto-ink);
}

.mono {
  font-family: var(--unto-mono);
}

.strong {
  font-weight: 700;
}

.small-text {
  fill: var(--unto-quiet);
  font-size: 13px;
  font-weight: 400;
}

.in-film {
  paint-order: stroke;
  stroke: var(--unto-coat-fill);
  stroke-width: 4px;
}

.on-part {
  paint-order: stroke;
  stroke: var(--unto-metal);
  stroke-width: 5px;
}

.metal {
  fill: var(--unto-metal);
}

.glass {
  fill: var(--unto-glass);
}

.hatch {
  stroke: var(--unto-metal-line);
  stroke-width: 1;
}

.edge {
  stroke: var(--unto-ink);
  stroke-width: 1.5;
  fill: none;
}

.wet {
  fill: var(--unto-coat-fill);
}

.ghost {
  fill: none;
  stroke: var(--unto-coat-line);
  stroke-dasharray: 5 4;
}

.grain {
  fill: var(--unto-coat-line);
  opacity: 0.7;
}

.film-line {
  fill: none;
  stroke: var(--unto-coat-line);
  stroke-width: 2;
}

.bonded {
  fill: var(--unto-ink);
}

.band {
  fill: var(--unto-bonded-tint);
  stroke: var(--unto-bonded);
  stroke-width: 1.5;
}

.band-text {
  fill: var(--unto-bonded);
  font-size: 13px;
}

.band-line {
  stroke: var(--unto-bonded);
}

.spray {
  fill: var(--unto-coat-tint);
}

.nozzle {
  fill: var(--unto-ink);
}

.dimension,
.axis-line {
  stroke: var(--unto-quiet);
  fill: none;
}

.now {
  stroke: var(--unto-coat-line);
  stroke-width: 2;
  stroke-dasharray: 4 4;
}

.now-text {
  fill: var(--unto-coat);
  font-weight: 700;
}

.beam {
  fill: var(--unto-danger);
  opacity: 0.28;
}

.line-tick {
  stroke: var(--unto-danger);
  stroke-width: 1.5;
}

.depth {
  fill: none;
  stroke: var(--unto-ink);
}

.focus-line {
  stroke: var(--unto-danger);
  stroke-dasharray: 3 4;
}

.layer {
  outline: none;
}

.layer:hover,
.layer:focus-visible {
  filter: brightness(0.94);
}

.layer:focus-visible > :first-child {
  stroke: var(--unto-action);
  stroke-width: 3;
}

.read {
  font-size: 0.88rem;
  min-height: 1.3em;
}
</style>
