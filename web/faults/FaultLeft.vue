<script setup lang="ts">
import { computed } from 'vue';
import CauseList from './CauseList.vue';
import FaultPlace from './FaultPlace.vue';
import LookPicker from './LookPicker.vue';
import type { FaultSearch } from './useFault';

/** What it looks like, where it lies, and what it may be. */
const props = defineProps<{ search: FaultSearch }>();
const { page, drawing, faults, spots, pieces, cannot, causes, ranking, was, kept } = props.search;
const where = computed(() => {
  const { about = '', made = 1 } = page.value ?? {};
  const named = pieces.value.length
    ? `piece${pieces.value.length > 1 ? 's' : ''} ${pieces.value.join(', ')} of ${made}`
    : about;
  return spots.value.length ? named : `${named}; press where`;
});
</script>

<template>
  <template v-if="page">
    <LookPicker v-model="faults" :proposed="kept ? [] : page.proposals" />
    <p v-for="words in cannot" :key="words" class="fault" role="alert">{{ words }}</p>
    <FaultPlace
      v-model="spots"
      :width-mm="page.markWidthMm"
      :height-mm="page.markHeightMm"
      :words="where"
      :drawing="drawing"
    />
    <CauseList
      v-if="causes.length && !cannot.length"
      v-model="was"
      :causes="causes"
      :pair="ranking?.pair ?? null"
      :cases="page.settled.length"
    />
    <p v-else-if="!faults.length" class="quiet">
      Press what it looks like: the likely causes follow from that and from what was recorded.
    </p>
  </template>
</template>
