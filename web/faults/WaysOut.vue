<script setup lang="ts">
import type { ReworkPlan, ReworkWay } from '@unto/core';
import GradeMark from '../evidence/GradeMark.vue';
import { useShop } from '../stores/shop';
import { formatMoney } from '../ui/format';

/** What may be done with the pieces: time, cost and chance of each way, with what is to be said of it. */
const way = defineModel<ReworkWay | null>({ required: true });
defineProps<{ ways: readonly ReworkPlan[]; what: string }>();
const shop = useShop();
const NAMES: Record<ReworkWay, string> = {
  'redo the region': 'Redo only the region',
  'coat and mark over': 'Coat and mark over it',
  'strip and start again': 'Take it off, coat and mark anew',
  accept: 'Accept it',
  scrap: 'Scrap it, make another',
};
const inTen = (share: number) => (10 * share).toFixed(share < 0.1 ? 1 : 0);
</script>

<template>
  <section data-test-id="ways-out">
    <div class="lead">
      <h2>What to do with {{ what }}</h2>
      <span class="quiet small">a piece <GradeMark grade="carried" /></span>
    </div>
    <table class="plain">
      <thead>
        <tr>
          <th></th>
          <th class="number">time</th>
          <th class="number">cost</th>
          <th class="number">out of 10</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in ways" :key="one.way" :class="{ chosen: way === one.way, not: one.not }">
          <td>
            <label
              ><input
                v-model="way"
                type="radio"
                name="way"
                :value="one.way"
                :disabled="one.not !== ''"
                :data-test-id="`way-${one.way}`"
              />
              <span
                ><strong>{{ NAMES[one.way] }}</strong
                ><small class="quiet">{{ one.not || one.says }}</small></span
              ></label
            >
          </td>
          <td class="number mono">{{ one.not ? '–' : `${Math.round(one.minutes)} min` }}</td>
          <td class="number mono">{{ one.not ? '–' : formatMoney(one.costMinor, shop.workshop!.currency) }}</td>
          <td
            class="number mono"
            :title="
              one.chance
                ? `${inTen(one.chance.low)} to ${inTen(one.chance.high)} of 10; ${one.before.good} of ${one.before.made} here before`
                : ''
            "
          >
            {{ one.chance ? inTen(one.chance.value) : '–' }}
            <small v-if="one.chance" class="quiet">{{ inTen(one.chance.low) }}–{{ inTen(one.chance.high) }}</small>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.lead {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}

label {
  display: flex;
  gap: 0.5rem;
  align-items: flex-start;
  cursor: pointer;
}

input {
  flex: none;
  width: 20px;
  height: 20px;
  margin: 0.15rem 0 0;
}

small {
  display: block;
  line-height: 1.2;
}

td.number {
  white-space: nowrap;
}

td {
  padding: 0.35rem 0.4rem 0.35rem 0;
  font-size: 0.92rem;
}

.chosen td:first-child {
  border-left: 4px solid var(--unto-bonded);
  padding-left: 0.4rem;
}

.not {
  opacity: 0.75;
}
</style>
