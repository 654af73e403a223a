<script setup lang="ts">
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import type { Operator } from '@unto/contract';
import { ApiProblem } from '../api/client';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import { useShop } from '../stores/shop';
import PersonForm from './PersonForm.vue';

/** Who works here: added, renamed, and let go without anything they did losing its name. */
const shop = useShop();
const outbox = useOutbox();
const notices = useNotices();
const NEW = 'new';
/** Whose line is open; NEW for one to be added. */
const open = ref<string | null>(null);
const gone = computed(() => shop.operators.filter(({ retired }) => retired));

async function add(person: { name: string; role: string }): Promise<void> {
  await outbox.send('createOperator', { body: { id: uuid(), ...person } }, person.name);
  open.value = null;
}

async function change(person: Operator, more: Partial<Operator>): Promise<void> {
  const { id, ...rest } = { ...person, ...more };
  await outbox.send('changeOperator', { params: { id }, body: rest }, rest.name);
  open.value = null;
}

async function retire(person: Operator, retired: boolean): Promise<void> {
  try {
    await change(person, { retired });
    notices.say(
      retired ? `${person.name} is picked no more; what they did keeps their name.` : `${person.name} is back.`,
    );
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    notices.say(error.problem.detail, 'danger');
  }
}
</script>

<template>
  <section class="shop-panel" aria-labelledby="people-heading">
    <h2 id="people-heading">People</h2>
    <ul>
      <li v-for="person in shop.atWork" :key="person.id" :data-test-id="`at-work-${person.name.split(' ')[0]}`">
        <PersonForm
          v-if="open === person.id"
          :initial="person"
          :keep="(entry) => change(person, entry)"
          @closed="open = null"
        />
        <template v-else>
          <span class="who">
            <strong>{{ person.name }}</strong>
            <span class="quiet">{{ person.role }}</span>
            <span v-if="person.id === shop.operatorId" class="quiet small">at the bench now</span>
          </span>
          <Button type="button" text label="Rename" data-test-id="rename-person" @click="open = person.id" />
          <Button type="button" text label="Retire" data-test-id="retire-person" @click="retire(person, true)" />
        </template>
      </li>
      <li v-for="person in gone" :key="person.id" class="gone" :data-test-id="`gone-${person.name.split(' ')[0]}`">
        <span class="who">
          <span>{{ person.name }}</span>
          <span class="small">works here no more</span>
        </span>
        <Button type="button" text label="Take back" data-test-id="take-back-person" @click="retire(person, false)" />
      </li>
    </ul>
    <PersonForm
      v-if="open === NEW"
      :initial="{ name: '', role: 'operator' }"
      :keep="add"
      data-test-id="new-person"
      @closed="open = null"
    />
    <Button v-else type="button" outlined label="Add somebody" data-test-id="add-person" @click="open = NEW" />
  </section>
</template>

<style scoped>
ul {
  padding: 0;
  margin: 0 0 0.8rem;
  list-style: none;
}

li {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: 3rem;
  border-bottom: 1px solid var(--unto-rule);
}

.who {
  display: flex;
  flex: 1;
  flex-wrap: wrap;
  gap: 0 0.8rem;
  align-items: baseline;
}

.gone {
  color: var(--unto-quiet);
}
</style>
