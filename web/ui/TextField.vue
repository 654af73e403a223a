<script setup lang="ts">
import InputText from 'primevue/inputtext';
import Textarea from 'primevue/textarea';
import FieldRow from './FieldRow.vue';
import { useNamedField, type FieldProps } from './useNamedField';

const model = defineModel<string | null>();
const props = defineProps<FieldProps & { lines?: number }>();
const emit = defineEmits<{ left: [] }>();
const { value, fault: shownFault, required, left } = useNamedField<string | null>(props, model);

function leave(): void {
  left();
  emit('left');
}
</script>

<template>
  <FieldRow v-slot="{ id, described, invalid }" :label="label" :fault="shownFault" :hint="hint" :required="required">
    <Textarea
      v-if="lines"
      :id="id"
      :model-value="value ?? ''"
      :rows="lines"
      :invalid="invalid"
      :aria-invalid="invalid"
      :aria-required="required || undefined"
      :aria-describedby="described"
      :data-test-id="testId"
      @update:model-value="value = $event"
      @blur="leave"
    />
    <InputText
      v-else
      :id="id"
      :model-value="value ?? ''"
      :invalid="invalid"
      :aria-invalid="invalid"
      :aria-required="required || undefined"
      :aria-describedby="described"
      :data-test-id="testId"
      @update:model-value="value = $event ?? ''"
      @blur="leave"
    />
  </FieldRow>
</template>
