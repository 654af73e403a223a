<script setup lang="ts">
import { FAULTS, type Fault } from '@unto/core';
import FaultDrawing from './FaultDrawing.vue';

/** What it looks like, picked from drawings; as many as are seen. */
const seen = defineModel<Fault[]>({ required: true });
defineProps<{ proposed: readonly { readonly fault: Fault; readonly words: string }[] }>();
function turn(fault: Fault): void {
  seen.value = seen.value.includes(fault) ? seen.value.filter((one) => one !== fault) : [...seen.value, fault];
}
</script>

<template>
  <section>
    <div class="lead">
      <h2>What it looks like</h2>
      <span class="quiet small">{{
        proposed.length ? `pressed as it was read: ${proposed[0]!.words}` : 'press more than one if both are seen'
      }}</span>
    </div>
    <div class="looks">
      <button
        v-for="fault in FAULTS"
        :key="fault"
        type="button"
        role="checkbox"
        :aria-checked="seen.includes(fault)"
        :data-test-id="`look-${fault}`"
        @click="turn(fault)"
      >
        <FaultDrawing :fault="fault" /><span>{{ fault }}</span>
      </button>
    </div>
  </section>
</template>

<style scoped>
.lead {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 0.2rem 1rem;
  margin-bottom: 0.4rem;
}

.looks {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(8.1rem, 1fr));
  gap: 0.35rem;
}

button {
  display: flex;
  align-items: center;
  gap: 0.45rem;
  min-height: 44px;
  padding: 0.2rem 0.4rem;
  font: inherit;
  font-size: 0.82rem;
  line-height: 1.12;
  text-align: left;
  color: inherit;
  background: var(--unto-surface);
  border: 1px solid var(--unto-rule);
  border-radius: 4px;
  cursor: pointer;
}

button[aria-checked='true'] {
  border-color: var(--unto-action);
  box-shadow: inset 0 0 0 2px var(--unto-action);
  font-weight: 700;
}
</style>
