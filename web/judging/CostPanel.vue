<script setup lang="ts">
import type { CostFactor } from '@unto/core';
import { ticketCost } from '@unto/domain';
import { computed } from 'vue';
import GradeMark from '../evidence/GradeMark.vue';
import { useShop } from '../stores/shop';
import { useTicket } from '../stores/ticket';
import { formatMoney, withUnit } from '../ui/format';

/** What the pieces came to, against what was planned, and why they differ. */
const ticket = useTicket();
const shop = useShop();
const currency = computed(() => shop.workshop!.currency);
const cost = computed(() => {
  const { page, fitted, compound } = ticket;
  if (!page || !fitted || !shop.workshop) return null;
  const own = shop.items.filter((item) => item.kind === 'blank');
  const prices = own.filter(({ body }) => 'substrateId' in body && body.substrateId === page.ticket.substrateId);
  const cheapest = prices.map(({ body }) => (body as { priceMinor: number }).priceMinor);
  return ticketCost(
    page,
    {
      shop: shop.workshop,
      laserMinorPerMinute: fitted.machine.laserMinorPerMinute,
      compound,
      containerOf: (id) => shop.item('container', id)?.body ?? null,
      blankPriceOf: (id) => shop.item('blank', id)?.body.priceMinor ?? (cheapest.length ? Math.min(...cheapest) : 0),
    },
    shop.operatorId ?? '',
  );
});
const WORDS: Record<CostFactor, string> = {
  blankMinor: 'Blank',
  compoundMinor: 'Compound',
  thinnerMinor: 'Thinner',
  laserMinutes: 'Laser',
  laserMinorPerMinute: 'Laser rate',
  labourMinutes: 'Hands',
  labourMinorPerMinute: 'Labour rate',
  yieldShare: 'Comes out good',
};
const shown = (factor: CostFactor, value: number) => {
  if (factor === 'yieldShare') return `${Math.round(100 * value)} of 100`;
  return factor.endsWith('Minutes') ? withUnit(Number(value.toFixed(2)), 'min') : formatMoney(value, currency.value);
};
/** Rates that nobody changed say nothing. */
const steps = computed(
  () =>
    cost.value?.steps.filter(({ factor, planned, real }) =>
      factor.endsWith('MinorPerMinute') ? planned !== real : planned > 0 || real > 0,
    ) ?? [],
);
const signed = (minor: number) =>
  `${minor >= 0.5 ? '+' : minor <= -0.5 ? '−' : ''}${formatMoney(Math.abs(minor), currency.value)}`;
</script>

<template>
  <section v-if="cost" data-test-id="ticket-cost">
    <h2>What it came to</h2>
    <p v-if="cost.realMinor !== null">
      <strong class="mono">{{ formatMoney(cost.realMinor, currency) }}</strong> a good piece, planned
      <span class="mono">{{ formatMoney(cost.plannedMinor, currency) }}</span>;
      <strong class="mono">{{ formatMoney(cost.totalMinor, currency) }}</strong> in all for {{ cost.good }} good of
      {{ cost.made }} made <GradeMark grade="carried" />
    </p>
    <p v-else>
      <strong class="mono">{{ formatMoney(cost.totalMinor, currency) }}</strong> so far for {{ cost.made }} made, none
      of them judged good.
    </p>
    <table v-if="steps.length" class="plain">
      <thead>
        <tr>
          <th>A piece</th>
          <th class="number">Planned</th>
          <th class="number">Came to</th>
          <th class="number">Makes</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="step in steps" :key="step.factor">
          <td>{{ WORDS[step.factor] }}</td>
          <td class="number mono">{{ shown(step.factor, step.planned) }}</td>
          <td class="number mono">{{ shown(step.factor, step.real) }}</td>
          <td class="number mono">{{ signed(step.differsMinor) }}</td>
        </tr>
      </tbody>
    </table>
    <p class="quiet small">
      <template v-if="cost.scrapMinor > 0.5"
        >Of it {{ formatMoney(cost.scrapMinor, currency) }} on pieces that are not good</template
      ><template v-if="cost.reworkMinor > 0.5"
        >, {{ formatMoney(cost.reworkMinor, currency) }} on pieces made anew</template
      >. Hands at the coat are reckoned as usual; nobody times them.
      <template v-if="cost.asPlanned.length"
        >Taken as planned, since nobody kept it: {{ cost.asPlanned.join(', ') }}.</template
      >
    </p>
  </section>
</template>

<style scoped>
p {
  margin: 0.3rem 0;
}

td,
th {
  white-space: nowrap;
}
</style>
