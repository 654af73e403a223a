<script setup lang="ts">
import type { Remedy } from '@unto/core';
import type { FaultPage } from '@unto/contract';
import { sameRemedy } from '@unto/domain';
import ToggleSwitch from 'primevue/toggleswitch';

/** What is changed so that it does not come back, a switch each; taken over as it is settled. */
const props = defineProps<{ remedies: readonly Remedy[]; taken: readonly Remedy[]; page: FaultPage }>();
defineEmits<{ turn: [remedy: Remedy] }>();
const isOn = (remedy: Remedy) => props.taken.some((one) => sameRemedy(one, remedy));
function words({ kind, question }: Remedy): { strong: string; rest: string } {
  const { recipe, compound, container } = props.page;
  if (kind === 'recipe air off')
    return {
      strong: `Recipe v${recipe!.number + 1}: air off.`,
      rest: `v${recipe!.number} left it ${recipe!.air ?? 'unsaid'}`,
    };
  if (kind === 'compound air off')
    return { strong: `${compound!.name} in Stores: air off,`, rest: 'and no run with it on passes without a word' };
  if (kind === 'suspend recipe')
    return { strong: `Recipe v${recipe!.number} rests`, rest: 'until a check coupon proves it' };
  if (kind === 'retire container') return { strong: `${container!.name}`, rest: 'set aside in Stores' };
  const { station, text, of } = question!;
  const whom = {
    compound: `with ${compound?.name ?? 'it'}`,
    substrate: 'of this substrate',
    'long parts': 'with marks as long',
  }[of];
  return { strong: `${station[0]!.toUpperCase()}${station.slice(1)} asks:`, rest: `${text}; of tickets ${whom}` };
}
</script>

<template>
  <section v-if="remedies.length" data-test-id="remedies">
    <h2>So that it does not come back</h2>
    <ul>
      <li v-for="(remedy, i) in remedies" :key="i">
        <ToggleSwitch
          :model-value="isOn(remedy)"
          :input-id="`remedy-${i}`"
          :pt="{ input: { 'data-test-id': `remedy-${remedy.kind}` } }"
          @update:model-value="$emit('turn', remedy)"
        />
        <label :for="`remedy-${i}`"
          ><strong>{{ words(remedy).strong }}</strong> <span class="quiet">{{ words(remedy).rest }}</span></label
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  display: flex;
  align-items: center;
  gap: 0.7rem;
  min-height: 40px;
}

li > :first-child {
  flex: none;
}

label {
  font-size: 0.94rem;
}
</style>
