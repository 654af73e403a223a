<script setup lang="ts">
import Button from 'primevue/button';
import ProgressBar from 'primevue/progressbar';
import { computed, ref, watch } from 'vue';
import { READING_STEPS, type ReadingStep } from './useReading';

/** How far the reading of a picture is, with a stop; what is done at once shows nothing. */
const props = defineProps<{ doing: ReadingStep | null }>();
const emit = defineEmits<{ stop: [] }>();
const SHOWN_AFTER_MS = 400;
const STEPS = Object.keys(READING_STEPS) as ReadingStep[];
const late = ref(false);
watch(
  () => props.doing !== null,
  (working, _, onCleanup) => {
    late.value = false;
    if (!working) return;
    const timer = setTimeout(() => (late.value = true), SHOWN_AFTER_MS);
    onCleanup(() => clearTimeout(timer));
  },
  { immediate: true },
);
const at = computed(() => (props.doing ? STEPS.indexOf(props.doing) : 0));
</script>

<template>
  <div v-if="doing && late" class="reading" role="status" data-test-id="reading-progress">
    <p>
      {{ READING_STEPS[doing] }} <span class="quiet small">{{ at + 1 }} of {{ STEPS.length }}</span>
    </p>
    <ProgressBar :value="Math.round((100 * (at + 0.5)) / STEPS.length)" :show-value="false" aria-label="Reading" />
    <Button size="small" outlined label="Stop" data-test-id="stop-reading" @click="emit('stop')" />
  </div>
</template>

<style scoped>
.reading {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  gap: 0.3rem 0.8rem;
}

.reading p {
  margin: 0;
}

.reading :deep(.p-button) {
  grid-area: 1 / 2 / 3;
}
</style>
