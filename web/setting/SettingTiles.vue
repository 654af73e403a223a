<script setup lang="ts">
import { restWords, type Quantity, type SayableSetting } from '@unto/core';
import { computed } from 'vue';
import TileStrip from '../ui/TileStrip.vue';
import { formatNumber } from '../ui/format';
import { useUnits } from '../ui/useUnits';

/** A setting to be read from a metre away: power, speed and interval as the panel shows them, the rest in a line below. */
const props = defineProps<{
  setting: SayableSetting;
  /** Read from across the bench. */
  large?: boolean;
}>();
const units = useUnits();
const tiles = computed(() => {
  const { powerPercent, speedMmPerS, intervalMm } = props.setting;
  const all: [label: string, quantity: Quantity, value: number | null | undefined][] = [
    ['power', 'power', powerPercent],
    ['speed', 'speed', speedMmPerS],
    ['line interval', 'interval', intervalMm],
  ];
  return all.flatMap(([label, quantity, value]) =>
    value === null || value === undefined
      ? []
      : [{ label, ...units.read(quantity, value), aside: units.aside(quantity, value).replace(/^, /, '') }],
  );
});
const rest = computed(() => restWords(props.setting, units.reading.value));
</script>

<template>
  <TileStrip class="setting" :class="{ large }" data-test-id="setting-tiles">
    <div v-for="tile in tiles" :key="tile.label" class="tile">
      <p class="label">{{ tile.label }}</p>
      <p class="value mono">
        {{ formatNumber(tile.value) }}<span class="unit">{{ tile.unit }}</span>
      </p>
      <p v-if="tile.label === 'speed' && tile.aside" class="quiet small mono">{{ tile.aside }}</p>
    </div>
  </TileStrip>
  <p v-if="rest.length" class="mono">{{ rest.join(', ') }}</p>
</template>

<style scoped>
/* As wide as their figures; a panel's may be long. */
.setting.setting {
  display: flex;
  flex-wrap: wrap;
}

.setting > .tile {
  flex: 1 0 auto;
}

.tile {
  padding: 0.5rem 0.7rem;
  min-width: 0;
}

.label {
  font-size: 0.82rem;
  color: var(--unto-quiet);
}

.value {
  font-size: 1.7rem;
  line-height: 1.15;
  letter-spacing: -0.04em;
  white-space: nowrap;
}

/* Five figures of the longest still fit. */
.large .value {
  font-size: clamp(2rem, 4.4vw, 4rem);
}

.large .unit {
  font-size: 1.6rem;
}

.unit {
  margin-left: 0.25rem;
  font-size: 1rem;
  color: var(--unto-quiet);
}
</style>
