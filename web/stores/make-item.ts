import type { InventoryKind } from '@unto/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';

/** Something asked for while another form stands open. */
export interface AskedItem {
  readonly kind: InventoryKind;
  readonly preset: Record<string, unknown>;
  readonly settle: (id: string | null) => void;
}

/** Store items made in place: a form asks for what it misses, and goes on with it. One may ask for another. */
export const useMakeItem = defineStore('make-item', () => {
  const asked = ref<AskedItem[]>([]);

  /** Opens the form of a kind over the page; gives its id once it is kept, null where nobody kept it. */
  function make(kind: InventoryKind, preset: Record<string, unknown> = {}): Promise<string | null> {
    return new Promise((settle) => {
      asked.value.push({ kind, preset, settle });
    });
  }

  /** Ends the newest question. */
  function done(id: string | null): void {
    asked.value.pop()?.settle(id);
  }

  return { asked, make, done };
});
