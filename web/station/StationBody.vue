<script setup lang="ts">
import type { Station } from '@unto/core';
import AskedQuestions from './AskedQuestions.vue';
import CautionStrip from './CautionStrip.vue';

/** The two halves of a station: the section on the left, what to do on the right with its main action at the foot. */
defineProps<{
  station: Station;
  /** Cautions stand below: what is pressed again and again stays where it is. */
  cautionsLast?: boolean;
}>();
</script>

<template>
  <div class="station">
    <div class="left"><slot name="left" /></div>
    <div class="right">
      <CautionStrip v-if="!cautionsLast" :station="station" />
      <AskedQuestions :station="station" />
      <div class="do"><slot /></div>
      <CautionStrip v-if="cautionsLast" :station="station" />
      <div class="foot"><slot name="foot" /></div>
    </div>
  </div>
</template>

<style scoped>
.station {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(400px, 452px);
  grid-template-rows: minmax(0, 1fr);
  min-height: 0;
}

.left,
.right {
  overflow-y: auto;
}

.left {
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
  padding: 0.9rem 1.2rem 1rem 1.5rem;
  min-width: 0;
}

.right {
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
  padding: 0.9rem 1.4rem 1rem;
  background: var(--unto-surface);
  border-left: 1px solid var(--unto-rule);
}

.do {
  flex: 1;
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
}

.foot {
  display: flex;
  gap: 0.6rem;
}

.foot :deep(.p-button:first-child) {
  flex: 1;
}

.foot {
  position: sticky;
  bottom: -1rem;
  z-index: 1;
  padding: 0.4rem 0 1rem;
  margin-bottom: -1rem;
  background: var(--unto-surface);
}

.foot:empty {
  display: none;
}

@media (max-width: 900px) {
  .station {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: none;
  }

  .left,
  .right {
    overflow-y: visible;
  }

  .right {
    border-left: 0;
    border-top: 1px solid var(--unto-rule);
    order: -1;
  }

  .left,
  .right {
    padding: 0.8rem 0.9rem;
  }
}
</style>
