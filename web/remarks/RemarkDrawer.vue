<script setup lang="ts">
import Button from 'primevue/button';
import Drawer from 'primevue/drawer';
import { computed, ref } from 'vue';
import RemarkForm from './RemarkForm.vue';
import RemarkList from './RemarkList.vue';
import { useRemarks } from './useRemarks';

/** Notes and pictures of a ticket, opened beside the work. */
const props = defineProps<{ ticketId: string }>();
const open = ref(false);
const { remarks, retire } = useRemarks(() => props.ticketId);
const label = computed(() => (remarks.value.length ? `Notes ${remarks.value.length}` : 'Notes'));
</script>

<template>
  <Button text size="small" :label="label" class="no-print" data-test-id="remarks" @click="open = !open" />
  <Drawer
    v-model:visible="open"
    position="right"
    :modal="false"
    :block-scroll="false"
    header="Notes and pictures"
    class="beside"
    data-test-id="remark-drawer"
  >
    <RemarkList v-if="remarks.length" :remarks="remarks" removable @retire="retire" />
    <p v-else class="quiet">Nothing yet: how the part came, how it was set up, what was noticed.</p>
    <RemarkForm :key="ticketId" :ticket-id="ticketId" />
  </Drawer>
</template>
