<script setup lang="ts">
import { CRITERION_INFO, type RankedOption } from '@unto/core';
import { computed } from 'vue';

/** Where the first's lead over the second comes from, term by term; what decides most stands first. */
const props = defineProps<{ first: RankedOption; second: RankedOption }>();
const rows = computed(() =>
  props.first.terms
    .map((term, i) => ({
      ...term,
      other: props.second.terms[i]!.points,
      lead: term.points - props.second.terms[i]!.points,
    }))
    .filter(({ weight }) => weight > 0)
    .sort((a, b) => Math.abs(b.lead) - Math.abs(a.lead)),
);
const most = computed(() => Math.max(0.1, ...rows.value.map(({ lead }) => Math.abs(lead))));
const signed = (lead: number) => `${lead > 0 ? '+' : lead < 0 ? '−' : ''}${Math.abs(lead).toFixed(1)}`;
</script>

<template>
  <details class="points" data-test-id="points">
    <summary>Points, one by one</summary>
    <table class="plain">
      <thead>
        <tr>
          <th>points</th>
          <th class="number">{{ first.option.name }}</th>
          <th class="number">{{ second.option.name }}</th>
          <th class="number" colspan="2">lead</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.criterion">
          <td>
            {{ CRITERION_INFO[row.criterion].label }} <span class="quiet">{{ Math.round(100 * row.weight) }} %</span>
          </td>
          <td class="number">{{ row.points.toFixed(1) }}</td>
          <td class="number">{{ row.other.toFixed(1) }}</td>
          <td class="number">{{ signed(row.lead) }}</td>
          <td class="bar" aria-hidden="true">
            <span
              :class="{ behind: row.lead < 0 }"
              :style="{
                left: `${row.lead < 0 ? 50 - (50 * -row.lead) / most : 50}%`,
                width: `${(50 * Math.abs(row.lead)) / most}%`,
              }"
            ></span>
          </td>
        </tr>
      </tbody>
    </table>
  </details>
</template>

<style scoped>
.points {
  font-size: 0.92rem;
}

td,
th {
  padding: 0.16rem 0.6rem 0.16rem 0;
  font-size: 0.85rem;
}

td:first-child {
  white-space: nowrap;
}

.bar {
  position: relative;
  width: 24%;
}

.bar span {
  position: absolute;
  top: 30%;
  height: 40%;
  background: var(--unto-bonded);
}

.bar .behind {
  background: var(--unto-coat-line);
}
</style>
