<script setup lang="ts">
import type { Figure } from '@unto/core';
import { formatFigure } from '../ui/format';
import { useUnits } from '../ui/useUnits';
import GradeMark from './GradeMark.vue';

/** A figure set large: what it is, value and unit, grade. */
const props = defineProps<{
  label: string;
  figure: Figure | null;
  digits?: number;
  text?: string;
  unit?: string;
  testId?: string;
}>();
const units = useUnits();
const shown = (value: number) => units.plain(value, props.figure?.unit ?? '');
</script>

<template>
  <div class="tile" :data-test-id="testId">
    <p class="label">{{ label }}</p>
    <p v-if="figure" class="value mono">
      {{ text ?? formatFigure(shown(figure.value).value, digits ?? 3)
      }}<span class="unit">{{ unit ?? shown(figure.value).unit }}</span>
    </p>
    <p v-else class="value mono">–</p>
    <p v-if="figure?.interval" class="quiet small mono">
      {{ formatFigure(shown(figure.interval.low).value, digits ?? 3) }}–{{
        formatFigure(shown(figure.interval.high).value, digits ?? 3)
      }}
    </p>
    <GradeMark v-if="figure" :figure="figure" :title="label" />
  </div>
</template>

<style scoped>
.tile {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 0.1rem;
  padding: 0.6rem 0.75rem;
  min-width: 0;
}

.label {
  font-size: 0.82rem;
  color: var(--unto-quiet);
}

.value {
  font-size: 1.3rem;
  line-height: 1.2;
  white-space: nowrap;
  letter-spacing: -0.03em;
}

.unit {
  margin-left: 0.2rem;
  font-size: 0.9rem;
  color: var(--unto-quiet);
}
</style>
