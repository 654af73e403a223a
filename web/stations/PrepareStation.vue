<script setup lang="ts">
import { prepareChecks } from '@unto/core';
import Button from 'primevue/button';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { useTicket } from '../stores/ticket';
import SectionDrawing from '../section/SectionDrawing.vue';
import { useSection } from '../section/useSection';
import CheckList from './CheckList.vue';
import StationBody from './StationBody.vue';

const ticket = useTicket();
const router = useRouter();
const model = useSection('plan');
const checks = computed(() => {
  const { substrate, compound } = ticket;
  return substrate
    ? prepareChecks({ family: substrate.body.family, layer: substrate.body.layer, coated: compound !== null })
    : [];
});
</script>

<template>
  <StationBody station="prepare">
    <template #left><SectionDrawing v-if="model" :model="model" title="Section, before the coat" /></template>
    <h2>Prepare the part</h2>
    <p class="quiet">
      Only what matters for {{ ticket.substrate?.body.name }}. Keep a spare piece or two for the coupon{{
        model?.vitreous ? ', always for glass' : ''
      }}.
    </p>
    <CheckList station="prepare" :checks="checks" />
    <template #foot><Button label="Go to Coat" @click="router.push(`/tickets/${ticket.ticket!.id}/coat`)" /></template>
  </StationBody>
</template>
