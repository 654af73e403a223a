<script setup lang="ts">
import { useQuery } from '@pinia/colada';
import type { CreateRecipeState, Recipe } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import GradeMark from '../evidence/GradeMark.vue';
import { fittedEquipment } from '../stores/fitted-equipment';
import { useShop } from '../stores/shop';
import { useAct } from '../stores/useAct';
import SettingTiles from '../setting/SettingTiles.vue';
import { formatDay, formatNumber } from '../ui/format';
import PageHead from '../ui/PageHead.vue';
import TextField from '../ui/TextField.vue';
import { usePanel } from '../ui/useUnits';
import { windowAddress } from '../window/address';
import ControlCharts from './ControlCharts.vue';
import { RECIPE_WORDS } from './recipe-words';

/** A recipe: its setting, where it is valid, how its runs went, and whether it may be used. */
const props = defineProps<{ id: string }>();
const shop = useShop();
const { act, busy } = useAct();
const { data, error } = useQuery({
  key: () => KEYS.recipe(props.id),
  query: () => api.call('recipe', { params: { id: props.id } }),
});
const recipe = computed<Recipe | null>(() => data.value?.recipe ?? null);
const fitted = computed(() => recipe.value && fittedEquipment(shop, recipe.value));
const units = usePanel(() => fitted.value);
const suspended = computed(() => recipe.value?.state.state === 'suspended');
const why = ref('');

async function setState(state: CreateRecipeState['state']): Promise<void> {
  const body = { id: uuid(), state, why: why.value.trim() };
  if (await act('createRecipeState', { params: { id: props.id }, body }, 'the state of a recipe')) why.value = '';
}

const ranges = computed<[string, string][]>(() => {
  const { valid, because, weights, couponIds, state, kind, acceptedAt, acceptedBy } = recipe.value!;
  const counted = weights.filter(({ weight }) => weight < 1).length;
  const used = data.value!.record.newest ?? acceptedAt;
  const until = valid && new Date(Date.parse(used) + valid.restDays * 86_400_000).toISOString();
  const rows: [string, string | null | undefined | false][] = [
    ['Taken', `${RECIPE_WORDS[kind]}, by ${shop.personOf(acceptedBy)} on ${formatDay(acceptedAt)}`],
    [
      'Rests on',
      couponIds.length
        ? `${couponIds.length} coupon${couponIds.length === 1 ? '' : 's'}${counted ? `, ${counted} of them counted less for age or drift` : ''}`
        : null,
    ],
    ['Not better because', because.join('; ')],
    ['Compound lots seen', valid?.lots.join(', ')],
    [
      'Dry film',
      valid?.filmUm && `${units.text('film', valid.filmUm.low)} to ${units.text('film', valid.filmUm.high)}`,
    ],
    ['Coats', valid?.coats && String(valid.coats)],
    ['Thickness', valid?.thicknessMm ? units.text('length', valid.thicknessMm) : null],
    ['Look again', until && `if nothing was run or tested of it until ${formatDay(until)}`],
    ['So since', state.since && formatDay(state.since)],
  ];
  return rows.filter((row): row is [string, string] => Boolean(row[1]));
});
const printed = (paper: 'label' | 'card') =>
  `/api/recipes/${props.id}/${paper}.pdf?at=${encodeURIComponent(globalThis.location.origin)}`;
const missing = computed(() => error.value?.message ?? '');
</script>

<template>
  <p v-if="missing" class="missing fault">{{ missing }} <RouterLink to="/windows">Back to the windows</RouterLink></p>
  <template v-if="recipe && data">
    <PageHead
      :title="`Recipe v${recipe.number}`"
      :about="`${shop.nameOf(recipe.compoundId) || 'No compound'} on ${shop.nameOf(recipe.substrateId)} · ${shop.nameOf(recipe.headId)}, ${shop.nameOf(recipe.lensId)}`"
      ><RouterLink :to="windowAddress(recipe)">Its window</RouterLink
      ><a :href="printed('label')" target="_blank" data-test-id="recipe-label">Label to print</a
      ><a :href="printed('card')" target="_blank" data-test-id="recipe-card">Card for the bench</a></PageHead
    >
    <div class="recipe">
      <div class="left">
        <p v-if="recipe.state.state !== 'in use'" class="suspended" role="status" data-test-id="recipe-state">
          <strong>{{ suspended ? 'Suspended.' : 'It may drift.' }}</strong> {{ recipe.state.why }}
        </p>
        <SettingTiles :setting="recipe" />
        <p class="row">
          <GradeMark
            v-if="recipe.worst"
            :figure="{ ...recipe.worst, grade: recipe.grade }"
            title="Share that holds in the worst case"
          /><GradeMark v-else :grade="recipe.grade" />
          <span v-if="recipe.worst">at worst {{ Math.floor(recipe.worst.value * 100) }} of 100 hold</span>
        </p>
        <p data-test-id="recipe-record">
          <template v-if="data.record.runs"
            ><b class="mono">{{ data.record.runs }}</b> judged run{{ data.record.runs === 1 ? '' : 's' }},
            <b class="mono">{{ data.record.good }}</b> of <b class="mono">{{ data.record.pieces }}</b> pieces came out
            good.</template
          ><template v-else>No run of it was judged yet.</template>
        </p>
        <dl class="small">
          <template v-for="[name, text] in ranges" :key="name">
            <dt class="quiet">{{ name }}</dt>
            <dd>{{ text }}</dd>
          </template>
        </dl>
        <section class="state no-print">
          <TextField
            v-model="why"
            :label="suspended ? 'Why it may be used again' : 'Why it is not to be used'"
            test-id="state-why"
          />
          <p v-if="suspended && !data.checked" class="quiet small">
            A coupon of its pairing, fired and scrubbed since, puts it back into use.
          </p>
          <div class="row">
            <Button
              v-if="recipe.state.state !== 'in use'"
              label="Put it back into use"
              :disabled="(suspended && !data.checked) || !why.trim()"
              :loading="busy"
              data-test-id="recipe-back"
              @click="setState('in use')"
            />
            <Button
              v-if="!suspended"
              outlined
              label="Suspend it"
              :disabled="!why.trim()"
              :loading="busy"
              data-test-id="recipe-suspend"
              @click="setState('suspended')"
            />
          </div>
        </section>
      </div>
      <div class="right">
        <section v-if="data.factors.length" data-test-id="drift-factors">
          <h2>What went with the runs that were out</h2>
          <table class="plain">
            <thead>
              <tr>
                <th>Was</th>
                <th class="number">Out with it</th>
                <th class="number">Out without</th>
                <th class="number">By chance</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="one in data.factors.slice(0, 5)" :key="`${one.factor} ${one.level}`">
                <td>{{ one.factor }} {{ one.level }}</td>
                <td class="number">{{ one.outWith }} of {{ one.runsWith }}</td>
                <td class="number">{{ one.outWithout }} of {{ one.runsWithout }}</td>
                <td class="number">{{ one.chance < 0.01 ? 'under 1' : formatNumber(one.chance * 100, 2) }} of 100</td>
              </tr>
            </tbody>
          </table>
          <p class="quiet small">
            What goes together need not be the cause: a check coupon from another can, on the same blank, would tell.
          </p>
        </section>
        <ControlCharts v-if="data.charts.length" :charts="data.charts" />
        <p v-else class="quiet">
          Seven judged runs of it are needed to say what is usual; then each later one is held against that.
        </p>
      </div>
    </div>
  </template>
</template>

<style scoped>
.recipe {
  display: grid;
  grid-template-columns: minmax(300px, 1fr) minmax(0, 1.4fr);
  gap: 1.5rem;
  padding: 1rem 1.5rem;
}

.left,
.state {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
}

.state {
  padding-top: 0.7rem;
  border-top: 1px solid var(--unto-rule);
  align-items: start;
}

.row {
  display: flex;
  align-items: center;
  gap: 0.8rem;
}

.suspended {
  padding: 0.6rem 0.8rem;
  border-left: 4px solid var(--unto-danger);
  background: var(--unto-danger-tint);
}

dl {
  display: grid;
  grid-template-columns: 9rem minmax(0, 1fr);
  gap: 0.25rem 0.8rem;
}

dd {
  margin: 0;
}

.missing {
  padding: 2rem;
}

@media (max-width: 900px) {
  .recipe {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
