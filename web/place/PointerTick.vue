<script setup lang="ts">
import type { PlanePoint } from '@unto/core';
import { useUnits } from '../ui/useUnits';
import TickField from '../ui/TickField.vue';

/** Whether what was found with the pointer is moved by its offset; nothing where no offset was measured. */
const applied = defineModel<boolean>({ required: true });
const units = useUnits();
defineProps<{ offset: PlanePoint | null }>();
const mm = (value: number) => units.rounded('length', value, 0.01);
</script>

<template>
  <TickField v-if="offset" v-model="applied" class="small" test-id="by-pointer"
    >found with the pointer: its offset of {{ mm(offset.xMm) }}, {{ mm(offset.yMm) }} taken into account</TickField
  >
</template>
