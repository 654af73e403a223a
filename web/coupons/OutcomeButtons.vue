<script setup lang="ts">
import type { Outcome } from '@unto/core';
import { computed } from 'vue';
import TextField from '../ui/TextField.vue';
import OutcomeChoice from '../ui/OutcomeChoice.vue';
import type { TakenByHand } from './opened-picture';

/** The outcome of a cell read from a picture: as proposed, or another with its reason. */
const props = defineProps<{ outcome: Outcome | null; proposed: Outcome | null; taken: TakenByHand | null }>();
const emit = defineEmits<{ take: [Outcome]; reason: [string] }>();
const REASONS = ['seen under a glass', 'dirt or water on it', 'the picture misleads here'] as const;
const asks = computed(() => props.taken !== null && props.taken.outcome !== props.proposed);
</script>

<template>
  <OutcomeChoice :outcome="outcome" label="Outcome of this cell" name="outcome" @take="emit('take', $event)" />
  <div v-if="asks" class="why">
    <TextField
      :model-value="taken!.reason"
      label="Why, against the picture"
      test-id="reason"
      @update:model-value="emit('reason', $event)"
    />
    <div class="reasons">
      <button v-for="reason in REASONS" :key="reason" type="button" class="reason" @click="emit('reason', reason)">
        {{ reason }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.reasons {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.8rem;
}

.reason {
  padding: 0.25rem 0;
  border: 0;
  background: none;
  color: var(--unto-action);
  text-decoration: underline;
  cursor: pointer;
}
</style>
