<script setup lang="ts">
import { useQuery } from '@pinia/colada';
import { computed } from 'vue';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useShop } from '../stores/shop';
import { useTicket } from '../stores/ticket';
import { formatNumber } from '../ui/format';

/** What measured runs say of the machine's acceleration and of the time beside the path, beside what the stores say. */
const ticket = useTicket();
const shop = useShop();
const machineId = computed(() => shop.item('head', ticket.ticket!.headId)?.body.machineId ?? '');
const { data } = useQuery({
  key: () => KEYS.motion(machineId.value),
  query: () => api.call('learntMotion', { params: { id: machineId.value } }),
  enabled: () => machineId.value !== '' && ticket.fitted?.machine.motion === 'gantry',
});
const learnt = computed(() => data.value?.learnt ?? null);
const fine = (value: number) => formatNumber(Number(value.toPrecision(2)));
</script>

<template>
  <p v-if="learnt" class="quiet small" data-test-id="learnt-motion">
    {{ learnt.runs }} measured runs of this machine say {{ fine(learnt.accelerationMmPerS2.value) }} mm/s² ({{
      fine(learnt.accelerationMmPerS2.low)
    }}
    to {{ learnt.accelerationMmPerS2.high === null ? 'any' : fine(learnt.accelerationMmPerS2.high) }}, 90 of 100) and
    {{ fine(learnt.overheadS.value) }} s a piece beside its path; the stores say
    {{ fine(ticket.fitted!.machine.accelerationMmPerS2) }} mm/s².
  </p>
</template>
