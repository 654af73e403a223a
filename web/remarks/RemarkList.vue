<script setup lang="ts">
import type { Remark, RemarkShows } from '@unto/contract';
import { useShop } from '../stores/shop';
import { formatMoment } from '../ui/format';

/** Notes and pictures as they were put down, oldest first. */
defineProps<{ remarks: readonly Remark[]; removable?: boolean }>();
const emit = defineEmits<{ retire: [Remark] }>();
const shop = useShop();
const SHOWN: Record<RemarkShows, string> = { part: 'the part', mark: 'the mark', 'set-up': 'the set-up', else: 'else' };
</script>

<template>
  <ul class="remarks">
    <li v-for="remark in remarks" :key="remark.id" data-test-id="remark">
      <a v-if="remark.file && remark.file.mediaType !== 'application/pdf'" :href="`/api/files/${remark.file.hash}`">
        <img
          :src="`/api/files/${remark.file.hash}`"
          :alt="remark.words || `Picture of ${remark.shows ? SHOWN[remark.shows] : 'this job'}`"
          loading="lazy"
        />
      </a>
      <a v-else-if="remark.file" :href="`/api/files/${remark.file.hash}`">{{ remark.file.name }}</a>
      <p v-if="remark.words" class="words">{{ remark.words }}</p>
      <p class="quiet small">
        {{ formatMoment(remark.at) }}, {{ shop.personOf(remark.by)
        }}<template v-if="remark.shows">, {{ SHOWN[remark.shows] }}</template>
        <button
          v-if="removable"
          type="button"
          class="link"
          data-test-id="retire-remark"
          @click="emit('retire', remark)"
        >
          Take away
        </button>
      </p>
    </li>
  </ul>
</template>

<style scoped>
.remarks {
  display: flex;
  flex-direction: column;
  gap: 0.9rem;
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  break-inside: avoid;
}

img {
  display: block;
  max-width: 100%;
  max-height: 18rem;
  border: 1px solid var(--unto-rule);
  border-radius: 4px;
}

p {
  margin: 0.2rem 0 0;
}

.words {
  white-space: pre-wrap;
}

.link {
  padding: 0 0 0 0.5rem;
}
</style>
