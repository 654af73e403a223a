<script setup lang="ts">
import type { ChoiceOptionView } from '@unto/contract';
import { computed } from 'vue';
import GradeMark from '../evidence/GradeMark.vue';

/** What is not offered here, in a line; pressed, each with its reasons. */
const props = defineProps<{ options: readonly ChoiceOptionView[] }>();
const compounds = computed(() => props.options.filter(({ compoundId }) => compoundId !== null));
</script>

<template>
  <details v-if="compounds.length" class="withheld" data-test-id="withheld">
    <summary data-test-id="withheld-why">
      <svg viewBox="0 0 16 16" width="14" height="14" aria-hidden="true">
        <path d="M2.5 2.5 13.5 13.5M13.5 2.5 2.5 13.5" stroke="var(--unto-danger)" stroke-width="2.4" />
      </svg>
      Withheld: <strong>{{ compounds.map(({ name }) => name).join(', ') }}</strong>
      <span class="why">why</span>
    </summary>
    <dl>
      <template v-for="option in compounds" :key="option.id">
        <dt>{{ option.name }}</dt>
        <dd :data-test-id="`withheld-${option.name}`">
          <span v-for="entry in option.judgement.reasons.filter((found) => !found.favourable)" :key="entry.code">
            {{ entry.text }} <GradeMark :grade="entry.grade" />
          </span>
        </dd>
      </template>
    </dl>
  </details>
</template>

<style scoped>
.withheld {
  padding: 0.5rem 0.7rem;
  font-size: 0.92rem;
  border-bottom: 1px solid var(--unto-rule);
}

summary {
  cursor: pointer;
  min-height: 28px;
}

.why {
  margin-left: 0.4rem;
  color: var(--unto-action);
  text-decoration: underline;
}

dl {
  display: grid;
  grid-template-columns: 12rem minmax(0, 1fr);
  gap: 0.35rem 1rem;
  margin: 0.4rem 0 0;
  font-size: 0.88rem;
}

dt {
  font-weight: 700;
}

dd {
  margin: 0;
}

dd > span {
  display: block;
}
</style>
