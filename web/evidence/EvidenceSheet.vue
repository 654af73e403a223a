<script setup lang="ts">
import { formulaInWords, tellsMost, type FigureInput } from '@unto/core';
import Drawer from 'primevue/drawer';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { useEvidence } from './evidence';
import { formatFigure, GRADE_WORDS, withUnit } from '../ui/format';
import { useUnits } from '../ui/useUnits';
import GradeMark from './GradeMark.vue';

/** What a number rests on: formula in words, inputs with their grades, links to the records. */
const evidence = useEvidence();
const units = useUnits();
const visible = computed({ get: () => evidence.open !== null, set: (open) => !open && (evidence.open = null) });
const figure = computed(() => evidence.open?.figure ?? null);

const best = computed(() => figure.value && tellsMost(figure.value));
const spanOf = ({ low, high }: { low: number; high: number }) =>
  `${formatFigure(units.plain(low, figure.value!.unit).value)}–${written(high)}`;

const PLACES: Record<string, (id: string) => string> = {
  coupon: (id) => `/coupons/${id}`,
  run: (id) => `/ledger/${id}`,
  compound: (id) => `/stores/${id}`,
  container: (id) => `/stores/${id}`,
};

/** A value of the figure with its unit, as it reads here. */
function written(of: number): string {
  const { value, unit } = units.plain(of, figure.value!.unit);
  return `${formatFigure(value)} ${unit}`;
}

function shown(input: FigureInput): string {
  if (input.value === undefined) return '';
  if (typeof input.value !== 'number') return `${input.value}${input.unit ? ` ${input.unit}` : ''}`;
  const { value, unit } = units.plain(input.value, input.unit ?? '');
  return withUnit(value, unit, 4);
}
</script>

<template>
  <Drawer
    v-model:visible="visible"
    position="right"
    :header="evidence.open?.title ?? ''"
    class="evidence"
    data-test-id="evidence-sheet"
  >
    <template v-if="figure">
      <p class="value mono">{{ written(figure.value) }}</p>
      <p v-if="figure.interval">
        <span class="mono"
          >{{ formatFigure(units.plain(figure.interval.low, figure.unit).value) }}–{{
            written(figure.interval.high)
          }}</span
        >
        <span class="quiet small holds">holds {{ Math.round(figure.interval.level * 100) }} times in 100</span>
      </p>
      <p class="graded">
        <GradeMark :grade="figure.grade" /> <span class="quiet">{{ GRADE_WORDS[figure.grade].text }}</span>
      </p>
      <h3>How it is worked out</h3>
      <p>{{ formulaInWords(figure.formula) }}</p>
      <h3>From</h3>
      <table class="plain">
        <tbody>
          <tr v-for="(input, i) in figure.inputs" :key="i">
            <td>
              <RouterLink
                v-if="input.ref && PLACES[input.ref.kind]"
                :to="PLACES[input.ref.kind]!(input.ref.id)"
                @click="visible = false"
                >{{ input.label }}</RouterLink
              >
              <template v-else>{{ input.label }}</template>
              <span v-if="!input.decisive" class="quiet small"> · widens the interval only</span>
            </td>
            <td class="number">{{ shown(input) }}</td>
            <td><GradeMark :grade="input.grade" /></td>
          </tr>
        </tbody>
      </table>
      <p v-if="best" class="best" data-test-id="tells-most">
        <strong>One measurement would tell most.</strong> {{ best.words }}
        <span class="quiet">Then it would lie within {{ spanOf(best.interval) }}.</span>
      </p>
      <p class="quiet small">
        The result takes the weakest grade among the inputs that decide it. Core function: {{ figure.formula }}.
      </p>
    </template>
  </Drawer>
</template>

<style>
/* The preset sets a width with two classes of its own. */
.evidence.p-drawer.p-component {
  width: 32rem;
  max-width: 100vw;
}

.evidence .p-drawer-content {
  display: flex;
  flex-direction: column;
  gap: 0.75rem;
}

.evidence .holds {
  margin-left: 0.6rem;
}

.evidence .best {
  padding: 0.5rem 0.8rem;
  border-left: 4px solid var(--unto-action);
  background: var(--unto-surface);
}

.evidence .value {
  font-size: 1.8rem;
}
</style>
