<script setup lang="ts">
import type { Station } from '@unto/core';
import Button from 'primevue/button';
import Drawer from 'primevue/drawer';
import { computed, ref } from 'vue';
import WhyDrawing from './WhyDrawing.vue';
import { WHYS } from './why';

/** Why a station is there, opened beside the work and closed when it is known; it holds nothing up. */
const props = defineProps<{ station: Station }>();
const open = ref(false);
const why = computed(() => WHYS[props.station]);
</script>

<template>
  <Button text size="small" label="Why" class="no-print" data-test-id="why" @click="open = !open" />
  <Drawer
    v-model:visible="open"
    position="left"
    :modal="false"
    :block-scroll="false"
    :header="why.title"
    class="why beside"
    data-test-id="why-station"
  >
    <WhyDrawing :station="station" />
    <p v-for="sentence in why.sentences" :key="sentence">{{ sentence }}</p>
    <section v-if="why.schools">
      <h3>Where practitioners disagree</h3>
      <ul>
        <li v-for="view in why.schools.views" :key="view">{{ view }}</li>
      </ul>
      <p><strong>Here:</strong> {{ why.schools.here }}</p>
    </section>
    <p class="quiet small">Common practice; what your own record shows goes before it.</p>
  </Drawer>
</template>

<style>
.why ul {
  padding-left: 1.2rem;
  margin: 0.2rem 0;
}
</style>
