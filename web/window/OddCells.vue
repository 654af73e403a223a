<script setup lang="ts">
import { OUTCOME_WORDS, type OddCell, type Outcome } from '@unto/core';
import type { PairingWindow } from '@unto/contract';
import type { CouponWindowCell } from '@unto/domain';
import { v4 as uuid } from 'uuid';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import OutcomeChoice from '../ui/OutcomeChoice.vue';
import { useAct } from '../stores/useAct';

/** Cells that the others do not bear out: somebody looks once more, before they cost a setting, and says what they are. */
const props = defineProps<{
  coupons: PairingWindow['coupons'];
  cells: readonly CouponWindowCell[];
  odd: readonly OddCell[];
}>();
/** So many are asked for at once, the oddest first. */
const AT_ONCE = 3;
const found = computed(() =>
  props.odd.flatMap(({ index, chance }) => {
    const { couponId, cell, outcome } = props.cells[index]!;
    const coupon = props.coupons.find(({ id }) => id === couponId);
    return coupon ? [{ ...coupon, cell, outcome, chance, key: `${coupon.code}-${cell + 1}` }] : [];
  }),
);
const shown = computed(() => found.value.slice(0, AT_ONCE));
/** How often the cells around would have it come out so; cells are odd below twice in a hundred. */
const often = (chance: number) =>
  `${chance < 0.005 ? 'less than once' : chance < 0.015 ? 'about once' : 'about twice'} in 100`;

const { act, busy } = useAct();
async function say({ id, code, cell }: (typeof shown.value)[number], outcome: Outcome): Promise<void> {
  const body = { id: uuid(), stage: 'scrubbed' as const, source: 'again' as const, entries: [{ cell, outcome }] };
  await act('createReading', { params: { id }, body }, `cell ${cell + 1} of ${code}, looked at again`);
}
</script>

<template>
  <section v-if="found.length" aria-label="Cells to look at again" data-test-id="odd-cells">
    <p class="small">
      {{ found.length === 1 ? 'One cell disagrees' : `${found.length} cells disagree` }} with those around, ringed on
      the map. Look again, then say what you see:
    </p>
    <div v-for="one in shown" :key="one.key" class="odd">
      <p class="small">
        <b>Cell {{ one.cell + 1 }} of</b>{{ ' ' }}<RouterLink :to="`/coupons/${one.id}`">{{ one.code }}</RouterLink
        >: read as “{{ OUTCOME_WORDS[one.outcome] }}”, which by the cells around comes out there
        {{ often(one.chance) }}.
      </p>
      <OutcomeChoice
        :outcome="null"
        :label="`What cell ${one.cell + 1} of ${one.code} is, looked at again`"
        :name="`again-${one.key}`"
        :inert="busy"
        @take="say(one, $event)"
      />
    </div>
    <p class="quiet small">
      What you say counts as hardly misread, also where it is what was read before.
      <template v-if="found.length > AT_ONCE">{{ found.length - AT_ONCE }} more after these.</template>
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 0.5rem;
}

p {
  margin: 0;
}

.odd {
  display: grid;
  gap: 0.3rem;
}
</style>
