<script setup lang="ts">
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';
import { computed } from 'vue';
import { useShop } from '../stores/shop';
import { useTicketChange } from '../stores/ticket-change';

/** Somebody else changed the ticket meanwhile: both versions side by side, nothing lost. */
const store = useTicketChange();
const shop = useShop();
const visible = computed({ get: () => store.conflict !== null, set: (open) => !open && void store.resolve('theirs') });
const NAMES: Record<string, string> = {
  compoundId: 'Compound',
  choiceReason: 'Reason',
  title: 'What is marked',
  pieces: 'Pieces',
  state: 'State',
  note: 'Note',
  coatMarginMm: 'Coat margin',
  wantedOn: 'Wanted on',
};

const rows = computed(() => {
  const { conflict } = store;
  if (!conflict) return [];
  const keys = new Set([
    ...Object.keys(conflict.mine),
    ...Object.keys(NAMES).filter((key) => shown(conflict.before, key) !== shown(conflict.theirs, key)),
  ]);
  return [...keys].map((key) => ({
    name: NAMES[key] ?? key,
    mine: shown({ ...conflict.theirs, ...conflict.mine }, key),
    theirs: shown(conflict.theirs, key),
  }));
});

function shown(from: object, key: string): string {
  const value = (from as Record<string, unknown>)[key];
  if (key.endsWith('Id')) return shop.nameOf(value as string) || 'none';
  return value === null || value === '' ? '–' : String(value);
}
</script>

<template>
  <Dialog
    v-model:visible="visible"
    modal
    header="Somebody else changed this ticket meanwhile"
    :style="{ width: '38rem' }"
    data-test-id="conflict"
  >
    <table class="plain">
      <thead>
        <tr>
          <th></th>
          <th>Yours</th>
          <th>Theirs, kept now</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.name">
          <td>{{ row.name }}</td>
          <td>
            <strong>{{ row.mine }}</strong>
          </td>
          <td>{{ row.theirs }}</td>
        </tr>
      </tbody>
    </table>
    <template #footer>
      <Button outlined label="Keep theirs" data-test-id="keep-theirs" @click="store.resolve('theirs')" />
      <Button label="Put yours over it" data-test-id="keep-mine" @click="store.resolve('mine')" />
    </template>
  </Dialog>
</template>
