<script setup lang="ts">
import type { OfferedRecipe, Recipe } from '@unto/contract';
import { v4 as uuid } from 'uuid';
import { RouterLink } from 'vue-router';
import GradeMark from '../evidence/GradeMark.vue';
import SettingLine from '../setting/SettingLine.vue';
import { useAct } from '../stores/useAct';
import { useTicket } from '../stores/ticket';
import { formatDuration } from '../ui/format';
import ProvedBefore from './ProvedBefore.vue';

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
  <ProvedBefore
    :take="`${insteadOf ? 'Change to' : 'Use'} recipe v${offered.recipe.number}`"
    :outlined="insteadOf !== null"
    :busy="busy"
    test-id="take-recipe"
    data-test-id="offered-recipe"
    @take="take"
  >
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
  </ProvedBefore>
</template>
