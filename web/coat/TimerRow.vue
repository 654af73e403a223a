<script setup lang="ts">
import type { Timer } from '@unto/contract';
import { readTimerAt } from '@unto/domain';
import Button from 'primevue/button';
import { computed } from 'vue';
import { useNow } from '../stores/now';
import { useAct } from '../stores/useAct';
import TimerRing from '../timers/TimerRing.vue';

/** A timer of this coat with what ends it. */
const props = defineProps<{
  timer: Timer;
  words: readonly [running: string, due: string];
  text: string;
  passed: string;
  dropped?: string;
  passId: string;
  dropId?: string;
  early?: boolean;
}>();
const emit = defineEmits<{ ended: ['passed' | 'dropped'] }>();
const time = useNow();
const { act } = useAct();
const due = computed(() => readTimerAt(props.timer, time.now).due);

async function end(outcome: 'passed' | 'dropped', label: string): Promise<void> {
  if (await act('endTimer', { params: { id: props.timer.id }, body: { outcome } }, label)) emit('ended', outcome);
}
</script>

<template>
  <div class="timer-row">
    <TimerRing :timer="timer" :size="112" of />
    <div class="beside">
      <h3>{{ words[due ? 1 : 0] }}</h3>
      <p class="quiet small">{{ timer.label }} · {{ text }}</p>
      <div class="pair">
        <Button
          :label="passed"
          :disabled="!due && !early"
          :data-test-id="passId"
          @click="end('passed', passed.toLowerCase())"
        />
        <Button
          v-if="dropped"
          :label="dropped"
          outlined
          severity="secondary"
          :data-test-id="dropId"
          @click="end('dropped', dropped.toLowerCase())"
        />
      </div>
    </div>
  </div>
</template>

<style scoped>
.timer-row {
  display: flex;
  gap: 1.1rem;
  align-items: center;
}

.pair {
  display: flex;
  gap: 0.5rem;
  flex-wrap: wrap;
  margin-top: 0.4rem;
}

.beside {
  flex: 1;
}
</style>
