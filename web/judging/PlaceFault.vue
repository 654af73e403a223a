<script setup lang="ts">
import { FAULTS, type Fault } from '@unto/core';
import Button from 'primevue/button';

/** What is wrong with a piece that was pressed, at the place it was pressed. */
defineProps<{ at: { readonly piece: number }; name?: string | undefined }>();
const emit = defineEmits<{ said: [fault: Fault | null]; leave: [] }>();
</script>

<template>
  <section class="place" data-test-id="place-fault">
    <p>
      <strong>What is wrong with {{ name || `piece ${at.piece}` }} there?</strong>
    </p>
    <div class="faults">
      <Button
        v-for="fault in FAULTS"
        :key="fault"
        outlined
        size="small"
        severity="danger"
        :label="fault"
        :data-test-id="`placed-${fault}`"
        @click="emit('said', fault)"
      />
      <Button
        outlined
        size="small"
        label="nothing after all"
        data-test-id="placed-nothing"
        @click="emit('said', null)"
      />
      <Button text size="small" label="Leave it" @click="emit('leave')" />
    </div>
  </section>
</template>

<style scoped>
.place {
  padding: 0.6rem 0.8rem;
  border-left: 5px solid var(--unto-danger);
  background: var(--unto-surface);
}

.place p {
  margin: 0 0 0.4rem;
}

.faults {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
</style>
