<script setup lang="ts">
import { isVitreous, prepareChecks, sparesFigure, type Figure } from '@unto/core';
import Button from 'primevue/button';
import { computed, ref, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';
import SheetMap from './SheetMap.vue';
import SheetPanel from './SheetPanel.vue';
import SectionDrawing from '../section/SectionDrawing.vue';
import { useSection } from '../section/useSection';
import { useTicket } from '../stores/ticket';
import FigureTile from '../evidence/FigureTile.vue';
import { orFault, type OrFault } from '../ui/or-fault';
import TaskTabs from '../ui/TaskTabs.vue';
import TileStrip from '../ui/TileStrip.vue';
import CheckList from '../station/CheckList.vue';
import StationBody from '../station/StationBody.vue';

/** Prepare the part: what to check, how many spares to keep, what the sheet gives. */
const TASKS = [
  { key: 'checks', label: 'Checks' },
  { key: 'sheet', label: 'Sheet and jig' },
] as const;
/** So surely the spares should do. */
const SURE = 0.9;
const ticket = useTicket();
const router = useRouter();
const model = useSection('plan');
const task = ref<'checks' | 'sheet'>('checks');
const sheet = useTemplateRef<InstanceType<typeof SheetPanel>>('sheet');
const vitreous = computed(() => ticket.substrate !== null && isVitreous(ticket.substrate.body.family));
const checks = computed(() => {
  const { substrate, compound } = ticket;
  return substrate
    ? prepareChecks({ family: substrate.body.family, layer: substrate.body.layer, coated: compound !== null })
    : [];
});
const reckoned = computed<OrFault<Figure>>(() => {
  const { ticket: own, page } = ticket;
  if (!own || !page) return { result: null, fault: '' };
  const proved = page.recipes.some(({ grade }) => grade.startsWith('proved'));
  // Glass cracks at the test too: one piece more for it.
  const coupons = (proved ? 0 : 1) + (vitreous.value ? 1 : 0);
  return orFault(() => sparesFigure({ ...page.yieldBefore, pieces: own.pieces, confidence: SURE, coupons }));
});
const spares = computed(() => reckoned.value.result);
</script>

<template>
  <StationBody station="prepare">
    <template #left>
      <template v-if="task === 'sheet' && sheet?.layout">
        <h2>What the sheet gives</h2>
        <SheetMap :entries="sheet.entries" :layout="sheet.layout" />
      </template>
      <SectionDrawing v-else-if="model" :model="model" title="Section, before the coat" />
      <TileStrip>
        <FigureTile
          label="spare pieces to keep"
          :figure="spares"
          :text="spares ? String(spares.value) : ''"
          test-id="tile-spares"
        />
        <FigureTile
          label="pieces to have ready"
          :figure="spares && { ...spares, value: spares.value + ticket.ticket!.pieces, unit: 'pieces' }"
          :text="spares ? String(spares.value + ticket.ticket!.pieces) : ''"
          test-id="tile-ready"
        />
      </TileStrip>
    </template>
    <TaskTabs v-model="task" :tasks="TASKS" name="prepare" />
    <template v-if="task === 'checks'">
      <h2>Prepare the part</h2>
      <p class="quiet">
        Only what matters for {{ ticket.substrate?.body.name }}. The spares are for the coupon and for what goes wrong,
        at the rate of {{ ticket.page?.yieldBefore.of ?? 'this shop'
        }}{{ vitreous ? ', and one more because glass cracks' : '' }}.
      </p>
      <p v-if="reckoned.fault" data-test-id="spares-fault">{{ reckoned.fault }} Prove the setting first.</p>
      <CheckList station="prepare" :checks="checks" />
    </template>
    <SheetPanel v-else ref="sheet" :wanted="(spares?.value ?? 0) + (ticket.ticket?.pieces ?? 0)" />
    <template #foot
      ><Button v-if="task === 'checks'" label="Go to Coat" @click="router.push(`/tickets/${ticket.ticket!.id}/coat`)"
    /></template>
  </StationBody>
</template>
