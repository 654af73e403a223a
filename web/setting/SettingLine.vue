<script setup lang="ts">
import { settingWords, type SayableSetting } from '@unto/core';
import { computed } from 'vue';
import { useUnits } from '../ui/useUnits';

/** A whole setting on one line, as the panel reads it, with mm/s beside what means nothing elsewhere. */
const props = defineProps<{ setting: SayableSetting }>();
const units = useUnits();
const aside = computed(() => {
  const speed = props.setting.speedMmPerS;
  return speed === null || speed === undefined ? '' : units.aside('speed', speed);
});
</script>

<template>
  <span class="mono">{{ settingWords(setting, units.reading.value) }}{{ aside }}</span>
</template>
