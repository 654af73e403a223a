<script setup lang="ts">
import { useQuery } from '@pinia/colada';
import { computed } from 'vue';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import StationLine from './StationLine.vue';

/** The station line of the ticket that a coupon or a window belongs to: one press back to where one came from. */
const props = defineProps<{ ticketId: string }>();
const { data } = useQuery({
  key: () => KEYS.ticket(props.ticketId),
  query: () => api.call('ticket', { params: { id: props.ticketId } }),
});
const stations = computed(() => data.value?.stations ?? null);
</script>

<template>
  <StationLine v-if="stations" :ticket-id="ticketId" :stations="stations" open="prove" />
</template>
