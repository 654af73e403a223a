<script setup lang="ts" generic="T extends string | number | boolean | null">
import Select from 'primevue/select';
import FieldRow from './FieldRow.vue';

const model = defineModel<T>({ required: true });
defineProps<{
  label: string;
  options: readonly { value: T; label: string }[];
  fault?: string | undefined;
  hint?: string | undefined;
  testId?: string;
  placeholder?: string;
}>();
defineEmits<{ left: [] }>();
</script>

<template>
  <FieldRow v-slot="{ id, described, invalid }" :label="label" :fault="fault" :hint="hint">
    <Select
      v-model="model"
      :label-id="id"
      :options="[...options]"
      option-label="label"
      option-value="value"
      :aria-label="label"
      :placeholder="placeholder ?? 'Choose'"
      :invalid="invalid"
      :aria-describedby="described"
      :pt="{ label: { 'aria-invalid': invalid, 'data-test-id': testId } }"
      :data-test-id="testId ? `${testId}-box` : undefined"
      @hide="$emit('left')"
    />
  </FieldRow>
</template>
