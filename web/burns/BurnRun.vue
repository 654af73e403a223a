<script setup lang="ts">
import { BURN_BROKEN_OFF, type Burn, type ControllerAction, type SettleBurn } from '@unto/contract';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import NumberField from '../ui/NumberField.vue';
import { formatDuration } from '../ui/format';

/** A run on the controller: how far it is, what can be asked of it, and what somebody found once it broke off. */
const props = defineProps<{
  burn: Burn;
  /** What its program names, and how many of them it is of. */
  noun: 'cell' | 'piece';
  count: number;
  busy: boolean;
  fault: string;
}>();
const emit = defineEmits<{ act: [ControllerAction]; settle: [SettleBurn['as'], number | null] }>();

const WORDS: Record<Burn['state'], string> = {
  queued: 'Being sent',
  sending: 'Being sent',
  running: 'Burning',
  paused: 'Paused, beam off',
  waiting: 'Waits for you',
  silent: 'The controller does not answer',
  unknown: 'Nobody can know: look at the machine',
  stopped: 'Stopped, beam off',
  'not sent': 'Not sent',
  nothing: 'Nothing burnt',
  partly: 'Partly done',
  done: 'Done',
};
const ASKED: Record<ControllerAction, string> = { pause: 'pausing …', resume: 'going on …', stop: 'stopping …' };
const share = computed(() => (props.burn.totalS > 0 ? props.burn.elapsedS / props.burn.totalS : 0));
const left = computed(() => Math.max(0, props.burn.totalS - props.burn.elapsedS));
const brokenOff = computed(() => BURN_BROKEN_OFF.includes(props.burn.state));
/** The controller cannot tell which are whole: somebody counts them. */
const toCount = computed(() => brokenOff.value && props.burn.state !== 'stopped');
const seen = ref<number | null>(null);
const rest = computed(() => props.count - props.burn.cellsDone.length - props.burn.cellsCut.length);
const settle = (as: SettleBurn['as']) => emit('settle', as, toCount.value ? seen.value : null);
</script>

<template>
  <section class="run" :class="burn.state" data-test-id="burn">
    <p class="state" role="status">
      <strong data-test-id="burn-state">{{ WORDS[burn.state] }}</strong>
      <span v-if="burn.cell !== null && !brokenOff" class="quiet">{{ ` ${noun} ${burn.cell + 1}` }}</span>
      <span v-if="burn.asked" class="quiet"> {{ ASKED[burn.asked] }}</span>
    </p>
    <div
      class="progress"
      role="progressbar"
      aria-label="Burnt so far"
      :aria-valuenow="Math.round(100 * share)"
      aria-valuemin="0"
      aria-valuemax="100"
    >
      <span :style="{ width: `${100 * share}%` }" />
    </div>
    <p class="mono">
      {{ burn.cellsDone.length }} of {{ count }} {{ noun }}s · {{ formatDuration(burn.elapsedS) }} gone
      <template v-if="!brokenOff"> · {{ formatDuration(left) }} left</template>
      <template v-else> when it was last heard</template>
    </p>
    <p v-if="burn.state === 'waiting'" class="ask" data-test-id="burn-message">{{ burn.message }}</p>
    <p v-else-if="burn.state === 'silent'" class="ask">
      Stop the machine by its own switch if it still runs, then look at plug and cable. What was burnt so far is kept;
      it is asked again on its own, and sent nothing.
    </p>
    <p v-else-if="burn.state === 'unknown'" class="ask">
      The controller knows nothing of this program: it was switched off, runs another, or never had it. Stop the machine
      by its own switch if it still runs. Then count the {{ noun }}s.
    </p>
    <p v-else-if="burn.state === 'stopped'" class="ask">
      {{ burn.cellsDone.length }} {{ noun }}s are burnt whole{{
        burn.cellsCut.length ? `, ${burn.cellsCut.length} in part: it is left out from here on` : ''
      }}. {{ noun === 'cell' ? 'Burn the others without moving the blank' : 'Burn the others' }}, or take it as it is.
    </p>
    <NumberField
      v-if="toCount"
      v-model="seen"
      :label="noun === 'cell' ? 'Cells burnt whole' : 'Pieces burnt whole'"
      optional
      hint="Counted there, of what was sent last. The next in order counts as burnt in part."
      test-id="burn-seen"
    />
    <p v-if="fault || burn.fault" class="fault" role="alert" data-test-id="burn-fault">{{ fault || burn.fault }}</p>
  </section>
  <div class="foot">
    <template v-if="brokenOff">
      <Button
        :label="toCount ? 'Burn the others' : `Burn the other ${rest}`"
        :outlined="toCount"
        :loading="busy"
        data-test-id="resume-rest"
        @click="settle('resume')"
      />
      <Button
        label="Take it as partly done"
        outlined
        :disabled="busy"
        data-test-id="settle-partly"
        @click="settle('partly')"
      />
      <Button
        v-if="toCount"
        label="All are burnt"
        outlined
        :disabled="busy"
        data-test-id="settle-whole"
        @click="settle('whole')"
      />
      <Button
        v-if="burn.cellsDone.length === 0"
        label="Nothing is burnt"
        outlined
        :disabled="busy"
        data-test-id="settle-nothing"
        @click="settle('nothing')"
      />
    </template>
    <template v-else-if="burn.state === 'paused' || burn.state === 'waiting'">
      <Button
        :label="burn.state === 'waiting' ? 'It is set, go on' : 'Go on'"
        :disabled="busy"
        data-test-id="resume-burn"
        @click="emit('act', 'resume')"
      />
      <Button
        label="Stop"
        severity="danger"
        outlined
        :disabled="busy"
        data-test-id="stop-burn"
        @click="emit('act', 'stop')"
      />
    </template>
    <template v-else>
      <Button
        v-if="burn.state === 'running'"
        label="Pause"
        outlined
        :disabled="busy"
        data-test-id="pause-burn"
        @click="emit('act', 'pause')"
      />
      <Button label="Stop" severity="danger" :disabled="busy" data-test-id="stop-burn" @click="emit('act', 'stop')" />
    </template>
  </div>
</template>

<style scoped>
.run {
  display: grid;
  gap: 0.5rem;
}

.state {
  font-size: 1.3rem;
}

.progress {
  height: 14px;
  border: 1px solid var(--unto-ink);
  background: var(--unto-ground);
}

.progress span {
  display: block;
  height: 100%;
  background: var(--unto-danger);
  transition: width 0.6s linear;
}

.ask {
  padding: 0.5rem 0.8rem;
  border-left: 4px solid var(--unto-danger);
  background: var(--unto-danger-tint);
}

.foot {
  margin-top: auto;
  padding-bottom: 0.9rem;
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}

.foot :deep(.p-button) {
  flex: 1 1 40%;
}

@media (prefers-reduced-motion: reduce) {
  .progress span {
    transition: none;
  }
}
</style>
