<script setup lang="ts">
import type { Recipe } from '@unto/contract';
import { RouterLink } from 'vue-router';
import GradeMark from '../evidence/GradeMark.vue';
import { formatDay } from '../ui/format';
import { useUnits } from '../ui/useUnits';

/** Recipes that were taken from a window, the newest first. */
defineProps<{ recipes: readonly Recipe[] }>();
const units = useUnits();
</script>

<template>
  <section data-test-id="window-recipes">
    <h2>Recipes of it</h2>
    <ul>
      <li v-for="recipe in recipes.slice(0, 6)" :key="recipe.id">
        <RouterLink :to="`/recipes/${recipe.id}`">v{{ recipe.number }}</RouterLink>
        <span class="mono"
          >{{ units.text('power', recipe.powerPercent) }} · {{ units.text('speed', recipe.speedMmPerS) }}</span
        >
        <GradeMark :grade="recipe.grade" />
        <span v-if="recipe.state.state !== 'in use'" class="suspended">{{ recipe.state.state }}</span>
        <span class="quiet small">{{ formatDay(recipe.acceptedAt) }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0.2rem 0 0;
  padding: 0;
}

li {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0.2rem 0.6rem;
  padding: 0.25rem 0;
  border-bottom: 1px solid var(--unto-rule);
}

li .quiet {
  margin-left: auto;
}

.suspended {
  color: var(--unto-danger);
  font-weight: 700;
}
</style>
