<script setup lang="ts">
import { OUTCOME_WORDS, SCALE_STEPS, type Outcome, type Stage } from '@unto/core';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import OutcomeChoice from '../ui/OutcomeChoice.vue';
import TickField from '../ui/TickField.vue';

/** Marking cells by eye: with an outcome in hand, or against the printed step scale. */
const props = defineProps<{ stage: Stage; step: number | null }>();
const brush = defineModel<Outcome>('brush', { required: true });
const emit = defineEmits<{ rest: []; step: [number] }>();
const scale = ref(false);
const inHand = computed(() => OUTCOME_WORDS[brush.value]);
</script>

<template>
  <h3>{{ props.stage === 'rinsed' ? 'By eye, after the rinse' : 'By eye, after the scrub' }}</h3>
  <OutcomeChoice :outcome="brush" label="Outcome in hand" name="brush" @take="brush = $event" />
  <Button size="small" text :label="`Mark the rest “${inHand}”`" data-test-id="mark-rest" @click="emit('rest')" />
  <TickField v-model="scale" class="scale" test-id="use-scale"
    >against the <a href="/api/step-scale.pdf" target="_blank">printed step scale</a></TickField
  >
  <div v-if="scale" class="steps" role="group" aria-label="Steps that the cell in hand differs from bare ground">
    <button
      v-for="count in SCALE_STEPS"
      :key="count"
      type="button"
      class="mono"
      :class="{ here: step === count - 1 }"
      :aria-pressed="step === count - 1"
      :data-test-id="`step-${count - 1}`"
      @click="emit('step', count - 1)"
    >
      {{ count - 1 }}
    </button>
  </div>
  <p v-if="scale" class="quiet small">
    Steps that the cell differs from bare ground. By eye it is good to about a step: contrast read so is graded Seen,
    not Measured.
  </p>
  <p v-if="stage === 'rinsed'" class="quiet">
    After the rinse nearly every cell looks marked. It counts as proof only after the scrub.
  </p>
  <p v-else class="quiet">Only bonded cells remain. These outcomes make the window.</p>
</template>

<style scoped>
.steps {
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  gap: 0.3rem;
}

.steps button {
  min-height: 44px;
  border: 1px solid var(--unto-action);
  border-radius: 4px;
  background: var(--unto-surface);
  color: var(--unto-action);
  font-weight: 700;
  cursor: pointer;
}

.steps .here {
  background: var(--unto-ink);
  border-color: var(--unto-ink);
  color: var(--unto-ground);
}

.scale {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  min-height: 36px;
}
</style>
