import type { Figure } from '@unto/core';
import { defineStore } from 'pinia';
import { ref } from 'vue';

/** The figure whose evidence sheet is open. */
export const useEvidence = defineStore('evidence', () => {
  const open = ref<{ title: string; figure: Figure } | null>(null);
  function show(title: string, figure: Figure): void {
    open.value = { title, figure };
  }
  return { open, show };
});
