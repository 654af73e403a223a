<script setup lang="ts">
import type { OutcomeRules } from '@unto/core';
import Button from 'primevue/button';
import { computed } from 'vue';
import NumberField from '../ui/NumberField.vue';

/** The limits by which outcomes are proposed; moved, every cell is judged again at once. */
const rules = defineModel<OutcomeRules>({ required: true });
const props = defineProps<{ usual: OutcomeRules }>();
const FIELDS: readonly { key: keyof OutcomeRules; label: string; unit: string; scale: number }[] = [
  { key: 'contrast', label: 'Too little: contrast under', unit: 'ΔL*', scale: 1 },
  { key: 'retention', label: 'Too little: keeps under', unit: '%', scale: 100 },
  { key: 'coverage', label: 'Too little: covers under', unit: '%', scale: 100 },
  { key: 'halo', label: 'Too much: halo over', unit: '%', scale: 100 },
  { key: 'edgeUm', label: 'Too much: edge over', unit: 'µm', scale: 1 },
  { key: 'evenness', label: 'Too much: evenness under', unit: '', scale: 1 },
  { key: 'chroma', label: 'Too much: tint over', unit: 'C*', scale: 1 },
];
const moved = computed(() => FIELDS.some(({ key }) => props.usual[key] !== rules.value[key]));
function set(key: keyof OutcomeRules, value: number | null): void {
  if (value !== null && Number.isFinite(value) && value >= 0) rules.value = { ...rules.value, [key]: value };
}
</script>

<template>
  <details data-test-id="rules">
    <summary>Rules{{ moved ? ', moved' : ', as usual' }}</summary>
    <div class="grid">
      <NumberField
        v-for="{ key, label, unit, scale } in FIELDS"
        :key="key"
        :model-value="rules[key] * scale"
        :label="label"
        :unit="unit"
        :test-id="`rule-${key}`"
        @update:model-value="set(key, $event == null ? null : $event / scale)"
      />
    </div>
    <Button v-if="moved" size="small" text label="Back to the usual rules" @click="rules = usual" />
    <p class="quiet small">
      Common practice, no proof: move them to what your customers take. They are kept with every reading.
    </p>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  font-weight: 700;
  font-size: 0.92rem;
  min-height: 30px;
}

.grid {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.4rem 0.7rem;
}
</style>
