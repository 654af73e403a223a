<script setup lang="ts">
import type { Timer } from '@unto/contract';
import { readTimerAt } from '@unto/domain';
import { computed, useTemplateRef } from 'vue';
import { useShownNow } from './useShownNow';
import { formatTimer } from '../ui/format';

/** A timer as a ring that fills, with the time left in it. */
const props = defineProps<{ timer: Pick<Timer, 'startedAt' | 'minimumS' | 'kind'>; size?: number; of?: boolean }>();
const ring = useTemplateRef<HTMLElement>('ring');
const now = useShownNow(ring);
const reading = computed(() => readTimerAt(props.timer, now.value));
/** What to do when its time is up. */
const DUE = { shake: 'stop', dry: 'look', pot: 'over', cool: 'feel' } as const;
const length = 2 * Math.PI * 42;
</script>

<template>
  <div
    ref="ring"
    class="ring"
    :style="{ width: `${size ?? 72}px`, height: `${size ?? 72}px` }"
    role="timer"
    :aria-label="reading.due ? 'time is up' : `${formatTimer(reading.leftS)} left`"
  >
    <svg viewBox="0 0 100 100" aria-hidden="true" :class="timer.kind">
      <circle cx="50" cy="50" r="42" fill="none" class="track" stroke-width="11" />
      <circle
        cx="50"
        cy="50"
        r="42"
        fill="none"
        class="run"
        stroke-width="11"
        :stroke-dasharray="`${length * reading.share} ${length}`"
        transform="rotate(-90 50 50)"
      />
    </svg>
    <span class="figures mono" :style="{ fontSize: `${(size ?? 72) / 5.2}px` }">
      {{ reading.due ? DUE[timer.kind] : formatTimer(reading.leftS) }}
      <small v-if="of" class="quiet">of {{ formatTimer(timer.minimumS) }}</small>
    </span>
  </div>
</template>

<style scoped>
.ring {
  position: relative;
  flex: none;
}

.track {
  stroke: var(--unto-coat-tint);
}

.run {
  stroke: var(--unto-coat-line);
}

.cool .track {
  stroke: var(--unto-rule);
}

.cool .run {
  stroke: var(--unto-slate);
}

.figures {
  position: absolute;
  inset: 0;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  font-weight: 700;
  line-height: 1.1;
}

small {
  font-size: 0.5em;
  font-weight: 400;
}
</style>
