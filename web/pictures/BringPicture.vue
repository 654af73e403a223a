<script setup lang="ts">
import Button from 'primevue/button';
import { useShop } from '../stores/shop';
import FileLabel from '../ui/FileLabel.vue';
import ReadingProgress from './ReadingProgress.vue';
import type { ReadingStep } from './useReading';

/** A picture from a file (on a phone: from its camera), or taken by the camera of the bench; how far its reading is, with a stop. */
defineProps<{ doing: ReadingStep | null; first?: boolean; again?: boolean; noCamera?: boolean }>();
const emit = defineEmits<{ brought: [File]; take: []; stop: [] }>();
const shop = useShop();
</script>

<template>
  <div class="line">
    <FileLabel
      :label="doing ? 'Opening …' : again ? 'Bring another' : 'Bring a picture'"
      accept="image/jpeg,image/png,image/heic,.heic"
      camera
      :look="first ? 'filled' : 'outlined'"
      test-id="picture-file"
      @brought="emit('brought', $event)"
    />
    <Button
      v-if="shop.devices.camera && !noCamera"
      outlined
      :label="again ? 'Take it again' : 'Use the camera'"
      :disabled="doing !== null"
      data-test-id="take-picture"
      @click="emit('take')"
    />
  </div>
  <ReadingProgress :doing="doing" @stop="emit('stop')" />
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.7rem;
}
</style>
