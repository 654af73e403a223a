<script setup lang="ts">
import { coatRules } from '@unto/core';
import { endStoredCoat, type EndStoredCoat, type StoredCoat } from '@unto/contract';
import Button from 'primevue/button';
import { computed } from 'vue';
import { useOutbox } from '../stores/outbox';
import { formatDay } from '../ui/format';
import TextField from '../ui/TextField.vue';
import FormNote from '../ui/FormNote.vue';
import { useForm } from '../ui/useForm';
import TickField from '../ui/TickField.vue';

/** Stored pieces: their date, and the look they get when they are taken up. */
const props = defineProps<{ stored: StoredCoat }>();
const STATES = {
  good: 'good until',
  soon: 'to be fired soon, by',
  past: 'past its date,',
  'no date': 'no shelf life named',
} as const;
const form = useForm<EndStoredCoat>(
  endStoredCoat,
  () => ({
    outcome: 'taken up',
    dry: false,
    untouched: false,
    reason: '',
  }),
  { draft: `stored-end-${props.stored.id}` },
);
const { values, faults, busy } = form;
const past = computed(() => props.stored.state === 'past');

async function end(outcome: EndStoredCoat['outcome']): Promise<void> {
  values.value.outcome = outcome;
  await form.submit(async (entry) => {
    return useOutbox().send(
      'endStoredCoat',
      { params: { id: props.stored.id }, body: entry },
      `stored pieces ${outcome}`,
    );
  });
}
</script>

<template>
  <section class="stored" :class="stored.state.replace(' ', '-')" data-test-id="stored">
    <p>
      <strong>{{ stored.pieces }} pieces</strong>, {{ stored.place }}: {{ STATES[stored.state] }}
      <span v-if="stored.keepUntil" class="mono">{{ formatDay(stored.keepUntil) }}</span>.
      <span class="quiet small">Stored {{ formatDay(stored.storedAt) }}. {{ coatRules(stored.handling).store }}</span>
    </p>
    <FormNote />
    <TickField v-model="values.dry" test-id="stored-dry">Dry: no damp, no gloss come back</TickField>
    <p v-if="faults['dry']" class="fault" role="alert">{{ faults['dry'] }}</p>
    <TickField v-model="values.untouched" test-id="stored-untouched"
      >Untouched: no finger marks, nothing rubbed off</TickField
    >
    <p v-if="faults['untouched']" class="fault" role="alert">{{ faults['untouched'] }}</p>
    <TextField v-if="past" name="reason" label="Why it may be fired past its date" test-id="stored-reason" />
    <div class="pair">
      <Button label="Take them up" :loading="busy" data-test-id="take-up" @click="end('taken up')" />
      <Button
        outlined
        severity="secondary"
        label="Rinsed off"
        :disabled="busy"
        data-test-id="rinse-stored"
        @click="end('rinsed off')"
      />
    </div>
  </section>
</template>

<style scoped>
.stored {
  display: flex;
  flex-direction: column;
  gap: 0.3rem;
  padding: 0.6rem 0.75rem;
  border: 1px solid var(--unto-rule);
  border-left: 4px solid var(--unto-bonded);
}

.soon {
  border-left-color: var(--unto-coat-line);
}

.past {
  border-left-color: var(--unto-danger);
}

input[type='checkbox'] {
  width: 1.25rem;
  height: 1.25rem;
}

.pair {
  display: flex;
  gap: 0.6rem;
}
</style>
