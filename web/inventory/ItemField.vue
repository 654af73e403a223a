<script setup lang="ts">
import type { InventoryKind } from '@unto/contract';
import Button from 'primevue/button';
import { computed } from 'vue';
import { useMakeItem } from '../stores/make-item';
import { useShop } from '../stores/shop';
import ChoiceField from '../ui/ChoiceField.vue';
import { useNamedField, type FieldProps } from '../ui/useNamedField';
import { KIND_WORDS } from './kinds';

/** One of the things in the stores; what is not there yet is made in place and chosen. */
const model = defineModel<string | null>();
const props = defineProps<
  FieldProps & {
    kind: InventoryKind;
    options: readonly { readonly value: string | null; readonly label: string }[];
    placeholder?: string | undefined;
    /** What the new one is known to belong to. */
    preset?: Record<string, unknown>;
  }
>();
const making = useMakeItem();
const shop = useShop();
const { value } = useNamedField<string | null>(props, model);
const shown = computed(() => {
  // What waits to be sent is in no list yet, and is chosen all the same.
  const waits =
    value.value && !props.options.some((option) => option.value === value.value) && !shop.nameOf(value.value);
  return waits ? [...props.options, { value: value.value, label: 'just made, waits to be sent' }] : props.options;
});

async function make(): Promise<void> {
  const id = await making.make(props.kind, props.preset);
  if (id) value.value = id;
}
</script>

<template>
  <div class="item-field">
    <ChoiceField
      v-model="value"
      class="choice"
      :name="name"
      :label="label"
      :options="shown"
      :placeholder="placeholder"
      :fault="fault"
      :hint="hint"
      :test-id="testId"
    />
    <Button
      type="button"
      outlined
      class="make"
      :label="`New ${KIND_WORDS[kind].one}`"
      :data-test-id="testId ? `make-${testId}` : undefined"
      @click="make"
    />
  </div>
</template>

<style scoped>
.item-field {
  display: flex;
  gap: 0.5rem;
  align-items: start;
}

.choice {
  flex: 1;
}

.make {
  flex: none;
  margin-top: 1.45rem;
}
</style>
