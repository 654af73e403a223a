<script setup lang="ts">
import type { InventoryKind } from '@unto/contract';
import { isKinded, SHELF_KINDS } from '@unto/domain';
import { computed } from 'vue';
import ChoiceField from '../ui/ChoiceField.vue';
import { KIND_QUESTIONS } from './kinds';

/** What kind of thing it is: all that nobody can read off a label follows from it. */
const model = defineModel<string>({ required: true });
const props = defineProps<{
  kind: InventoryKind;
  /** Lenses: of which kind the head is; empty for one that is of none. */
  of?: string | undefined;
}>();
const options = computed(() => {
  if (!isKinded(props.kind)) return [];
  const kinds: readonly { key: string; name: string; about: string }[] = SHELF_KINDS[props.kind];
  const fitting = props.of ? kinds.filter(({ key }) => key.startsWith(`${props.of}/`)) : kinds;
  return [
    { value: '', label: 'none of these: I say every value' },
    ...fitting.map(({ key, name, about }) => ({ value: key, label: `${name} (${about})` })),
  ];
});
</script>

<template>
  <ChoiceField
    v-if="options.length"
    v-model="model"
    :label="KIND_QUESTIONS[kind] ?? 'What kind is it?'"
    :options="options"
    placeholder="Choose a kind"
    hint="A kind fills in what is usual for it, each value marked Usual until you say better."
    test-id="of-kind"
  />
</template>
