<script setup lang="ts">
import type { OpenStation } from '@unto/core';
import TextField from '../ui/TextField.vue';

/** A note to a run, and why it runs all the same where stations stand open that a reason lets pass. */
defineProps<{ open: readonly OpenStation[] }>();
</script>

<template>
  <TextField name="note" class="wide" label="Note" />
  <TextField
    v-if="open.length && !open.some((one) => one.never)"
    name="reason"
    class="wide"
    label="Why it runs all the same"
    hint="Kept with the run; its grade is at best Carried"
    test-id="run-reason"
  />
</template>
