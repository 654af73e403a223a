<script setup lang="ts">
import type { StationQuestion } from '@unto/contract';
import { useQuery } from '@pinia/colada';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useAct } from '../stores/useAct';
import { useShop } from '../stores/shop';
import TextField from '../ui/TextField.vue';
import { formatDay } from '../ui/format';
import { useUnits } from '../ui/useUnits';

/** What the shop asks at its stations since something went wrong, of which tickets; a question ends with a reason. */
const shop = useShop();
const units = useUnits();
const { act, busy } = useAct();
const { data } = useQuery({ key: KEYS.questions, query: () => api.call('stationQuestions', {}) });
const asked = computed(() => (data.value ?? []).filter(({ ended }) => !ended));
const ended = computed(() => (data.value ?? []).filter((question) => question.ended));
const ending = ref<string | null>(null);
const why = ref('');
function whom({ compoundId, substrateId, longerThanMm }: StationQuestion): string {
  const parts = [
    compoundId && `with ${shop.nameOf(compoundId)}`,
    substrateId && `of ${shop.nameOf(substrateId)}`,
    longerThanMm !== null && `with marks from ${units.text('length', longerThanMm)}`,
  ].filter(Boolean);
  return parts.length ? `tickets ${parts.join(', ')}` : 'every ticket';
}
const station = ({ station: name }: StationQuestion) => `${name[0]!.toUpperCase()}${name.slice(1)}`;
async function end(id: string): Promise<void> {
  const call = { params: { id }, body: { id: uuid(), why: why.value } };
  if (!(await act('endQuestion', call, 'a question that is asked no more'))) return;
  ending.value = null;
  why.value = '';
}
</script>

<template>
  <section v-if="data?.length" data-test-id="questions">
    <h2>Asked at the stations since</h2>
    <div v-for="question in asked" :key="question.id" class="question">
      <p>
        <strong>{{ station(question) }}:</strong> {{ question.text }}
        <span class="quiet"
          >· {{ whom(question) }} · since {{ formatDay(question.at) }}, {{ shop.personOf(question.by) }}</span
        >
      </p>
      <form v-if="ending === question.id" class="ending" novalidate @submit.prevent="end(question.id)">
        <TextField v-model="why" label="Why it is asked no more" test-id="end-why" />
        <Button type="submit" outlined label="Ask it no more" :disabled="!why.trim()" :loading="busy" />
        <Button type="button" text label="Leave it" @click="ending = null" />
      </form>
      <Button v-else text size="small" label="Ask it no more" @click="ending = question.id" />
    </div>
    <p v-if="ended.length" class="quiet small">
      Asked no more: {{ ended.map(({ text }) => text.toLowerCase()).join('; ') }}.
    </p>
  </section>
</template>

<style scoped>
.question {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 0.2rem 1rem;
  border-bottom: 1px solid var(--unto-rule);
}

.question p {
  margin: 0.4rem 0;
}

.ending {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.6rem;
  padding-bottom: 0.5rem;
}
</style>
