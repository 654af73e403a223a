<script setup lang="ts">
import { ref } from 'vue';
import { ApiProblem } from '../api/client';
import { keepPictureFile } from '../pictures/kept-picture';
import FileLabel from '../ui/FileLabel.vue';

/** A file kept with an item: brought once, named by its content, opened in a tab of its own. */
const model = defineModel<{ hash: string; name: string } | null>({ required: true });
defineProps<{ label: string; fault?: string | undefined; testId: string }>();
const refused = ref('');
const busy = ref(false);

async function bring(file: File): Promise<void> {
  refused.value = '';
  busy.value = true;
  try {
    const { hash, name } = await keepPictureFile(file);
    model.value = { hash, name };
  } catch (error) {
    refused.value =
      error instanceof ApiProblem ? error.problem.detail : `${(error as Error).message} The file was not kept.`;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <div class="file">
    <span class="quiet small">{{ label }} (PDF, PNG or JPEG)</span>
    <div class="row">
      <a v-if="model" :href="`/api/files/${model.hash}`" target="_blank" rel="noopener">{{ model.name }}</a>
      <span v-else class="quiet">none yet</span>
      <FileLabel
        :label="busy ? 'Keeping …' : model ? 'Bring another' : 'Bring a file'"
        accept=".pdf,.png,.jpg,.jpeg"
        :test-id="testId"
        @brought="bring"
      />
      <button v-if="model" type="button" class="out" @click="model = null">Leave it out</button>
    </div>
    <p v-if="refused || fault" class="fault" role="alert">{{ refused || fault }}</p>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  align-items: center;
  gap: 1rem;
  min-height: 44px;
}

.out {
  border: 0;
  background: none;
  color: var(--unto-action);
  font-weight: 700;
  cursor: pointer;
}
</style>
