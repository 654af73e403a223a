<script setup lang="ts">
import { RouterLink } from 'vue-router';
import { CLOCK_NAMES, useClocks } from '../stores/clocks';
import ClockRing from '../ui/ClockRing.vue';

/** All clocks that run, and how they tell: title always, sound and notification when asked. */
const clocks = useClocks();
</script>

<template>
  <section data-test-id="running">
    <div class="head">
      <h2>Running</h2>
      <button
        type="button"
        :aria-pressed="clocks.sound"
        data-test-id="clock-sound"
        @click="clocks.sound = !clocks.sound"
      >
        {{ clocks.sound ? '✓ Sound' : 'Sound' }}
      </button>
      <button type="button" :aria-pressed="clocks.notify" data-test-id="clock-notify" @click="clocks.askNotify()">
        {{ clocks.notify ? '✓ Notify' : 'Notify' }}
      </button>
    </div>
    <p v-if="!clocks.running.length" class="quiet">No clock runs.</p>
    <div v-for="clock in clocks.running" :key="clock.id" class="clock">
      <ClockRing :clock="clock" />
      <div>
        <RouterLink :to="`/tickets/${clock.ticketId}/${clock.kind === 'cool' ? 'clean' : 'coat'}`"
          ><strong>{{ CLOCK_NAMES[clock.kind] }}: {{ clock.label }}</strong></RouterLink
        >
        <p class="quiet small">{{ clock.ticketTitle }}{{ clock.kind === 'dry' ? ' · no fan' : '' }}</p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 0.4rem;
}

h2 {
  flex: 1;
}

.head button {
  min-height: 44px;
  padding: 0 0.7rem;
  border: 1px solid var(--unto-rule);
  border-radius: 3px;
  background: var(--unto-surface);
  color: var(--unto-ink);
  cursor: pointer;
}

.head button[aria-pressed='true'] {
  border-color: var(--unto-ink);
  font-weight: 700;
}

.clock {
  display: flex;
  align-items: center;
  gap: 1rem;
  padding: 0.7rem 0;
  border-bottom: 1px solid var(--unto-rule);
  content-visibility: auto;
  contain-intrinsic-size: auto 87px;
}

.clock a {
  color: var(--unto-ink);
}
</style>
