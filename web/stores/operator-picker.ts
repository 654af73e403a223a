import { defineStore } from 'pinia';
import { ref } from 'vue';

/** Whether the choice of operator is open; it opens by itself on a browser that has none. */
export const useOperatorPicker = defineStore('operator-picker', () => {
  const open = ref(false);
  return { open };
});
