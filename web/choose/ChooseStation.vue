<script setup lang="ts">
import { coatedAreaMm2 } from '@unto/domain';
import { computed, ref, watch } from 'vue';
import { RouterLink } from 'vue-router';
import MethodsDialog from './MethodsDialog.vue';
import OptionRow from './OptionRow.vue';
import PointsTable from './PointsTable.vue';
import ProfilePicker from './ProfilePicker.vue';
import SettleCard from './SettleCard.vue';
import { supplyRows } from './supply';
import SupplyDialog from './SupplyDialog.vue';
import { useChoice } from './useChoice';
import WeightHead from './WeightHead.vue';
import WithheldLine from './WithheldLine.vue';
import { switchingWords, verdictWords } from './words';
import { useShop } from '../stores/shop';
import { useTicket } from '../stores/ticket';

/** Which method and compound, why, and how sure that is: everything offered side by side under the weights that count here. */
const ticket = useTicket();
const shop = useShop();
const choice = useChoice(() => ticket.ticket!.id);
const { weights, ranked, page, criteria, soft } = choice;

const picked = ref<string | null>(null);
const methodsOpen = ref(false);
const supplyOpen = ref(false);

const taken = computed(() => {
  const last = page.value?.choices[0];
  return last && last.compoundId === ticket.ticket?.compoundId ? last.optionId : (ticket.ticket?.compoundId ?? null);
});
// Opens on what was taken, else on what comes first.
watch(page, () => (picked.value = taken.value ?? ranked.value[0]?.option.id ?? null));
const currency = computed(() => shop.workshop!.currency);
const verdict = computed(() => verdictWords(ranked.value, currency.value));
const switching = computed(() => switchingWords(choice.switching.value, (id) => choice.view(id).name));
const supply = computed(() =>
  page.value && ticket.ticket
    ? supplyRows(page.value, shop.inUse('compound'), {
        pieces: ticket.ticket.pieces,
        coatedAreaCm2: coatedAreaMm2(ticket.ticket) / 100,
      })
    : [],
);
</script>

<template>
  <div class="choose">
    <div class="board">
      <table class="options">
        <colgroup>
          <col class="name" />
          <col v-for="criterion in criteria" :key="criterion" />
          <col class="points" />
        </colgroup>
        <thead>
          <tr>
            <td>
              <ProfilePicker
                :profiles="choice.profiles.value"
                :profile-id="choice.profileId.value"
                :own="choice.own.value"
                :weights="weights"
                @follow="choice.follow"
              />
            </td>
            <th v-for="criterion in criteria" :key="criterion" scope="col">
              <WeightHead v-model="weights[criterion]" :criterion="criterion" />
            </th>
            <th scope="col" class="score">
              <span class="over">score</span>
              <button type="button" class="link" data-test-id="softer" @click="soft = !soft">
                {{ soft ? 'fewer' : 'softer too' }}
              </button>
            </th>
          </tr>
        </thead>
        <tbody data-test-id="options">
          <OptionRow
            v-for="row in ranked"
            :key="row.option.id"
            v-model="picked"
            :row="row"
            :view="choice.view(row.option.id)"
            :criteria="criteria"
            :best="choice.best.value"
            :dominator="row.dominatedBy ? choice.view(row.dominatedBy).name : ''"
          />
        </tbody>
      </table>
      <p v-if="page && !choice.counts.value" class="empty" role="alert">
        Nothing counts: move at least one weight above 0.
      </p>
      <p v-else-if="page && !ranked.length" class="empty">
        Nothing is offered for this part under this head. Press “why” below, look at every method, or ask what the part
        is.
      </p>
      <p v-else-if="!page" class="empty quiet">Gathering the evidence …</p>
      <WithheldLine :options="choice.withheld.value" />
    </div>
    <div class="settle">
      <section class="card" aria-live="polite">
        <template v-if="verdict">
          <h2 data-test-id="verdict">{{ verdict.title }}</h2>
          <p>
            {{ verdict.why }} <span v-if="verdict.givesUp">{{ verdict.givesUp }}</span>
          </p>
          <p :class="['sure', verdict.sureness]" data-test-id="sure">
            <svg viewBox="0 0 14 14" width="13" height="13" aria-hidden="true">
              <circle v-if="verdict.sureness === 'clear'" cx="7" cy="7" r="6" fill="currentColor" />
              <path
                v-else-if="verdict.sureness === 'likely'"
                d="M7 1a6 6 0 0 1 0 12Z M7 1a6 6 0 0 0 0 12"
                fill="none"
                stroke="currentColor"
                stroke-width="2"
              />
              <circle v-else cx="7" cy="7" r="5" fill="none" stroke="currentColor" stroke-width="2" />
            </svg>
            {{ verdict.sure }}
          </p>
          <p class="quiet small" data-test-id="switching">{{ switching }}</p>
          <PointsTable v-if="ranked[1]" :first="ranked[0]!" :second="ranked[1]" />
        </template>
        <p class="more">
          <button type="button" class="link" data-test-id="open-methods" @click="methodsOpen = true">
            Every method
          </button>
          <button v-if="supply.length" type="button" class="link" data-test-id="open-supply" @click="supplyOpen = true">
            What each costs to keep
          </button>
          <RouterLink :to="`/identify?ticket=${ticket.ticket!.id}`" data-test-id="identify"
            >What is this part?</RouterLink
          >
          <RouterLink to="/stores?kind=profile">The shop’s profiles</RouterLink>
        </p>
      </section>
      <SettleCard :choice="choice" :picked="picked" :taken="taken" :supply="supply" />
    </div>
    <MethodsDialog v-model="methodsOpen" :methods="page?.methods ?? []" />
    <SupplyDialog v-model="supplyOpen" :rows="supply" :pieces="ticket.ticket?.pieces ?? 0" />
  </div>
</template>

<style scoped>
.choose {
  flex: 1;
  display: flex;
  flex-direction: column;
  min-height: 0;
}

.board {
  flex: 0 1 auto;
  min-height: 8rem;
  overflow: auto;
  padding: 0.4rem 1.5rem 0;
}

.options {
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
}

.options .name {
  width: 15.5rem;
}

.options .points {
  width: 5rem;
}

thead td,
thead th {
  position: sticky;
  top: -0.4rem;
  z-index: 1;
  padding: 0.3rem 0.5rem 0.2rem 0;
  background: var(--unto-ground);
  border-bottom: 1px solid var(--unto-rule);
  font-weight: 400;
  text-align: left;
  vertical-align: bottom;
}

thead th.score {
  text-align: right;
  font-size: 0.82rem;
  padding-right: 0.2rem;
}

.over {
  display: block;
  padding-bottom: 0.7rem;
}

.link {
  font-size: inherit;
}

.empty {
  padding: 1.2rem 0.7rem;
}

.settle {
  flex: 1 0 auto;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 1rem;
  padding: 0.7rem 1.5rem 0.8rem;
}

.card {
  display: flex;
  flex-direction: column;
  gap: 0.45rem;
  padding: 0.7rem 0.9rem;
  background: var(--unto-surface);
  border: 1px solid var(--unto-rule);
  border-radius: 4px;
}

.sure {
  display: flex;
  align-items: center;
  gap: 0.4rem;
  font-weight: 700;
}

.clear {
  color: var(--unto-bonded);
}

.likely,
.open {
  color: var(--unto-coat);
}

.more {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.2rem;
  margin-top: auto;
  font-size: 0.92rem;
}

@media (max-width: 900px) {
  .choose {
    display: block;
  }

  .options {
    min-width: 58rem;
  }

  .settle {
    grid-template-columns: minmax(0, 1fr);
    padding: 0.8rem 0.9rem;
  }
}

@media print {
  .board {
    overflow: visible;
    page: across;
  }

  .options {
    min-width: 0;
  }
}
</style>
