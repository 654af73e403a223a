<script setup lang="ts">
import type { LedgerFilter, LedgerQuery } from '@unto/contract';
import { useQuery } from '@pinia/colada';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { ref } from 'vue';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useAct } from '../stores/useAct';
import TextField from '../ui/TextField.vue';

/** Filters that somebody gave a name: a press takes one; what is chosen now can get a name of its own. */
const props = defineProps<{ chosen: LedgerQuery; any: boolean }>();
const emit = defineEmits<{ take: [query: Record<string, string>] }>();
const { act, busy } = useAct();
const { data } = useQuery({ key: KEYS.ledgerFilters, query: () => api.call('ledgerFilters', {}) });
const naming = ref(false);
const name = ref('');
const chosenIs = ({ query }: LedgerFilter) => JSON.stringify(sorted(query)) === JSON.stringify(sorted(props.chosen));
const sorted = (query: object) => Object.entries(query).sort(([a], [b]) => (a < b ? -1 : 1));

async function keep(): Promise<void> {
  const body = { id: uuid(), name: name.value, query: { ...props.chosen } };
  if (!(await act('createLedgerFilter', { body }, 'a filter'))) return;
  naming.value = false;
  name.value = '';
}
const forget = ({ id }: LedgerFilter) =>
  act('retireLedgerFilter', { params: { id }, body: { retired: true } }, 'a filter');
</script>

<template>
  <div v-if="data?.length || any" class="named">
    <span v-for="filter in data ?? []" :key="filter.id" class="one" :class="{ on: chosenIs(filter) }">
      <Button
        text
        size="small"
        :label="filter.name"
        data-test-id="named-filter"
        @click="emit('take', filter.query as Record<string, string>)"
      />
      <Button v-if="chosenIs(filter)" text size="small" label="forget it" :loading="busy" @click="forget(filter)" />
    </span>
    <form v-if="naming" class="naming" novalidate @submit.prevent="keep">
      <TextField v-model="name" label="Name of these filters" test-id="filter-name" />
      <Button type="submit" outlined label="Keep" :disabled="!name.trim()" :loading="busy" data-test-id="keep-filter" />
    </form>
    <Button
      v-else-if="any"
      text
      size="small"
      label="Give these filters a name"
      data-test-id="name-filter"
      @click="naming = true"
    />
  </div>
</template>

<style scoped>
.named,
.naming {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.2rem 0.8rem;
}

.one {
  border-bottom: 2px solid transparent;
}

.on {
  border-bottom-color: var(--unto-action);
}
</style>
