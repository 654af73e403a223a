<script setup lang="ts">
import { computed } from 'vue';
import { formatNumber } from '../ui/format';
import { useUnits } from '../ui/useUnits';
import { beamOutline, pixelsPerUm, riseAt, surfaceRise, VIEW, type SectionModel } from './geometry';
import SectionLayer from './SectionLayer.vue';

/** The beam with its waist, its depth of focus, and the lines it draws. */
const props = defineProps<{
  model: SectionModel;
  beam: ReturnType<typeof beamOutline>;
  marks: readonly number[];
  rise: ReturnType<typeof surfaceRise>;
  words: string;
}>();
defineEmits<{ read: [words: string] }>();
const units = useUnits();
const { left, right, surface } = VIEW;
const centre = (left + right) / 2;
const dryPx = computed(() => (props.model.film?.dryUm ?? 0) * pixelsPerUm(props.model));
</script>

<template>
  <SectionLayer :words="words" @read="$emit('read', $event)">
    <polygon :points="beam.points" class="beam" />
    <path v-for="x in marks" :key="x" :d="`M${x} ${surface - dryPx - 2 - riseAt(rise, x)} v-8`" class="line-tick" />
  </SectionLayer>
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
      <template v-if="model.beam!.intervalMm !== null">
        {{ units.text('interval', model.beam!.intervalMm, 3) }}
        <tspan class="small-text">between lines</tspan>
      </template>
      <tspan v-else class="small-text">no setting chosen yet</tspan>
    </text>
  </g>
</template>

<style scoped src="./section.css"></style>
