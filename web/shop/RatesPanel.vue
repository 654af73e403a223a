<script setup lang="ts">
import type { InventoryItem } from '@unto/contract';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { ApiProblem } from '../api/client';
import GradeMark from '../evidence/GradeMark.vue';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import { useShop } from '../stores/shop';
import NumberField from '../ui/NumberField.vue';

/** What a minute of each machine is charged at. A rate says nothing of how a machine marks: what is proved on it stays proved. */
const shop = useShop();
const outbox = useOutbox();
const notices = useNotices();
const machines = computed(() => shop.inUse('machine'));
/** Rates as typed, in major units, by machine. */
const typed = ref<Record<string, number | null>>({});
const rateOf = ({ id, body }: InventoryItem<'machine'>) =>
  id in typed.value ? typed.value[id]! : body.laserMinorPerMinute / 100;
const changed = (machine: InventoryItem<'machine'>) => rateOf(machine) !== machine.body.laserMinorPerMinute / 100;

async function keep(machine: InventoryItem<'machine'>): Promise<void> {
  const { id, version, body } = machine;
  const laserMinorPerMinute = Number((rateOf(machine) * 100).toPrecision(12));
  const usual = body.usual.filter((field) => field !== 'laserMinorPerMinute');
  try {
    const call = { params: { id }, body: { version, body: { ...body, laserMinorPerMinute, usual } } };
    await outbox.send('reviseInventoryItem', call, `the rate of ${body.name}`);
    delete typed.value[id];
    notices.say(`${body.name}: its rate is kept. Prices reckon with it from now on.`);
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    notices.say(`${body.name}: ${error.first}`, 'danger');
  }
}
</script>

<template>
  <section class="shop-panel" aria-labelledby="rates-heading">
    <h2 id="rates-heading">Machine rates</h2>
    <p v-if="!machines.length" class="quiet">
      No machine yet. <RouterLink to="/begin">Begin with one</RouterLink>, or add one in Stores.
    </p>
    <form v-for="machine in machines" :key="machine.id" class="rate" novalidate @submit.prevent="keep(machine)">
      <NumberField
        :model-value="rateOf(machine)"
        :label="machine.body.name"
        :unit="`${shop.workshop!.currency} a minute`"
        :test-id="`rate-${machine.body.name}`"
        @update:model-value="typed[machine.id] = $event ?? Number.NaN"
      />
      <GradeMark v-if="machine.body.usual.includes('laserMinorPerMinute')" grade="usual" title="the rate" />
      <Button
        type="submit"
        outlined
        label="Keep"
        :disabled="!changed(machine)"
        :data-test-id="`keep-rate-${machine.body.name}`"
      />
    </form>
  </section>
</template>

<style scoped>
.rate {
  display: flex;
  gap: 1rem;
  align-items: end;
  max-width: 34rem;
  padding: 0.4rem 0;
}

.rate > :first-child {
  flex: 1;
}
</style>
