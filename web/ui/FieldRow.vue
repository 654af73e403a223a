<script setup lang="ts">
import { computed, useId } from 'vue';

/** A label, its field and the fault of that field. */
const props = defineProps<{
  label: string;
  fault?: string | undefined;
  hint?: string | undefined;
  required?: boolean;
}>();
const id = useId();
const described = computed(() => (props.fault ? `${id}-fault` : props.hint ? `${id}-hint` : undefined));
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}<span v-if="required" class="must" title="Must be filled in"> *</span></label>
    <slot :id="id" :described="described" :invalid="Boolean(fault)" />
    <p v-if="fault" :id="`${id}-fault`" class="fault" role="alert">{{ fault }}</p>
    <p v-else-if="hint" :id="`${id}-hint`" class="quiet small">{{ hint }}</p>
  </div>
</template>

<style scoped>
.field {
  display: flex;
  flex-direction: column;
  gap: 0.25rem;
  min-width: 0;
}

label {
  font-size: 0.88rem;
  color: var(--unto-quiet);
}

.must {
  color: var(--unto-danger);
}
</style>
