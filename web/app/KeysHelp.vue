<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import Dialog from 'primevue/dialog';
import { isTyping, KEYS } from '../ui/keys';

/** Which keys do what: opened by its own, and from the index. */
const visible = defineModel<boolean>({ required: true });
useEventListener('keydown', (event: KeyboardEvent) => {
  if (event.key === '?' && !isTyping(event)) visible.value = true;
});
</script>

<template>
  <Dialog v-model:visible="visible" modal header="Keys" :style="{ width: '30rem' }">
    <table class="plain">
      <tbody>
        <tr v-for="{ keys, where, does } in KEYS" :key="keys">
          <td class="mono">{{ keys }}</td>
          <td>{{ does }}</td>
          <td class="quiet">{{ where }}</td>
        </tr>
      </tbody>
    </table>
  </Dialog>
</template>
