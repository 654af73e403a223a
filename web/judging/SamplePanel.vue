<script setup lang="ts">
import { DURABILITY_RESULTS, type LedgerRecord } from '@unto/contract';
import Button from 'primevue/button';
import { computed } from 'vue';
import GradeMark from '../evidence/GradeMark.vue';
import { useSample } from './useSample';

/** How many to scrub, which next, what it stood, and what that says of the others. */
const props = defineProps<{ run: LedgerRecord }>();
const { sample, lot, plans, scrubbed, lost, paler, next, says, draw, stood, busy, STROKES } = useSample(
  () => props.run,
);
/** A bound is never told smaller than it is. */
const percent = (share: number) => `${Math.ceil(100 * share - 1e-9)}\u202f%`;
const drawn = computed(() => sample.value?.drawn.length ?? 0);
const WORDS: Record<(typeof DURABILITY_RESULTS)[number], string> = {
  'no change': 'No change',
  'slightly paler': 'Slightly paler',
  lost: 'Lost',
};
const outcome = computed(() =>
  lost.value ? `${lost.value} lost` : paler.value ? `none lost, ${paler.value} paler` : 'none lost',
);
</script>

<template>
  <section v-if="sample && lot > 0" class="sample" data-test-id="sample">
    <div class="lead">
      <h3>How many to scrub</h3>
      <span class="quiet small">none lost supports, nine times in ten:</span>
    </div>
    <div class="plans" role="group" aria-label="How many to scrub">
      <button
        v-for="plan in plans"
        :key="plan.scrub"
        type="button"
        :aria-pressed="plan.scrub === drawn"
        :disabled="busy || plan.scrub < drawn"
        :data-test-id="`scrub-${plan.scrub}`"
        @click="plan.scrub > drawn && draw(plan.scrub)"
      >
        <span
          >scrub <strong class="mono">{{ plan.scrub }}</strong></span
        >
        <span
          >at most <strong class="mono">{{ percent(plan.mostLost) }}</strong></span
        >
      </button>
    </div>
    <template v-if="drawn && says">
      <p data-test-id="sample-says">
        <strong>{{ scrubbed.length }} of {{ drawn }} scrubbed, {{ outcome }}.</strong>
        <template v-if="says.soFar !== null">
          So far at most <strong class="mono">{{ percent(says.soFar) }}</strong> of the {{ lot }} that look right would
          lose their mark.</template
        >
        <template v-if="next !== null">
          If the other {{ drawn - scrubbed.length }} hold: at most
          <strong class="mono">{{ percent(says.whole) }}</strong>.</template
        >
        <template v-if="next !== null && says.oneMore !== null">
          One more lost makes it {{ percent(says.oneMore)
          }}<template v-if="says.mends !== null">; {{ says.mends }} scrubbed would bring it back</template>.</template
        >
        {{ ' ' }}<GradeMark grade="measured" />
      </p>
      <div v-if="next !== null" class="now">
        <p>
          <strong>Scrub {{ sample.names[next - 1] || `piece ${next}` }} now</strong>, {{ STROKES }} strokes of the wet
          pad. Then:
        </p>
        <div class="results">
          <Button
            v-for="result in DURABILITY_RESULTS"
            :key="result"
            :outlined="result !== 'no change'"
            :severity="result === 'lost' ? 'danger' : undefined"
            :label="WORDS[result]"
            :disabled="busy"
            :data-test-id="`stood-${result}`"
            @click="stood(result)"
          />
        </div>
      </div>
    </template>
    <p v-else class="quiet small">
      They are drawn at random<template v-if="sample.aside.length"
        >; {{ sample.aside.length === 1 ? 'the piece' : 'those' }} set aside at Mark count as bad and are not in the
        draw</template
      >.
    </p>
  </section>
</template>

<style scoped>
.sample {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
}

.sample p,
h3 {
  margin: 0;
}

h3 {
  font-size: 1.05rem;
}

.lead {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
}

.plans {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  border: 1px solid var(--unto-rule);
}

.plans button {
  display: flex;
  flex-direction: column;
  min-height: 56px;
  padding: 0.4rem 0.6rem;
  border: 0;
  border-left: 1px solid var(--unto-rule);
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}

.plans button:first-child {
  border-left: 0;
}

.plans button[aria-pressed='true'] {
  outline: 3px solid var(--unto-action);
  outline-offset: -3px;
}

.plans button:disabled {
  cursor: default;
  color: var(--unto-quiet);
}

.now {
  padding: 0.6rem 0.8rem;
  border-left: 5px solid var(--unto-action);
  background: var(--unto-ground);
}

.results {
  display: grid;
  grid-template-columns: 2fr 1.4fr 1fr;
  gap: 0.5rem;
  margin-top: 0.5rem;
}

.results :deep(.p-button) {
  min-height: 52px;
}
</style>
