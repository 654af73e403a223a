<script setup lang="ts">
import { computed } from 'vue';
import { formatTimer } from '../ui/format';
import { useUnits } from '../ui/useUnits';
import { nowX, pixelsPerUm, sinkingFilm, VIEW, type SectionModel } from './geometry';
import SectionLayer from './SectionLayer.vue';

/** The coat as it is sprayed on and sinks while it dries. */
const props = defineProps<{ model: SectionModel; words: string }>();
defineEmits<{ read: [words: string] }>();
const units = useUnits();
const { left, right, surface, slab } = VIEW;
const film = computed(() => props.model.film!);
const perUm = computed(() => pixelsPerUm(props.model));
const wetPx = computed(() => film.value.wetUm * perUm.value);
const dryPx = computed(() => film.value.dryUm * perUm.value);
const sinking = computed(() => sinkingFilm(wetPx.value, dryPx.value));
const nowAt = computed(() => nowX(props.model.drying ?? 0));
</script>

<template>
  <g v-if="model.distanceMm" aria-hidden="true">
    <path :d="`M118 66 L76 ${surface - wetPx} H160 Z`" class="spray" />
    <path d="M110 42h16v14h4l4 10h-32l4 -10h4z" class="nozzle" />
    <path :d="`M40 66V${surface - wetPx} M36 66h8 M36 ${surface - wetPx}h8`" class="dimension" />
    <text x="48" :y="(66 + surface - wetPx) / 2 - 6" class="mono">
      {{ units.text('length', model.distanceMm, 3) }}
    </text>
  </g>
  <SectionLayer :words="words" @read="$emit('read', $event)">
    <path :d="`${sinking.path} V${surface} H${left} Z`" class="wet" />
    <path
      :d="`${sinking.path} V${surface} H${left} Z`"
      fill="url(#grain)"
      :style="{ clipPath: `inset(0 0 0 ${36}%)` }"
    />
    <path :d="sinking.path" class="film-line" />
  </SectionLayer>
  <text :x="left + 16" :y="wetPx > 40 ? surface - wetPx / 2 + 5 : surface - wetPx - 12" class="mono strong in-film">
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

<style scoped src="./section.css"></style>
