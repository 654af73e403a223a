<script setup lang="ts">
import Checkbox from 'primevue/checkbox';
import { useId } from 'vue';

/** Something that is so or not, with its words to press. */
const model = defineModel<boolean>({ required: true });
defineProps<{ testId?: string }>();
const id = useId();
</script>

<template>
  <label :for="id" class="tick">
    <Checkbox v-model="model" binary :input-id="id" :pt="{ input: { 'data-test-id': testId } }" />
    <span><slot /></span>
  </label>
</template>

<style scoped>
.tick {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: 44px;
  cursor: pointer;
}
</style>
