<script setup lang="ts">
import Button from 'primevue/button';
import { useShop } from '../stores/shop';
import FileLabel from '../ui/FileLabel.vue';

/** A picture from a file (on a phone: from its camera), or taken by the camera of the bench. */
defineProps<{ working: boolean; first?: boolean; again?: boolean; noCamera?: boolean }>();
const emit = defineEmits<{ brought: [File]; take: [] }>();
const shop = useShop();
</script>

<template>
  <div class="line">
    <FileLabel
      :label="working ? 'Opening …' : again ? 'Bring another' : 'Bring a picture'"
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
      :disabled="working"
      data-test-id="take-picture"
      @click="emit('take')"
    />
  </div>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.7rem;
}
</style>
