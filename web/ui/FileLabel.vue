<script setup lang="ts">
/** Words to press that ask for a file, with the keyboard's ring on them; the same file may be brought twice. */
const { look = 'link' } = defineProps<{
  label: string;
  accept: string;
  testId: string;
  look?: 'link' | 'outlined' | 'filled';
  /** On a phone the camera at the back is offered. */
  camera?: boolean;
}>();
const emit = defineEmits<{ brought: [File] }>();

function changed(event: Event): void {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (file) emit('brought', file);
}
</script>

<template>
  <label :class="look"
    >{{ label
    }}<input
      type="file"
      :accept="accept"
      :capture="camera ? 'environment' : undefined"
      :data-test-id="testId"
      @change="changed"
  /></label>
</template>

<style scoped>
label {
  position: relative;
  display: inline-flex;
  align-items: center;
  overflow: hidden;
  min-height: 44px;
  color: var(--unto-action);
  font-weight: 700;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
}

.link {
  padding: 0 0.4rem;
}

.outlined,
.filled {
  padding: 0 1rem;
  border: 1px solid var(--unto-action);
  border-radius: 4px;
}

.filled {
  background: var(--unto-action);
  color: var(--unto-on-action);
}

label:focus-within {
  outline: 2px solid var(--unto-action);
  outline-offset: 1px;
}

input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}
</style>
