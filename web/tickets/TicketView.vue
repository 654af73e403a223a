<script setup lang="ts">
import { nextStation, STATIONS, type Station } from '@unto/core';
import { useEventListener } from '@vueuse/core';
import { computed, defineAsyncComponent, onUnmounted, watch } from 'vue';
import { useRouter } from 'vue-router';
import { ApiProblem, Unreachable } from '../api/client';
import { useShop } from '../stores/shop';
import { useNotices } from '../stores/notices';
import { usePanel } from '../ui/useUnits';
import { useTicket } from '../stores/ticket';
import PageHead from '../ui/PageHead.vue';
import TicketMenu from './TicketMenu.vue';
import RemarkDrawer from '../remarks/RemarkDrawer.vue';
import WhyStation from '../learn/WhyStation.vue';
import StationLine from '../station/StationLine.vue';
import { isTyping } from '../ui/keys';
import { formatDay } from '../ui/format';

/** A ticket: its head, the station line, the open station. */
const props = defineProps<{ id: string; station?: string }>();
const editing = computed(() => props.station === 'edit');
const putAway = computed(() => ticket.ticket?.state === 'done');

const ticket = useTicket();
const shop = useShop();
const units = usePanel(() => ticket.fitted);
const router = useRouter();

const EditTicketView = defineAsyncComponent(() => import('./EditTicketView.vue'));
const STATION_VIEWS: Record<Station, ReturnType<typeof defineAsyncComponent>> = {
  choose: defineAsyncComponent(() => import('../choose/ChooseStation.vue')),
  prepare: defineAsyncComponent(() => import('../prepare/PrepareStation.vue')),
  coat: defineAsyncComponent(() => import('../coat/CoatStation.vue')),
  place: defineAsyncComponent(() => import('../place/PlaceStation.vue')),
  prove: defineAsyncComponent(() => import('../coupons/ProveStation.vue')),
  mark: defineAsyncComponent(() => import('../marking/MarkStation.vue')),
  clean: defineAsyncComponent(() => import('../runs/CleanStation.vue')),
  judge: defineAsyncComponent(() => import('../runs/JudgeStation.vue')),
};

async function load(): Promise<void> {
  try {
    await ticket.open(props.id);
  } catch (error) {
    if (!(error instanceof ApiProblem) && !(error instanceof Unreachable)) throw error;
    useNotices().say(error.message, 'danger');
  }
}
watch(
  () => props.id,
  () => {
    // Never begins on what another view had loaded: a station's form is filled from the page it opens with.
    ticket.clear();
    void load();
  },
  { immediate: true },
);
onUnmounted(() => ticket.clear());

const open = computed<Station | null>(() => {
  const named = STATIONS.find((station) => station === props.station);
  return named ?? (ticket.page ? (nextStation(ticket.page.stations) ?? 'judge') : null);
});
const about = computed(() => {
  const { ticket: own, fitted } = ticket;
  if (!own || !fitted) return '';
  return `${own.pieces} piece${own.pieces > 1 ? 's' : ''} · ${fitted.substrate.name} · ${units.size(own.markWidthMm, own.markHeightMm)} to mark · ${fitted.head.name}, ${fitted.lens.name}`;
});

useEventListener('keydown', (event: KeyboardEvent) => {
  const station = STATIONS[Number(event.key) - 1];
  if (station && !isTyping(event)) void router.push(`/tickets/${props.id}/${station}`);
});
</script>

<template>
  <template v-if="ticket.page && open && shop.ready">
    <PageHead :title="ticket.page.ticket.title" :about="about">
      <span class="quiet small"
        >ticket {{ ticket.page.ticket.number
        }}{{ ticket.page.ticket.wantedOn ? ` · wanted ${formatDay(ticket.page.ticket.wantedOn)}` : ''
        }}{{ putAway ? ' · put away' : '' }}</span
      >
      <RemarkDrawer v-if="!editing" :ticket-id="id" />
      <WhyStation v-if="!editing" :station="open" />
      <TicketMenu :ticket="ticket.page.ticket" />
    </PageHead>
    <p v-if="ticket.page.ticket.note && !editing" class="note" data-test-id="ticket-note-shown">
      {{ ticket.page.ticket.note }}
    </p>
    <EditTicketView v-if="editing" />
    <template v-else>
      <StationLine :ticket-id="id" :stations="ticket.page.stations" :open="open" />
      <component :is="STATION_VIEWS[open]" :key="open" />
    </template>
  </template>
  <p v-else class="wait quiet">Opening the ticket …</p>
</template>

<style scoped>
.note {
  margin: 0;
  padding: 0.3rem 1.5rem;
  background: var(--unto-surface);
  border-bottom: 1px solid var(--unto-rule);
  font-size: 0.92rem;
}

.wait {
  padding: 2rem;
}
</style>
