<script setup lang="ts">
import type { MassUnit } from '@unto/core';
import type { WeighOnScale } from '@unto/contract';
import Button from 'primevue/button';
import { ref } from 'vue';
import { ApiProblem, Unreachable } from '../api/client';
import { DeviceFault, ofDevice } from '../api/device-jobs';
import { useShop } from '../stores/shop';
import { useTicket } from '../stores/ticket';

/** Reads a weight from the scale into a field; what stands there stays when the scale gives none. */
const props = defineProps<{ ask: Omit<WeighOnScale, 'ticketId'>; testId: string }>();
const emit = defineEmits<{ read: [{ value: number; unit: MassUnit }]; failed: [string] }>();
const busy = ref(false);

async function read(): Promise<void> {
  busy.value = true;
  emit('failed', '');
  try {
    const body: WeighOnScale = { ...props.ask, ticketId: useTicket().ticket!.id };
    const { weight } = await ofDevice('weighOnScale', { body }, useShop().operatorId);
    emit('read', { value: weight!.value, unit: weight!.unit });
  } catch (error) {
    if (!(error instanceof ApiProblem || error instanceof Unreachable || error instanceof DeviceFault)) throw error;
    emit('failed', error.message);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <Button
    type="button"
    outlined
    size="small"
    :label="busy ? 'Settling …' : 'Read the scale'"
    :disabled="busy"
    :data-test-id="testId"
    @click="read"
  />
</template>
