<script setup lang="ts">
import type { identifyPart } from '@unto/core';
import GradeMark from '../evidence/GradeMark.vue';
import { chanceText } from './observations';

/** What the part may be after the tests so far, what to test next, and what is dangerous as long as it is not ruled out. */
const picked = defineModel<string | null>({ required: true });
type Found = ReturnType<typeof identifyPart>;
defineProps<{ found: Found; advice: Found['next'][number] | null; taken: string; asked: number }>();
</script>

<template>
  <p v-if="advice" class="next" data-test-id="next-test">
    <strong>Next: {{ advice.name.charAt(0).toLowerCase() + advice.name.slice(1) }}.</strong> {{ advice.how }}
    <span class="quiet"
      >It {{ advice.harm }}, {{ advice.minutes < 1 ? 'under a minute' : `${advice.minutes} min` }}.</span
    >
  </p>
  <p v-else class="next"><strong>Enough.</strong> No further test would tell more than a little.</p>
  <h2>It may be</h2>
  <ol data-test-id="guesses">
    <li v-for="entry in found.ranked.slice(0, 5)" :key="entry.guess.key">
      <label>
        <input
          type="radio"
          name="guess"
          :checked="taken === entry.guess.key"
          :data-test-id="`guess-${entry.guess.key}`"
          @change="picked = entry.guess.key"
        />
        <span class="name">{{ entry.guess.name }}</span>
        <span class="track" aria-hidden="true"><span :style="{ width: `${100 * entry.probability}%` }"></span></span>
        <span class="mono">{{ chanceText(entry.probability) }}</span>
      </label>
    </li>
  </ol>
  <p class="small quiet">
    {{ asked }} test{{ asked === 1 ? '' : 's' }} made · <GradeMark grade="usual" /> likelihoods are common practice, not
    measured here
  </p>
  <p v-for="line in found.unfit" :key="line" class="fault" role="alert" data-test-id="unfit">{{ line }}</p>
  <section v-if="found.dangers.length" class="dangers" aria-label="Where a wrong guess hurts" data-test-id="dangers">
    <h3>Not ruled out, and dangerous</h3>
    <p v-for="entry in found.dangers.slice(0, 3)" :key="entry.guess.key">
      <strong>{{ entry.guess.name }}, {{ chanceText(entry.probability) }}.</strong> {{ entry.guess.danger }}
    </p>
    <p v-if="found.dangers.length > 3" class="small">
      and
      {{
        found.dangers
          .slice(3)
          .map(({ guess }) => guess.name)
          .join('; ')
      }}. Ask a qualified person before lasering an unknown part.
    </p>
  </section>
</template>

<style scoped>
.next {
  padding: 0.5rem 0.7rem;
  border-left: 4px solid var(--unto-action);
  background: var(--unto-ground);
  font-size: 0.92rem;
}

ol {
  margin: 0;
  padding: 0;
  list-style: none;
}

li label {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) 60px 76px;
  gap: 0.5rem;
  align-items: center;
  min-height: 34px;
  border-bottom: 1px solid var(--unto-rule);
  cursor: pointer;
}

li input {
  width: 1.1rem;
  height: 1.1rem;
  accent-color: var(--unto-action);
}

li .mono {
  text-align: right;
}

.track {
  height: 8px;
  background: var(--unto-rule);
}

.track span {
  display: block;
  height: 100%;
  background: var(--unto-slate);
}

.dangers {
  display: flex;
  flex-direction: column;
  gap: 0.3rem;
  padding: 0.6rem 0.75rem;
  background: var(--unto-danger-tint);
  border-left: 4px solid var(--unto-danger);
  font-size: 0.88rem;
}
</style>
