<script setup lang="ts">
import { BINDING_WORDS, CHOICE_NAMES, restWords, type ChoiceKind, type Figure } from '@unto/core';
import { computed } from 'vue';
import GradeMark from '../evidence/GradeMark.vue';
import { formatDuration } from '../ui/format';
import { useUnits } from '../ui/useUnits';
import type { OfferedSetting } from '../workers/computations';
import { mainKind } from './main-kind';

/** A setting that the window offers, to be taken for the recipe. */
export interface Offer {
  readonly kind: ChoiceKind;
  /** What else it is the best for: one setting may be both. */
  readonly also: readonly ChoiceKind[];
  readonly choice: OfferedSetting;
  /** In the shop's money a piece, with what it is of; empty where no price is known. */
  readonly price: string;
}
const props = defineProps<{ offer: Offer; figure: Figure; taken: boolean }>();
defineEmits<{ take: [] }>();
const units = useUnits();
/** All that it is the best for, in one phrase. */
const title = computed(() => {
  const names = [props.offer.kind, ...props.offer.also].map((kind) => CHOICE_NAMES[kind]);
  return names.map((name, i) => (i ? name.toLowerCase() : name)).join(', ');
});
const contrastTitle = 'L* between mark and bare ground, as pictures read it: nine of ten marks lie in between';
const aside = computed(() =>
  [
    `${units.text('interval', props.offer.choice.intervalMm)} interval${units.aside('speed', props.offer.choice.speedMmPerS)}`,
    ...restWords(props.offer.choice, units.reading.value),
  ].join(', '),
);
</script>

<template>
  <button
    type="button"
    class="offer"
    :class="{ here: taken }"
    :aria-pressed="taken"
    :data-test-id="`offer-${mainKind(offer)}`"
    @click="$emit('take')"
  >
    <span class="row"
      ><strong>{{ title }}</strong
      ><GradeMark :grade="figure.grade"
    /></span>
    <span class="mono big"
      >{{ units.text('power', offer.choice.powerPercent) }} · {{ units.text('speed', offer.choice.speedMmPerS) }}</span
    >
    <span class="quiet small">{{ aside }}</span>
    <span class="numbers">
      <span
        ><b class="mono">{{ formatDuration(offer.choice.seconds) }}</b
        ><span class="quiet small">a piece</span></span
      >
      <span
        ><b class="mono">{{ Math.round(offer.choice.holds * 100) }}</b
        ><span class="quiet small">of 100 hold</span></span
      >
      <span
        ><b class="mono">{{ Math.floor(offer.choice.worst * 100) }}</b
        ><span class="quiet small">at worst</span></span
      >
      <span v-if="offer.choice.contrast" :title="contrastTitle"
        ><b class="mono">{{ Math.round(offer.choice.contrast.mean) }}</b
        ><span class="quiet small"
          >contrast, {{ Math.round(offer.choice.contrast.low) }} to {{ Math.round(offer.choice.contrast.high) }}</span
        ></span
      >
      <span v-if="offer.price"
        ><b class="mono">{{ offer.price }}</b
        ><span class="quiet small">a piece</span></span
      >
    </span>
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

.numbers {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.1rem;
}

.numbers > span {
  display: flex;
  align-items: baseline;
  gap: 0.3rem;
}

.numbers b {
  font-size: 1.12rem;
}
</style>
