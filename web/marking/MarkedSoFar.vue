<script setup lang="ts">
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import GradeMark from '../evidence/GradeMark.vue';
import { useTicket } from '../stores/ticket';
import { formatMoment, formatNumber } from '../ui/format';
import { useRunEntry } from './useRunEntry';

/** Runs of the ticket so far, and how many pieces are to go. */
const ticket = useTicket();
const { left } = useRunEntry();
const runs = computed(() => ticket.page?.runs ?? []);
const marked = computed(() => ticket.page?.progress.markedPieces ?? 0);
const rejected = computed(() => ticket.page?.progress.rejectedPieces ?? 0);
</script>

<template>
  <details v-if="runs.length" class="runs" open>
    <summary>
      {{ marked }} marked in {{ runs.length === 1 ? 'one run' : `${runs.length} runs`
      }}<template v-if="rejected">, {{ rejected }} of them to be done again</template>; {{ left }} of
      {{ ticket.ticket!.pieces }} to go
    </summary>
    <table class="plain">
      <tbody>
        <tr v-for="run in runs.slice(0, 4)" :key="run.id">
          <td>
            <RouterLink :to="`/ledger/${run.id}`">{{ formatMoment(run.at) }}</RouterLink>
          </td>
          <td class="number">{{ run.pieces }} pcs</td>
          <td class="number">
            {{ formatNumber(run.power.value) }} {{ run.power.unit }} · {{ formatNumber(run.speed.value, 4) }}
            {{ run.speed.unit }}
          </td>
          <td class="number">{{ formatNumber(run.minutes) }} min</td>
          <td><GradeMark :grade="run.grade" /></td>
        </tr>
      </tbody>
    </table>
  </details>
</template>

<style scoped>
.runs table {
  font-size: 0.9rem;
}
</style>
