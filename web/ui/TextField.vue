<script setup lang="ts">
import InputText from 'primevue/inputtext';
import Textarea from 'primevue/textarea';
import FieldRow from './FieldRow.vue';

const model = defineModel<string | null>({ required: true });
defineProps<{
  label: string;
  fault?: string | undefined;
  hint?: string | undefined;
  type?: string;
  lines?: number;
  testId?: string;
}>();
defineEmits<{ left: [] }>();
</script>

<template>
  <FieldRow v-slot="{ id, described, invalid }" :label="label" :fault="fault" :hint="hint">
    <Textarea
      v-if="lines"
      :id="id"
      :model-value="model ?? ''"
      :rows="lines"
      :invalid="invalid"
      :aria-invalid="invalid"
      :aria-describedby="described"
      :data-test-id="testId"
      @update:model-value="model = $event"
      @blur="$emit('left')"
    />
    <InputText
      v-else
      :id="id"
      :type="type ?? 'text'"
      :model-value="model ?? ''"
      :invalid="invalid"
      :aria-invalid="invalid"
      :aria-describedby="described"
      :data-test-id="testId"
      @update:model-value="model = type === 'date' && !$event ? null : ($event ?? '')"
      @blur="$emit('left')"
    />
  </FieldRow>
</template>
