<script setup lang="ts">
import PickOne from '../ui/PickOne.vue';

/** Whether a run is counted here as it goes, or was over before anybody told. */
const way = defineModel<'count' | 'log'>({ required: true });
const WAYS = [
  { value: 'count', label: 'Count it here' },
  { value: 'log', label: 'It ran already' },
] as const;
</script>

<template><PickOne v-model="way" bare label="How it is kept" :options="WAYS" test-id="way" /></template>
