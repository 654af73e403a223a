<script setup lang="ts">
import { decimalsIn, fitWaist, type DotReading } from '@unto/core';
import { computed } from 'vue';
import { useUnits } from '../ui/useUnits';

/** Dot width over height with the fitted curve, the best height and the depth of focus round it. */
const props = defineProps<{ dots: readonly DotReading[]; growth: number }>();
const units = useUnits();
const unit = computed(() => units.unit('length'));
/** A length in mm on an axis, rounded as a step of mm would round it. */
const shown = (mm: number, stepMm: number) =>
  units.read('length', mm).value.toFixed(decimalsIn('length', unit.value, stepMm));
const W = 660;
const H = 360;
const PAD = { left: 62, right: 18, top: 18, bottom: 44 };

const fit = computed(() => fitWaist(props.dots, props.growth));
const range = computed(() => {
  const heights = [
    ...props.dots.map(({ heightMm }) => heightMm),
    fit.value.heightMm - fit.value.depthMm,
    fit.value.heightMm + fit.value.depthMm,
  ];
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const margin = 0.08 * (high - low);
  return { low: low - margin, high: high + margin, top: 1.12 * Math.max(...props.dots.map(({ widthMm }) => widthMm)) };
});
const x = (height: number) =>
  PAD.left + ((height - range.value.low) / (range.value.high - range.value.low)) * (W - PAD.left - PAD.right);
const y = (width: number) => H - PAD.bottom - (width / range.value.top) * (H - PAD.top - PAD.bottom);
const curve = computed(() => {
  const { heightMm, spotMm, rayleighMm } = fit.value;
  return Array.from({ length: 81 }, (_, i) => {
    const z = range.value.low + (i / 80) * (range.value.high - range.value.low);
    const width = spotMm * Math.sqrt(1 + ((z - heightMm) / rayleighMm) ** 2);
    return `${i ? 'L' : 'M'}${x(z).toFixed(1)} ${y(Math.min(width, range.value.top)).toFixed(1)}`;
  }).join('');
});
const ticks = computed(() =>
  Array.from({ length: 5 }, (_, i) => range.value.low + ((i + 0.5) / 5) * (range.value.high - range.value.low)),
);
const levels = computed(() => [0.25, 0.5, 0.75].map((share) => share * range.value.top));
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    role="img"
    aria-label="Dot width over height with the fitted waist"
    data-test-id="caustic"
  >
    <rect
      :x="x(fit.heightMm - fit.depthMm)"
      :width="x(fit.heightMm + fit.depthMm) - x(fit.heightMm - fit.depthMm)"
      :y="PAD.top"
      :height="H - PAD.top - PAD.bottom"
      class="depth"
    />
    <line :x1="PAD.left" :x2="W - PAD.right" :y1="H - PAD.bottom" :y2="H - PAD.bottom" class="axis" />
    <line :x1="PAD.left" :x2="PAD.left" :y1="PAD.top" :y2="H - PAD.bottom" class="axis" />
    <template v-for="tick in ticks" :key="tick">
      <text :x="x(tick)" :y="H - PAD.bottom + 17" text-anchor="middle">{{ shown(tick, 0.1) }}</text>
    </template>
    <text v-for="level in levels" :key="level" :x="PAD.left - 7" :y="y(level) + 4" text-anchor="end">
      {{ shown(level, 0.01) }}
    </text>
    <text :x="(W + PAD.left) / 2" :y="H - 6" text-anchor="middle" class="name">height of the head, {{ unit }}</text>
    <text :transform="`translate(14 ${H / 2}) rotate(-90)`" text-anchor="middle" class="name">
      dot width, {{ unit }}
    </text>
    <path :d="curve" class="curve" />
    <line :x1="x(fit.heightMm)" :x2="x(fit.heightMm)" :y1="PAD.top" :y2="H - PAD.bottom" class="best" />
    <text :x="x(fit.heightMm) + 6" :y="PAD.top + 12" class="name">best</text>
    <circle v-for="(dot, i) in dots" :key="i" :cx="x(dot.heightMm)" :cy="y(dot.widthMm)" r="5" class="dot" />
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
}

text {
  font: 13px var(--unto-mono);
  fill: var(--unto-ink);
}

.name {
  font-family: inherit;
  fill: var(--unto-quiet);
}

.axis {
  stroke: var(--unto-quiet);
}

.depth {
  fill: var(--unto-bonded-tint);
}

.curve {
  fill: none;
  stroke: var(--unto-danger);
  stroke-width: 2;
}

.best {
  stroke: var(--unto-bonded);
  stroke-width: 2;
  stroke-dasharray: 5 4;
}

.dot {
  fill: var(--unto-ink);
  stroke: var(--unto-surface);
}
</style>
