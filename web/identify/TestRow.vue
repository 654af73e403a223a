<script setup lang="ts">
import type { NextTest, WordTest } from '@unto/core';
import { WORD_TESTS } from '@unto/core';
import { computed } from 'vue';
import { harmWord, tellingWord } from './observations';

/** A quick test with its answers to press; what it would tell next to its name, and whether it spares the part. */
const answer = defineModel<string | undefined>({ required: true });
const props = defineProps<{ test: WordTest; next: NextTest | undefined; leads: boolean }>();
const info = computed(() => WORD_TESTS[props.test]);
</script>

<template>
  <fieldset class="test" :class="{ leads }" :data-test-id="`test-${test}`">
    <legend>
      {{ info.name }}
      <span v-if="leads" class="lead">tells most next</span>
      <span v-else-if="next" class="quiet small">{{ tellingWord(next.bits) }}</span>
      <span class="small harm" :class="{ marks: info.harm !== 'spares the part' }">{{ harmWord(info.harm) }}</span>
    </legend>
    <p class="quiet small how">{{ info.how }}</p>
    <div class="answers">
      <label v-for="word in info.answers" :key="word" :class="{ on: answer === word }">
        <input v-model="answer" type="radio" :name="test" :value="word" class="visually-hidden" />
        <span :data-test-id="`${test}-${word}`">{{ word }}</span>
      </label>
      <button v-if="answer" type="button" class="clear" @click="answer = undefined">not tested</button>
    </div>
  </fieldset>
</template>

<style scoped>
.test {
  margin: 0;
  padding: 0.45rem 0 0.55rem 0.7rem;
  border: 0;
  border-left: 4px solid transparent;
  border-bottom: 1px solid var(--unto-rule);
}

.test.leads {
  border-left-color: var(--unto-action);
  background: var(--unto-surface);
}

legend {
  float: left;
  width: 100%;
  display: flex;
  gap: 0.7rem;
  align-items: baseline;
  padding: 0;
  font-weight: 700;
}

legend .small {
  font-weight: 400;
}

.lead {
  color: var(--unto-action);
  font-size: 0.85rem;
}

.harm {
  margin-left: auto;
  padding-right: 0.5rem;
  color: var(--unto-bonded);
}

.harm.marks {
  color: var(--unto-danger);
}

.how {
  clear: both;
}

.answers {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  margin-top: 0.25rem;
}

.answers label {
  position: relative;
  min-height: 44px;
  display: flex;
  align-items: center;
  padding: 0 0.65rem;
  border: 1px solid var(--unto-rule);
  border-radius: 4px;
  background: var(--unto-surface);
  font-size: 0.88rem;
  cursor: pointer;
}

.answers label.on {
  background: var(--unto-ink);
  border-color: var(--unto-ink);
  color: var(--unto-ground);
}

.answers label:focus-within {
  outline: 2px solid var(--unto-action);
}

.clear {
  border: 0;
  background: none;
  color: var(--unto-action);
  text-decoration: underline;
  font-size: 0.85rem;
  cursor: pointer;
}
</style>
