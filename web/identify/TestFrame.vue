<script setup lang="ts">
import type { NextTest } from '@unto/core';
import { harmWord, tellingWord } from './observations';

/** The frame of a quick test: its name, what it would tell next, whether it spares the part, how it is done. */
defineProps<{ name: string; how: string; harm: string; next: NextTest | undefined; leads: boolean }>();
</script>

<template>
  <fieldset class="test" :class="{ leads }">
    <legend>
      {{ name }}
      <span v-if="leads" class="lead">tells most next</span>
      <span v-else-if="next" class="quiet small">{{ tellingWord(next.bits) }}</span>
      <span class="small harm" :class="{ marks: harm !== 'spares the part' }">{{ harmWord(harm) }}</span>
    </legend>
    <p class="quiet small how">{{ how }}</p>
    <slot />
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
</style>
