<script setup lang="ts">
import { BINDING_WORDS, restWords, type Figure } from '@unto/core';
import GradeMark from '../evidence/GradeMark.vue';
import { formatDuration } from '../ui/format';
import { useUnits } from '../ui/useUnits';
import type { OfferedSetting } from '../workers/computations';

/** A setting that the window offers, to be taken for the recipe. */
export interface Offer {
  readonly kind: 'quickest' | 'widest';
  readonly title: string;
  readonly choice: OfferedSetting;
}
defineProps<{ offer: Offer; figure: Figure; taken: boolean }>();
defineEmits<{ take: [] }>();
const units = useUnits();
</script>

<template>
  <button
    type="button"
    class="offer"
    :class="{ here: taken }"
    :aria-pressed="taken"
    :data-test-id="`offer-${offer.kind}`"
    @click="$emit('take')"
  >
    <span class="row"
      ><strong>{{ offer.title }}</strong
      ><GradeMark :grade="figure.grade"
    /></span>
    <span class="mono big"
      >{{ units.text('power', offer.choice.powerPercent) }} · {{ units.text('speed', offer.choice.speedMmPerS) }}</span
    >
    <span class="quiet small"
      >{{ formatDuration(offer.choice.seconds) }} a piece ·
      {{ units.text('interval', offer.choice.intervalMm) }} interval{{ units.aside('speed', offer.choice.speedMmPerS)
      }}{{ ['', ...restWords(offer.choice, units.reading.value)].join(', ') }} ·
      {{ Math.round(offer.choice.holds * 100) }} of 100 hold, at worst {{ Math.round(offer.choice.worst * 100) }}.</span
    >
    <span v-if="offer.choice.binding" class="quiet small">Binds: {{ BINDING_WORDS[offer.choice.binding] }}.</span>
  </button>
</template>

<style scoped>
.offer {
  display: flex;
  flex-direction: column;
  gap: 0.25rem;
  text-align: left;
  padding: 0.7rem 0.9rem;
  border: 1px solid var(--unto-rule);
  border-radius: 4px;
  background: var(--unto-surface);
  color: var(--unto-ink);
  cursor: pointer;
}

.offer.here {
  border-color: var(--unto-bonded);
  box-shadow: inset 4px 0 0 var(--unto-bonded);
}

.row {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 0.5rem;
}

.big {
  font-size: 1.12rem;
}
</style>
