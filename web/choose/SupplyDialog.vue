<script setup lang="ts">
import Dialog from 'primevue/dialog';
import { useShop } from '../stores/shop';
import { formatMoney } from '../ui/format';
import { purchaseWords, type Supply, type SupplyRow } from './supply';
import { useUnits } from '../ui/useUnits';

/** What this job, a month and a year cost with each compound that is offered, in whole containers. */
const open = defineModel<boolean>({ required: true });
defineProps<{ rows: readonly SupplyRow[]; pieces: number }>();
const shop = useShop();
const units = useUnits();
const money = (minor: number) => formatMoney(minor, shop.workshop!.currency);
const grams = (value: number) => units.text('mass', value, 3);
const spell = (row: SupplyRow, supply: Supply | null) =>
  supply ? purchaseWords(supply.buy, row.compound.body.sizes) : '';
</script>

<template>
  <Dialog
    v-model:visible="open"
    modal
    header="What each costs to keep"
    :style="{ width: '60rem' }"
    data-test-id="supply"
  >
    <p class="quiet small">
      Month and year: what this shop coated in the last twelve months with any of these, laid with each one instead.
      Whole containers, the cheapest mix of sizes.
    </p>
    <table class="plain">
      <thead>
        <tr>
          <th>Compound</th>
          <th>On the shelf</th>
          <th>These {{ pieces }} pieces</th>
          <th>A month</th>
          <th>A year</th>
          <th>Small size</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.compound.id" :data-test-id="`supply-${row.compound.body.name}`">
          <td>
            <strong>{{ row.compound.body.name }}</strong>
          </td>
          <td class="mono">{{ grams(row.stockG) }}</td>
          <td>
            <span class="mono">{{ grams(row.job.grams) }}</span><br /><span class="small">{{
              spell(row, row.job)
            }}</span
            ><br v-if="row.job.missingG > 0" /><span v-if="row.job.missingG > 0" class="mono small">{{
              money(row.job.buy.priceMinor)
            }}</span>
          </td>
          <td v-for="(supply, i) in [row.month, row.year]" :key="i">
            <template v-if="supply">
              <span class="mono">{{ money(supply.buy.priceMinor) }}</span><br /><span class="small"
                >{{ grams(supply.grams) }}: {{ spell(row, supply) }}</span
              >
            </template>
            <span v-else class="quiet small">nothing weighed yet</span>
          </td>
          <td class="small">
            {{ row.penalty > 1 ? `${row.penalty.toFixed(1)} times the price a gram` : 'one size' }}
          </td>
        </tr>
      </tbody>
    </table>
  </Dialog>
</template>
