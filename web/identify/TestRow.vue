<script setup lang="ts">
import type { NextTest, WordTest } from '@unto/core';
import { WORD_TESTS } from '@unto/core';
import { computed } from 'vue';
import TestFrame from './TestFrame.vue';

/** A quick test with its answers to press; what it would tell next to its name, and whether it spares the part. */
const answer = defineModel<string | undefined>({ required: true });
const props = defineProps<{ test: WordTest; next: NextTest | undefined; leads: boolean }>();
const info = computed(() => WORD_TESTS[props.test]);
</script>

<template>
  <TestFrame
    :name="info.name"
    :how="info.how"
    :harm="info.harm"
    :next="next"
    :leads="leads"
    :data-test-id="`test-${test}`"
  >
    <div class="answers">
      <label v-for="word in info.answers" :key="word" :class="{ on: answer === word }">
        <input v-model="answer" type="radio" :name="test" :value="word" class="visually-hidden" />
        <span :data-test-id="`${test}-${word}`">{{ word }}</span>
      </label>
      <button v-if="answer" type="button" class="clear" @click="answer = undefined">not tested</button>
    </div>
  </TestFrame>
</template>

<style scoped>
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
