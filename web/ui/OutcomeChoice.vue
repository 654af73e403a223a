<script setup lang="ts">
import type { Outcome } from '@unto/core';

/** The three outcomes of a cell side by side. */
defineProps<{ outcome: Outcome | null; label: string; name: string }>();
const emit = defineEmits<{ take: [Outcome] }>();
const CHOICES: readonly { outcome: Outcome; word: string; sign: string }[] = [
  { outcome: 'under', word: 'Too little', sign: '○' },
  { outcome: 'holds', word: 'Holds', sign: '●' },
  { outcome: 'over', word: 'Too much', sign: '✕' },
];
</script>

<template>
  <div class="choices" role="group" :aria-label="label">
    <button
      v-for="entry in CHOICES"
      :key="entry.outcome"
      type="button"
      :class="[entry.outcome, { here: outcome === entry.outcome }]"
      :aria-pressed="outcome === entry.outcome"
      :data-test-id="`${name}-${entry.outcome}`"
      @click="emit('take', entry.outcome)"
    >
      {{ entry.sign }} {{ entry.word }}
    </button>
  </div>
</template>

<style scoped>
.choices {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 0.5rem;
}

button {
  min-height: 46px;
  border: 1px solid var(--unto-action);
  border-radius: 4px;
  background: var(--unto-surface);
  color: var(--unto-action);
  font-weight: 700;
  cursor: pointer;
}

.here {
  background: var(--unto-ink);
  border-color: var(--unto-ink);
  color: var(--unto-ground);
}

.here.holds {
  background: var(--unto-bonded);
  border-color: var(--unto-bonded);
}

.here.over {
  background: var(--unto-danger);
  border-color: var(--unto-danger);
}
</style>
