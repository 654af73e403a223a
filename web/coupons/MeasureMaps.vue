<script setup lang="ts">
import { STAGES, type CouponLayout } from '@unto/core';
import type { Aim } from '@unto/contract';
import { computed } from 'vue';
import { SHOWN_MEASURES, shownNumber, type StagePictures } from './measures';

/** Every measure over the whole coupon as small maps on one scale each, before and after the scrub. */
const props = defineProps<{ layout: CouponLayout; entries: StagePictures; tone: Aim['tone']; selected: number }>();
const emit = defineEmits<{ select: [number] }>();
const size = computed(() => props.layout.design.cell);
const maps = computed(() =>
  SHOWN_MEASURES.map((measure) => {
    const values = STAGES.map((stage) =>
      (props.entries[stage]?.cells ?? []).map((one) => ({ cell: one.cell, value: measure.of(one, props.tone) })),
    );
    const known = values.flat().flatMap(({ value }) => value ?? []);
    const [low, high] = [Math.min(0, ...known), Math.max(...known, 1e-9)];
    return { measure, values, low, high };
  }),
);
const place = computed(() => {
  const { blank } = props.layout.design;
  return props.layout.cells.map(({ xMm, yMm }) => ({ x: xMm, y: blank.heightMm - yMm - size.value.heightMm }));
});
const view = computed(() => {
  const [xs, ys] = [place.value.map(({ x }) => x), place.value.map(({ y }) => y)];
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return `${x - 0.5} ${y - 0.5} ${Math.max(...xs) - x + size.value.widthMm + 1} ${Math.max(...ys) - y + size.value.heightMm + 1}`;
});
</script>

<template>
  <div class="maps" data-test-id="measure-maps">
    <section v-for="{ measure, values, low, high } in maps" :key="measure.key">
      <h3>
        {{ measure.name }}
        <span class="quiet mono"
          >{{ shownNumber(low, measure.digits) }} – {{ shownNumber(high, measure.digits) }} {{ measure.unit }}</span
        >
      </h3>
      <div class="pair">
        <figure v-for="(stage, s) in STAGES" :key="stage">
          <svg v-if="values[s]!.length" :viewBox="view" role="img" :aria-label="`${measure.name}, ${stage}`">
            <rect
              v-for="{ cell, value } in values[s]"
              :key="cell"
              :x="place[cell]!.x"
              :y="place[cell]!.y"
              :width="size.widthMm"
              :height="size.heightMm"
              class="cell"
              :class="{ here: cell === selected, none: value === null }"
              :fill-opacity="value === null ? 0 : 0.06 + (0.94 * (value - low)) / (high - low)"
              @click="emit('select', cell)"
            >
              <title>{{ `cell ${cell + 1}: ${shownNumber(value, measure.digits)} ${measure.unit}` }}</title>
            </rect>
          </svg>
          <p v-else class="quiet small">no picture</p>
          <figcaption class="quiet small">{{ stage }}</figcaption>
        </figure>
      </div>
    </section>
  </div>
</template>

<style scoped>
.maps {
  flex: 1;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(330px, 1fr));
  gap: 0.6rem 1.4rem;
  align-content: start;
  overflow-y: auto;
}

h3 {
  font-size: 0.95rem;
}

h3 span {
  font-weight: 400;
  font-size: 0.82rem;
}

.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.8rem;
}

figure {
  margin: 0;
}

svg {
  width: 100%;
  max-height: 150px;
}

.cell {
  fill: var(--unto-ink);
  stroke: var(--unto-rule);
  stroke-width: 0.15;
  cursor: pointer;
}

.none {
  stroke-dasharray: 0.6 0.5;
}

.here {
  stroke: var(--unto-action);
  stroke-width: 0.7;
}
</style>
