<script setup lang="ts">
import type { Station } from '@unto/core';
import { questionCode } from '@unto/domain';
import Checkbox from 'primevue/checkbox';
import { v4 as uuid } from 'uuid';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { useAct } from '../stores/useAct';
import { useTicket } from '../stores/ticket';

/** What the shop asks at a station since something went wrong; at Mark before every run anew. */
const props = defineProps<{ station: Station }>();
const ticket = useTicket();
const { act } = useAct();
const asked = computed(() => (ticket.page?.questions ?? []).filter(({ station }) => station === props.station));

async function answer(question: (typeof asked.value)[number]): Promise<void> {
  const { id } = ticket.ticket!;
  const kind = question.answered ? ('taken back' as const) : ('check' as const);
  const body = { id: uuid(), station: props.station, kind, code: questionCode(question) };
  await act('createCheck', { params: { id }, body }, question.answered ? 'a tick taken back' : 'an answer');
}
</script>

<template>
  <ul v-if="asked.length" class="asked" data-test-id="asked">
    <li v-for="question in asked" :key="question.id" :class="{ open: !question.answered }">
      <label>
        <Checkbox
          :model-value="question.answered"
          binary
          :pt="{ input: { 'data-test-id': `asked-${question.id}` } }"
          @update:model-value="answer(question)"
        />
        <span
          ><strong>{{ question.text }}</strong
          ><small class="quiet"
            >asked here since a fault<template v-if="station === 'mark'">, before every run</template></small
          ></span
        >
      </label>
      <RouterLink to="/causes" class="small">why</RouterLink>
    </li>
  </ul>
</template>

<style scoped>
.asked {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 1rem;
  padding: 0 0.6rem;
  border-left: 4px solid var(--unto-bonded);
}

li.open {
  border-left-color: var(--unto-coat-line);
  background: var(--unto-coat-tint);
}

label {
  display: flex;
  align-items: center;
  gap: 0.7rem;
  min-height: 52px;
  flex: 1;
}

small {
  display: block;
}
</style>
