<script setup lang="ts">
import { computed, ref } from 'vue';
import BeginRun from './BeginRun.vue';
import CountStation from './CountStation.vue';
import LogRun from './LogRun.vue';
import { useTicket } from '../stores/ticket';

/** Mark: a run is counted piece by piece as it goes, or logged once it is over. */
const ticket = useTicket();
const counting = computed(() => ticket.page?.marking ?? null);
const way = ref<'count' | 'log'>('count');
</script>

<template>
  <CountStation v-if="counting" />
  <BeginRun v-else-if="way === 'count'" v-model:way="way" />
  <LogRun v-else v-model:way="way" />
</template>
