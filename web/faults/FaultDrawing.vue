<script setup lang="ts">
import type { Fault } from '@unto/core';

/** A mark as it looks with a fault, small. */
defineProps<{ fault: Fault }>();
const GRAIN = Array.from({ length: 46 }, (_, i) => ({ x: 12 + ((i * 29) % 41), y: 7 + ((i * 17) % 22) }));
</script>

<template>
  <svg class="drawing" viewBox="0 0 64 36" aria-hidden="true">
    <rect class="blank" x="0.5" y="0.5" width="63" height="35" rx="2" />
    <rect v-if="fault === 'washed off whole'" class="gone" x="9" y="6" width="46" height="24" />
    <template v-else-if="fault === 'faint in one corner'">
      <rect class="mark" x="9" y="6" width="46" height="24" />
      <path class="pale" d="M40 6h15v16A16 16 0 0 1 40 6Z" />
    </template>
    <template v-else-if="fault === 'grainy'">
      <circle v-for="(dot, i) in GRAIN" :key="i" class="mark" :cx="dot.x" :cy="dot.y" r="2" />
    </template>
    <template v-else-if="fault === 'patchy'">
      <rect class="mark" x="9" y="6" width="46" height="24" />
      <ellipse class="pale" cx="24" cy="15" rx="8" ry="5" />
      <ellipse class="pale" cx="42" cy="22" rx="7" ry="4.5" />
    </template>
    <rect v-else-if="fault === 'halo or brown'" class="mark halo" x="10" y="7" width="44" height="22" />
    <template v-else-if="fault === 'chipped or crazed'">
      <rect class="mark" x="9" y="6" width="46" height="24" />
      <path class="crack" d="M9 14 22 18 30 9 40 16 55 11M22 18 26 30M40 16 44 30" />
    </template>
    <template v-else-if="fault === 'density drifts'">
      <rect
        v-for="i in 6"
        :key="i"
        class="mark"
        :x="9 + (i - 1) * 7.7"
        y="6"
        width="7.8"
        height="24"
        :opacity="1.05 - 0.16 * i"
      />
    </template>
    <template v-else-if="fault === 'pale along one edge'">
      <rect class="mark" x="9" y="6" width="46" height="16" />
      <rect class="pale" x="9" y="22" width="46" height="8" />
    </template>
    <rect v-else-if="fault === 'pale all over'" class="pale" x="9" y="6" width="46" height="24" />
    <template v-else-if="fault === 'faint strokes'">
      <rect class="mark" x="9" y="6" width="20" height="24" />
      <path class="stroke" d="M35 8v20M41 8v20M47 8v20M53 8v20" />
    </template>
    <template v-else-if="fault === 'residue left'">
      <rect class="mark" x="16" y="9" width="32" height="18" />
      <path class="residue" d="M10 8q4-5 9-1M45 29q6 3 9-2M9 27q4 5 8 2M48 8q5-3 7 2" />
    </template>
    <template v-else-if="fault === 'out of place'">
      <rect class="gone" x="9" y="6" width="38" height="20" />
      <rect class="mark" x="17" y="11" width="38" height="20" />
    </template>
    <template v-else-if="fault === 'lost under the pad'">
      <rect class="mark" x="9" y="6" width="46" height="24" />
      <path class="scrub" d="M6 26 22 8M16 30 34 8M28 30 46 8M40 30 58 10" />
    </template>
    <rect v-else class="tinted" x="9" y="6" width="46" height="24" />
  </svg>
</template>

<style scoped>
.drawing {
  width: 50px;
  height: 28px;
  flex: none;
}

/* A piece looks the same by lamp and by day. */
.blank {
  fill: #d9dfe1;
  stroke: #9aa5ab;
}

.mark {
  fill: #33393e;
}

.pale,
.gone {
  fill: #a7adb2;
}

.gone {
  fill: none;
  stroke: #5b646b;
  stroke-dasharray: 3 2;
}

.halo {
  stroke: #a86e2b;
  stroke-width: 4;
}

.crack,
.scrub {
  fill: none;
  stroke: #f2efe8;
  stroke-width: 1.4;
}

.scrub {
  stroke-width: 3;
}

.stroke {
  stroke: #8d949a;
  stroke-width: 1.4;
}

.residue {
  fill: none;
  stroke: #6d5a3c;
  stroke-width: 2.6;
  stroke-linecap: round;
}

.tinted {
  fill: #7a4a35;
}
</style>
