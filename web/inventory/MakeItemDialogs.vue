<script setup lang="ts">
import Dialog from 'primevue/dialog';
import { useMakeItem } from '../stores/make-item';
import { KIND_WORDS } from './kinds';
import ShelfForm from './ShelfForm.vue';

/** Forms of what another form misses, one over the other; each goes back with what was made. */
const making = useMakeItem();
</script>

<template>
  <Dialog
    v-for="(item, i) in making.asked"
    :key="i"
    visible
    modal
    :header="`New ${KIND_WORDS[item.kind].one}`"
    :style="{ width: '56rem', maxWidth: '96vw' }"
    :data-test-id="`make-${item.kind}`"
    @update:visible="making.done(null)"
  >
    <ShelfForm
      :kind="item.kind"
      :item="null"
      :preset="item.preset"
      in-place
      @done="making.done($event)"
      @close="making.done(null)"
    />
  </Dialog>
</template>
