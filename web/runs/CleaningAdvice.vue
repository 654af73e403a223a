<script setup lang="ts">
import { useQuery } from '@pinia/colada';
import { computed } from 'vue';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useTicket } from '../stores/ticket';
import { formatNumber } from '../ui/format';

/** How this compound came off this substrate before, the gentlest way that left nothing first. */
const ticket = useTicket();
const { data } = useQuery({
  key: () => KEYS.cleaningAdvice(ticket.ticket!.id),
  query: () => api.call('cleaningAdvice', { params: { id: ticket.ticket!.id } }),
});
const ways = computed(() => data.value ?? []);
/** The gentlest that left nothing more often than not. */
const first = computed(() => ways.value.find(({ clean, runs }) => clean > runs / 2) ?? null);
const fine = (minutes: number) => formatNumber(Number(minutes.toPrecision(2)));
</script>

<template>
  <section v-if="ways.length" class="advice" data-test-id="cleaning-advice">
    <p v-if="first">
      <strong>Gentlest that left nothing: {{ first.method }}</strong
      >, {{ first.clean }} of {{ first.runs }} runs, {{ fine(first.minutesPerPiece) }} min a piece.
    </p>
    <ul class="small">
      <li v-for="way in ways" :key="way.method">
        {{ way.method }}: {{ way.runs }} run{{ way.runs === 1 ? '' : 's' }}, {{ way.clean }} without residue,
        {{ fine(way.minutesPerPiece) }} min a piece<template v-if="way.low !== null && way.high !== null">
          ({{ fine(way.low) }} to {{ fine(way.high) }})</template
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.advice p {
  margin: 0 0 0.2rem;
}

ul {
  margin: 0;
  padding-left: 1.2rem;
  color: var(--unto-quiet);
}
</style>
