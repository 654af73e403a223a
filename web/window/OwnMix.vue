<script setup lang="ts">
import { MIXED, type Mix } from '@unto/core';
import Button from 'primevue/button';
import Slider from 'primevue/slider';

/** What somebody weighs against what: the setting that serves it best is then offered first. */
const mix = defineModel<Mix | null>({ required: true });
const NAMES: Record<keyof Mix, string> = {
  time: 'quick',
  margin: 'safe',
  contrast: 'strong contrast',
  price: 'cheap',
};
const MOST = 5;
const EVEN: Mix = { time: 3, margin: 3, contrast: 0, price: 0 };
const set = (part: keyof Mix, value: number | number[]) => {
  if (mix.value && typeof value === 'number') mix.value = { ...mix.value, [part]: value };
};
</script>

<template>
  <Button v-if="!mix" text size="small" class="open" label="Mix your own" data-test-id="own-mix" @click="mix = EVEN" />
  <fieldset v-else class="mix">
    <legend class="quiet small">Your own mix weighs</legend>
    <label v-for="part in MIXED" :key="part" class="small">
      <span
        >{{ NAMES[part] }} <span class="mono quiet">{{ mix[part] }}</span></span
      >
      <Slider
        :model-value="mix[part]"
        :min="0"
        :max="MOST"
        :aria-label="`how much ${NAMES[part]} counts, 0 to ${MOST}`"
        :pt="{ handle: { 'data-test-id': `mix-${part}` } }"
        @update:model-value="set(part, $event)"
      />
    </label>
    <Button text size="small" label="Without it" data-test-id="no-mix" @click="mix = null" />
  </fieldset>
</template>

<style scoped>
.mix :deep(.p-button) {
  justify-self: start;
  padding-left: 0;
}

.open {
  align-self: flex-start;
}

.mix {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  align-items: end;
  gap: 0.8rem 1.4rem;
  margin: 0;
  padding: 0.3rem 1.1rem 0.5rem;
  border: 1px solid var(--unto-rule);
}

label {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
}

label > span {
  display: flex;
  justify-content: space-between;
  align-items: end;
  gap: 0.3rem;
  line-height: 1.1;
}
</style>
