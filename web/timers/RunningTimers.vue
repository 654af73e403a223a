<script setup lang="ts">
import { RouterLink } from 'vue-router';
import { TIMER_NAMES, useTimers } from './timers';
import TimerRing from './TimerRing.vue';

/** All timers that run, and how they tell: title always, sound and notification when asked. */
const timers = useTimers();
</script>

<template>
  <section data-test-id="running">
    <div class="head">
      <h2>Running</h2>
      <button
        type="button"
        :aria-pressed="timers.sound"
        data-test-id="timer-sound"
        @click="timers.sound = !timers.sound"
      >
        {{ timers.sound ? '✓ Sound' : 'Sound' }}
      </button>
      <button type="button" :aria-pressed="timers.notify" data-test-id="timer-notify" @click="timers.askNotify()">
        {{ timers.notify ? '✓ Notify' : 'Notify' }}
      </button>
    </div>
    <p v-if="!timers.running.length" class="quiet">No timer runs.</p>
    <div v-for="timer in timers.running" :key="timer.id" class="timer">
      <TimerRing :timer="timer" />
      <div>
        <RouterLink :to="`/tickets/${timer.ticketId}/${timer.kind === 'cool' ? 'clean' : 'coat'}`"
          ><strong>{{ TIMER_NAMES[timer.kind] }}: {{ timer.label }}</strong></RouterLink
        >
        <p class="quiet small">{{ timer.ticketTitle }}</p>
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

.timer {
  display: flex;
  align-items: center;
  gap: 1rem;
  padding: 0.7rem 0;
  border-bottom: 1px solid var(--unto-rule);
  content-visibility: auto;
  contain-intrinsic-size: auto 87px;
}

.timer a {
  color: var(--unto-ink);
}
</style>
