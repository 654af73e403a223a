<script setup lang="ts">
import Button from 'primevue/button';
import { useBench } from '../stores/bench';

/** A picture from a file (on a phone: from its camera), or taken by the camera of the bench. */
defineProps<{ working: boolean; first?: boolean; again?: boolean }>();
const emit = defineEmits<{ brought: [File]; take: [] }>();
const bench = useBench();

function brought(event: Event): void {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (file) emit('brought', file);
}
</script>

<template>
  <div class="line">
    <label class="bring" :class="{ first }"
      >{{ working ? 'Opening …' : again ? 'Bring another' : 'Bring a picture'
      }}<input
        type="file"
        accept="image/jpeg,image/png,image/heic,.heic"
        capture="environment"
        data-test-id="picture-file"
        @change="brought"
    /></label>
    <Button
      v-if="bench.devices.camera"
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

.bring {
  position: relative;
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  padding: 0 1rem;
  border: 1px solid var(--unto-action);
  border-radius: 4px;
  color: var(--unto-action);
  font-weight: 700;
  cursor: pointer;
}

.bring.first {
  background: var(--unto-action);
  color: var(--unto-on-action);
}

.bring:focus-within {
  outline: 2px solid var(--unto-action);
  outline-offset: 2px;
}

.bring input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
</style>
