<script setup lang="ts">
import type { Station } from '@unto/core';

/** One drawing a station: what its three sentences are about. */
defineProps<{ station: Station }>();
</script>

<template>
  <svg viewBox="0 0 320 150" role="presentation" aria-hidden="true">
    <template v-if="station === 'choose'">
      <g v-for="(layer, i) in ['bare', 'plated', 'lacquered']" :key="layer" :transform="`translate(${12 + i * 104} 0)`">
        <rect x="0" y="70" width="88" height="40" class="metal" />
        <rect
          v-if="i"
          x="0"
          :y="i === 1 ? 64 : 58"
          width="88"
          :height="i === 1 ? 6 : 12"
          :class="i === 1 ? 'plate' : 'film'"
        />
        <rect x="14" :y="i === 0 ? 60 : i === 1 ? 54 : 48" width="60" height="10" class="coat" />
        <path :d="i === 2 ? 'M34 20l20 20M54 20l-20 20' : 'M30 30l10 10 20-22'" :class="i === 2 ? 'no' : 'yes'" />
        <text x="44" y="130" text-anchor="middle">{{ layer }}</text>
      </g>
    </template>
    <template v-else-if="station === 'prepare'">
      <path d="M20 70 Q160 100 300 60 v26 Q160 126 20 96Z" class="metal" />
      <path d="M20 58H300" class="dash" />
      <path d="M20 46H300" class="dash" />
      <text x="160" y="36" text-anchor="middle">depth of focus</text>
      <text x="160" y="142" text-anchor="middle">the middle lies below it: pale there</text>
    </template>
    <template v-else-if="station === 'coat'">
      <g v-for="(h, i) in [6, 16, 40]" :key="h" :transform="`translate(${12 + i * 104} 0)`">
        <rect x="0" y="80" width="88" height="34" class="metal" />
        <rect x="0" :y="80 - h" width="88" :height="h" class="coat" />
        <path :d="`M34 8L44 ${80 - h}L54 8Z`" class="beam" />
        <path v-if="i < 2" d="M36 80q8 14 16 0Z" class="heat" :class="{ weak: i === 0 }" />
        <text x="44" y="134" text-anchor="middle">{{ ['too thin', 'right', 'too thick'][i] }}</text>
      </g>
    </template>
    <template v-else-if="station === 'place'">
      <path d="M110 8 Q156 70 156 78 Q156 86 110 146 M210 8 Q164 70 164 78 Q164 86 210 146" class="line" />
      <path d="M60 66H260M60 90H260" class="dash" />
      <path d="M40 78H280" class="edge" />
      <text x="266" y="60">depth</text>
      <text x="44" y="72">focus</text>
    </template>
    <template v-else-if="station === 'prove'">
      <g v-for="row in 5" :key="row">
        <rect
          v-for="column in 7"
          :key="column"
          :x="40 + column * 30"
          :y="row * 24 - 12"
          width="22"
          height="17"
          class="cell"
          :class="column + row < 5 ? 'little' : column + row > 9 ? 'much' : 'holds'"
        />
      </g>
      <text x="40" y="30" text-anchor="middle">fast</text>
      <text x="40" y="122" text-anchor="middle">slow</text>
      <text x="180" y="144" text-anchor="middle">power: little to much; what the pad leaves is the window</text>
    </template>
    <template v-else-if="station === 'mark'">
      <rect x="30" y="92" width="260" height="26" class="metal" />
      <rect x="30" y="82" width="120" height="10" class="coat" />
      <circle v-for="i in 9" :key="i" :cx="160 + i * 14" :cy="84 - ((i * 17) % 34)" r="2.4" class="grain" />
      <path d="M110 34H180l-10-7m10 7-10 7" class="line" />
      <text x="60" y="38">air</text>
      <text x="160" y="140" text-anchor="middle">loose powder leaves before it is fired</text>
    </template>
    <template v-else-if="station === 'clean'">
      <rect x="30" y="84" width="260" height="28" class="metal" />
      <rect v-for="i in 3" :key="i" :x="50 + i * 50" y="76" width="26" height="8" class="bond" />
      <path d="M40 60q14-14 28 0t28 0t28 0t28 0t28 0t28 0t28 0t28 0" class="line" />
      <text x="160" y="40" text-anchor="middle">water takes the rest, what bonded stays</text>
      <text x="160" y="136" text-anchor="middle">glass: only when it is cool</text>
    </template>
    <template v-else>
      <g v-for="(word, i) in ['warp', 'coat', 'too fast']" :key="word" :transform="`translate(${12 + i * 104} 10)`">
        <rect x="0" y="0" width="88" height="92" class="blank" />
        <rect x="14" y="14" width="60" height="64" class="cell holds" />
        <path v-if="i === 0" d="M44 14H74V48Z" class="pale" />
        <template v-else-if="i === 1">
          <circle cx="30" cy="36" r="9" class="pale" />
          <circle cx="58" cy="58" r="12" class="pale" />
        </template>
        <path v-else d="M14 22H74M14 34H74M14 46H74M14 58H74M14 70H74" class="pale-line" />
        <text x="44" y="118" text-anchor="middle">{{ word }}</text>
      </g>
    </template>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 30rem;
  font-size: 12px;
}

text {
  fill: var(--unto-quiet);
}

.metal {
  fill: var(--unto-metal);
  stroke: var(--unto-metal-line);
}

.plate {
  fill: var(--unto-metal-line);
}

.film,
.blank {
  fill: var(--unto-glass);
  stroke: var(--unto-metal-line);
}

.coat {
  fill: var(--unto-coat-fill);
  stroke: var(--unto-coat-line);
}

.beam {
  fill: var(--unto-danger-tint);
  stroke: var(--unto-danger);
}

.heat {
  fill: var(--unto-danger);
}

.heat.weak {
  opacity: 0.4;
}

.yes,
.no,
.line,
.edge,
.dash {
  fill: none;
  stroke: var(--unto-bonded);
  stroke-width: 3;
}

.no {
  stroke: var(--unto-danger);
}

.line,
.edge {
  stroke: var(--unto-ink);
  stroke-width: 1.5;
}

.dash {
  stroke: var(--unto-quiet);
  stroke-width: 1;
  stroke-dasharray: 5 4;
}

.cell {
  stroke: var(--unto-metal-line);
}

.holds,
.bond {
  fill: var(--unto-ink);
}

.little {
  fill: none;
}

.much {
  fill: var(--unto-coat-line);
}

.pale {
  fill: var(--unto-metal);
}

.pale-line {
  stroke: var(--unto-metal);
  stroke-width: 3;
}

.grain {
  fill: var(--unto-coat-line);
}
</style>
