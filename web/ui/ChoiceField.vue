<script setup lang="ts" generic="T extends string | number | boolean | null">
import Select from 'primevue/select';
import FieldRow from './FieldRow.vue';
import { useNamedField, type FieldProps } from './useNamedField';

const model = defineModel<T>();
const props = defineProps<
  FieldProps & { options: readonly { readonly value: T; readonly label: string }[]; placeholder?: string | undefined }
>();
const emit = defineEmits<{ left: [] }>();
const { value, fault: shownFault, required, left } = useNamedField<T>(props, model);

function leave(): void {
  left();
  emit('left');
}
</script>

<template>
  <FieldRow v-slot="{ id, described, invalid }" :label="label" :fault="shownFault" :hint="hint" :required="required">
    <Select
      v-model="value"
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
      @hide="leave"
    />
  </FieldRow>
</template>
