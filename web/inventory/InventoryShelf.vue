<script setup lang="ts">
import { INVENTORY_KINDS, type InventoryItem, type InventoryKind } from '@unto/contract';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { KIND_WORDS } from './kinds';
import TickField from '../ui/TickField.vue';

/** The shelf: every kind with its items, one kind open at a time; what is sought opens all. */
const open = defineModel<InventoryKind | null>({ required: true });
const props = defineProps<{ items: readonly InventoryItem[]; here: string | undefined }>();
defineEmits<{ add: [kind: InventoryKind] }>();
const sought = ref('');
const retiredToo = ref(false);

const groups = computed(() => {
  const words = sought.value.trim().toLowerCase();
  return INVENTORY_KINDS.map((kind) => {
    const found = props.items.filter(
      (item) =>
        item.kind === kind &&
        (retiredToo.value || !item.retired || item.id === props.here) &&
        (words === '' || item.body.name.toLowerCase().includes(words)),
    );
    return { kind, found, shown: words !== '' ? found.length > 0 : open.value === kind };
  });
});
</script>

<template>
  <nav class="shelf" aria-label="Store items">
    <input v-model="sought" type="search" class="search" placeholder="Find by name" aria-label="Find by name" />
    <section v-for="{ kind, found, shown } in groups" :key="kind">
      <div class="kind">
        <button
          type="button"
          class="name"
          :class="{ shown }"
          :aria-expanded="shown"
          :data-test-id="`kind-${kind}`"
          @click="open = open === kind ? null : kind"
        >
          {{ KIND_WORDS[kind].many }} <span class="quiet mono">{{ found.length }}</span>
        </button>
        <button
          type="button"
          class="add"
          :aria-label="`Add to ${KIND_WORDS[kind].many}`"
          :data-test-id="`add-${kind}`"
          @click="$emit('add', kind)"
        >
          Add
        </button>
      </div>
      <template v-if="shown">
        <RouterLink
          v-for="item in found"
          :key="item.id"
          :to="`/stores/${item.id}`"
          class="entry"
          :class="{ here: item.id === here, retired: item.retired }"
          >{{ item.body.name }}{{ item.retired ? ', retired' : '' }}</RouterLink
        >
        <p v-if="!found.length" class="quiet small none">None yet: {{ KIND_WORDS[kind].about }}.</p>
      </template>
    </section>
    <TickField v-model="retiredToo" class="small">show retired ones too</TickField>
  </nav>
</template>

<style scoped>
.shelf {
  padding: 0.8rem 1rem 1rem 1.5rem;
  border-right: 1px solid var(--unto-rule);
  background: var(--unto-surface);
  overflow-y: auto;
}

.search {
  width: 100%;
  min-height: 40px;
  padding: 0 0.6rem;
  border: 1px solid var(--unto-rule);
  border-radius: 4px;
  background: var(--unto-ground);
  color: var(--unto-ink);
}

.kind {
  display: flex;
  border-bottom: 1px solid var(--unto-rule);
}

.name {
  flex: 1;
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 0 0.8rem 0 0;
}

.name,
.add {
  min-height: 44px;
  border: 0;
  background: none;
  color: var(--unto-ink);
  font-weight: 700;
  text-align: left;
  cursor: pointer;
}

.name:not(.shown) {
  font-weight: 400;
}

.add {
  color: var(--unto-action);
}

.entry {
  display: block;
  padding: 0.45rem 0.5rem 0.45rem 0.9rem;
  color: var(--unto-ink);
  text-decoration: none;
  border-bottom: 1px solid var(--unto-rule);
}

.entry.here {
  background: var(--unto-coat-tint);
  font-weight: 700;
}

.entry.retired {
  color: var(--unto-quiet);
}

.none {
  padding: 0.4rem 0.9rem;
}

.retired-too {
  display: flex;
  align-items: center;
  gap: 0.4rem;
  min-height: 44px;
}

@media (max-width: 800px) {
  .shelf {
    overflow: visible;
  }
}
</style>
