<script setup lang="ts">
import type { FocusStrip } from '@unto/core';
import { computed } from 'vue';

/** A round part lying still: its cut with the strips that one focus height reaches each, and the same strips (rings on a sphere) from above. */
const props = defineProps<{
  diameterMm: number;
  strips: readonly FocusStrip[];
  halfWidthMm: number;
  sphere: boolean;
  markWidthMm: number;
  markHeightMm: number;
}>();
const radius = computed(() => props.diameterMm / 2);
const scale = computed(() => 190 / radius.value);
const x = (mm: number) => 220 + mm * scale.value;
const top = 30;
const sagAt = (mm: number) => radius.value - Math.sqrt(Math.max(0, radius.value ** 2 - mm ** 2));
const y = (below: number) => top + below * scale.value;

/** An arc of the surface from one distance of the crown to another, on one side; in equal steps of angle. */
function arc(from: number, to: number, side: 1 | -1): string {
  const [a, b] = [from, to].map((mm) => Math.asin(Math.min(1, mm / radius.value)));
  const points = Array.from({ length: 25 }, (_, i) => {
    const mm = radius.value * Math.sin(a! + ((b! - a!) * i) / 24);
    return `${x(side * mm).toFixed(1)} ${y(sagAt(mm)).toFixed(1)}`;
  });
  return `M${points.join('L')}`;
}
/** Strips from above: the crown's own is one, the others lie on both sides of it. */
const bands = computed(() =>
  props.strips.flatMap(({ fromMm, toMm }, i) =>
    i === 0
      ? [{ i, from: -toMm, to: toMm }]
      : [
          { i, from: fromMm, to: toMm },
          { i, from: -toMm, to: -fromMm },
        ],
  ),
);
const outline = computed(() => `${arc(0, radius.value, -1)}${arc(0, radius.value, 1)}`);
const above = computed(() => {
  const half = Math.max(props.halfWidthMm, 1);
  return { scale: 190 / half, cx: 220, cy: 270 + 110 };
});
const TINTS = [
  'var(--unto-bonded)',
  'var(--unto-action)',
  'var(--unto-coat-line)',
  'var(--unto-danger)',
  'var(--unto-quiet)',
];
const tint = (i: number) => TINTS[i % TINTS.length]!;
const artHeight = computed(() => Math.min(200, props.markHeightMm * above.value.scale));
</script>

<template>
  <svg
    viewBox="0 0 440 500"
    role="img"
    :aria-label="`${strips.length} heights of focus across the part`"
    data-test-id="strip-map"
  >
    <path :d="outline" class="part" />
    <g v-for="(strip, i) in strips" :key="i">
      <path :d="arc(strip.fromMm, strip.toMm, 1)" class="strip" :style="{ stroke: tint(i) }" />
      <path :d="arc(strip.fromMm, strip.toMm, -1)" class="strip" :style="{ stroke: tint(i) }" />
    </g>
    <g v-if="sphere">
      <circle
        v-for="(strip, i) in [...strips].reverse()"
        :key="i"
        :cx="above.cx"
        :cy="above.cy"
        :r="Math.min(110, strip.toMm * above.scale * 0.58)"
        class="ring"
        :style="{ fill: tint(strips.length - 1 - i) }"
      />
      <rect
        :x="above.cx - markWidthMm * above.scale * 0.29"
        :y="above.cy - markHeightMm * above.scale * 0.29"
        :width="markWidthMm * above.scale * 0.58"
        :height="markHeightMm * above.scale * 0.58"
        class="art"
      />
    </g>
    <g v-else>
      <g v-for="(band, k) in bands" :key="k">
        <rect
          :x="above.cx + band.from * above.scale"
          :y="above.cy - artHeight / 2"
          :width="(band.to - band.from) * above.scale"
          :height="artHeight"
          class="ring"
          :style="{ fill: tint(band.i) }"
        />
        <text
          :x="above.cx + ((band.from + band.to) / 2) * above.scale"
          :y="above.cy + 5"
          text-anchor="middle"
          class="mono"
        >
          {{ band.i + 1 }}
        </text>
      </g>
    </g>
    <text x="220" y="262" text-anchor="middle" class="quiet-text">from above</text>
  </svg>
</template>

<style scoped>
svg {
  flex: 1;
  min-height: 0;
  max-height: 540px;
}

.part {
  fill: none;
  stroke: var(--unto-metal-line);
  stroke-width: 6;
}

.strip {
  fill: none;
  stroke-width: 6;
}

.ring {
  fill-opacity: 0.35;
  stroke: var(--unto-ink);
  stroke-width: 1;
}

.art {
  fill: none;
  stroke: var(--unto-ink);
  stroke-width: 2;
}

text {
  fill: var(--unto-ink);
  font-size: 14px;
}

.quiet-text {
  fill: var(--unto-quiet);
}

.mono {
  font-family: var(--unto-mono);
}
</style>
