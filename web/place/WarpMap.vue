<script setup lang="ts">
import { planFlatness, warpSurface, type HeightReading } from '@unto/core';
import { artworkOf } from '@unto/domain';
import { computed } from 'vue';
import { useUnits } from '../ui/useUnits';

/** The artwork from above: what is in focus, what will come out pale, and the places where heights were read. */
const props = defineProps<{
  readings: readonly HeightReading[];
  markWidthMm: number;
  markHeightMm: number;
  focusMm: number;
  depthMm: number;
  steps: boolean;
}>();
const units = useUnits();

const plan = computed(() =>
  planFlatness(warpSurface(props.readings), artworkOf(props), { focusMm: props.focusMm, depthMm: props.depthMm }),
);
const scale = computed(() => Math.min(640 / props.markWidthMm, 420 / props.markHeightMm));
const size = computed(() => ({ width: props.markWidthMm * scale.value, height: props.markHeightMm * scale.value }));
/** The cells of one tint as one path: a handful of shapes to redraw instead of a thousand. */
const tints = computed(() => {
  const { columns, rows, heights } = plan.value.grid;
  const [w, h] = [size.value.width / columns, size.value.height / rows];
  const paths = new Map<string, string>();
  for (let j = 0; j < rows; j += 1) {
    const top = (size.value.height - (j + 1) * h).toFixed(1);
    for (let i = 0, from = 0; i < columns; i += 1) {
      const fill = fillOf(heights[j * columns + i]!);
      if (i + 1 < columns && fillOf(heights[j * columns + i + 1]!) === fill) continue;
      const run = `M${(from * w).toFixed(1)} ${top}h${((i + 1 - from) * w + 0.5).toFixed(1)}v${(h + 0.5).toFixed(1)}H${(from * w).toFixed(1)}Z`;
      paths.set(fill, (paths.get(fill) ?? '') + run);
      from = i + 1;
    }
  }
  return [...paths];
});

/** In focus green, pale ochre by how far off; by focus step in shades when the job is split. */
function fillOf(height: number): string {
  if (props.steps) {
    const step = plan.value.steps.findIndex(({ focusMm }) => Math.abs(height - focusMm) <= props.depthMm + 1e-9);
    return `color-mix(in srgb, var(--unto-bonded) ${85 - (55 * Math.max(0, step)) / Math.max(1, plan.value.steps.length - 1)}%, var(--unto-surface))`;
  }
  const off = Math.abs(height - props.focusMm) / props.depthMm;
  if (off <= 1) return `color-mix(in srgb, var(--unto-bonded) ${Math.round(70 - 25 * off)}%, var(--unto-surface))`;
  return `color-mix(in srgb, var(--unto-coat-line) ${Math.round(Math.min(80, 25 + 20 * off))}%, var(--unto-surface))`;
}
const at = ({ xMm, yMm }: HeightReading) => ({ x: xMm * scale.value, y: size.value.height - yMm * scale.value });
</script>

<template>
  <figure class="warp">
    <svg
      :viewBox="`-34 -18 ${size.width + 68} ${size.height + 44}`"
      role="img"
      :aria-label="`The artwork from above, ${Math.round(100 * plan.inFocus)} per cent in focus`"
      data-test-id="warp-map"
    >
      <path v-for="[fill, path] in tints" :key="fill" :d="path" :fill="fill" />
      <rect :width="size.width" :height="size.height" fill="none" class="edge" />
      <g v-for="(reading, i) in readings" :key="i" :transform="`translate(${at(reading).x} ${at(reading).y})`">
        <circle r="4" class="dot" />
        <text
          :x="reading.xMm > 0.85 * markWidthMm ? -7 : 7"
          y="-6"
          class="height"
          :text-anchor="reading.xMm > 0.85 * markWidthMm ? 'end' : 'start'"
        >
          {{ Number(units.read('length', reading.heightMm).value.toPrecision(3)) }}
        </text>
      </g>
      <text :x="size.width / 2" :y="size.height + 18" class="axis" text-anchor="middle">
        {{ units.text('length', markWidthMm) }}
      </text>
    </svg>
    <figcaption class="quiet small">
      {{
        steps
          ? `Shades: the ${plan.steps.length} focus steps, from the lowest up. Numbers: heights read, ${units.unit('length')}.`
          : `Green: in focus. Ochre: outside the depth of focus, comes out pale. Numbers: heights read, ${units.unit('length')}.`
      }}
    </figcaption>
  </figure>
</template>

<style scoped>
.warp {
  margin: 0;
}

svg {
  width: 100%;
  max-height: 460px;
}

.edge {
  stroke: var(--unto-ink);
  stroke-width: 1.5;
}

.dot {
  fill: var(--unto-ink);
  stroke: var(--unto-surface);
}

.height,
.axis {
  font: 13px var(--unto-mono);
  fill: var(--unto-ink);
}

.height {
  paint-order: stroke;
  stroke: var(--unto-surface);
  stroke-width: 3px;
}
</style>
