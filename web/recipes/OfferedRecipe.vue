<script setup lang="ts">
import type { OfferedRecipe, Recipe } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { RouterLink } from 'vue-router';
import GradeMark from '../evidence/GradeMark.vue';
import SettingLine from '../setting/SettingLine.vue';
import { useAct } from '../stores/useAct';
import { useTicket } from '../stores/ticket';
import { formatDuration } from '../ui/format';
import { windowAddress } from '../window/address';

/** The proved recipe of this pairing, taken into use without another coupon. */
const props = defineProps<{ offered: OfferedRecipe; insteadOf: Recipe | null }>();
const ticket = useTicket();
const { act, busy } = useAct();
const take = () =>
  act(
    'createRecipeUse',
    { params: { id: ticket.ticket!.id }, body: { id: uuid(), recipeId: props.offered.recipe.id } },
    'the recipe',
  );
</script>

<template>
  <section class="offered" data-test-id="offered-recipe">
    <p>
      <strong>{{ insteadOf ? 'A newer recipe' : 'Proved before' }}:</strong>{{ ' ' }}
      <RouterLink :to="`/recipes/${offered.recipe.id}`">recipe v{{ offered.recipe.number }}</RouterLink> of this
      pairing, <SettingLine :setting="offered.recipe" />, {{ formatDuration(offered.recipe.secondsPerPiece) }} a piece
      <GradeMark :grade="offered.recipe.grade" />
    </p>
    <p v-if="offered.record.runs" class="quiet small">
      {{ offered.record.good }} of {{ offered.record.pieces }} pieces came out good in {{ offered.record.runs }} judged
      run{{ offered.record.runs === 1 ? '' : 's' }}.
    </p>
    <p class="row">
      <Button
        :label="`${insteadOf ? 'Change to' : 'Use'} recipe v${offered.recipe.number}`"
        :outlined="insteadOf !== null"
        :loading="busy"
        data-test-id="take-recipe"
        @click="take"
      />
      <RouterLink :to="windowAddress(ticket.ticket!, ticket.ticket!.id)">Look at its window</RouterLink>
    </p>
  </section>
</template>

<style scoped>
.offered {
  padding: 0.7rem 0.9rem;
  border: 1px solid var(--unto-rule);
  border-left: 4px solid var(--unto-bonded);
}

.row {
  display: flex;
  align-items: center;
  gap: 1rem;
  margin-bottom: 0;
}
</style>
