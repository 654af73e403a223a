<script setup lang="ts">
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';
import InputText from 'primevue/inputtext';
import { v4 as uuid } from 'uuid';
import { computed, ref, watch } from 'vue';
import { useShop } from '../stores/shop';
import { useOutbox } from '../stores/outbox';
import { useOperatorPicker } from '../stores/operator-picker';

/** Who is at the bench: picked once per browser, switched in two presses. */
const shop = useShop();
const picker = useOperatorPicker();
const name = ref('');
const visible = computed({ get: () => picker.open, set: (open) => (picker.open = open) });

watch(
  // Where nothing stands on the bench yet, Begin asks.
  () => shop.ready && shop.operator === null && !shop.mustBegin,
  (nobody) => {
    if (nobody) picker.open = true;
  },
  { immediate: true },
);

function pick(id: string): void {
  shop.operatorId = id;
  picker.open = false;
}

async function add(): Promise<void> {
  if (!name.value.trim()) return;
  const id = uuid();
  await useOutbox().send(
    'createOperator',
    { body: { id, name: name.value.trim(), role: 'operator' } },
    name.value.trim(),
  );
  name.value = '';
  pick(id);
}
</script>

<template>
  <Dialog
    v-model:visible="visible"
    modal
    header="Who is at the bench?"
    :style="{ width: '26rem' }"
    data-test-id="operator-picker"
  >
    <div class="people">
      <Button
        v-for="person in shop.atWork"
        :key="person.id"
        :label="`${person.name}, ${person.role}`"
        :outlined="person.id !== shop.operatorId"
        :data-test-id="`person-${person.name.split(' ')[0]}`"
        @click="pick(person.id)"
      />
      <form class="new" @submit.prevent="add">
        <InputText v-model="name" placeholder="Somebody new" aria-label="Name of somebody new" />
        <Button type="submit" label="Add" outlined :disabled="!name.trim()" />
      </form>
    </div>
  </Dialog>
</template>

<style scoped>
.people {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
}

.new {
  display: flex;
  gap: 0.5rem;
}

.new :deep(input) {
  flex: 1;
}
</style>
