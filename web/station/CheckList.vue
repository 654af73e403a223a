<script setup lang="ts">
import type { Station, StationCheck } from '@unto/core';
import { holdsUnder } from '@unto/domain';
import Checkbox from 'primevue/checkbox';
import { v4 as uuid } from 'uuid';
import { computed } from 'vue';
import { useAct } from '../stores/useAct';
import { useShop } from '../stores/shop';
import { useTicket } from '../stores/ticket';
import { formatMoment } from '../ui/format';

/** Things to look at and tick off, or to take back; who did and when is kept. */
const props = defineProps<{ station: Station; checks: readonly StationCheck[] }>();
const ticket = useTicket();
const shop = useShop();
const { act } = useAct();
const ticked = computed(
  () =>
    new Map(
      ticket.page?.checks
        .filter(
          (check) =>
            check.kind === 'check' && check.station === props.station && holdsUnder(check, ticket.page!.fitting),
        )
        .map((check) => [check.code, check]),
    ),
);

async function tick(code: string): Promise<void> {
  const { id } = ticket.ticket!;
  await act(
    'createCheck',
    {
      params: { id },
      body: { id: uuid(), station: props.station, kind: ticked.value.has(code) ? 'taken back' : 'check', code },
    },
    ticked.value.has(code) ? 'a tick taken back' : 'a check',
  );
}
</script>

<template>
  <ul class="checks">
    <li v-for="check in checks" :key="check.code">
      <label>
        <Checkbox
          :model-value="ticked.has(check.code)"
          binary
          :pt="{ input: { 'data-test-id': `check-${check.code}` } }"
          @update:model-value="tick(check.code)"
        />
        <span>{{ check.text }}</span>
      </label>
      <span v-if="ticked.get(check.code)" class="quiet small"
        >{{ shop.personOf(ticked.get(check.code)!.by).split(' ')[0] }},
        {{ formatMoment(ticked.get(check.code)!.at) }}</span
      >
    </li>
  </ul>
</template>

<style scoped>
.checks {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 1rem;
  border-bottom: 1px solid var(--unto-rule);
}

label {
  display: flex;
  align-items: center;
  gap: 0.7rem;
  min-height: 52px;
  flex: 1;
}

.small {
  white-space: nowrap;
}
</style>
