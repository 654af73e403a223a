<script setup lang="ts">
import type { FiringNotes, SwitchState } from '@unto/core';
import type { Coupon } from '@unto/contract';
import Button from 'primevue/button';
import { computed, ref, toRef } from 'vue';
import { useShop } from '../stores/shop';
import FiringNotesFields from '../setting/FiringNotes.vue';
import ChoiceField from '../ui/ChoiceField.vue';
import { formatDuration } from '../ui/format';
import { useBurn } from './useBurn';

/** Burn a coupon: sent to the controller and followed, or by hand. */
const props = defineProps<{ coupon: Coupon; gantry: boolean; cells: number; runTimeS: number }>();
const emit = defineEmits<{ changed: [Coupon]; burnt: [FiringNotes] }>();
const shop = useShop();
const { burn, busy, fault, send, act, settle } = useBurn(toRef(props, 'coupon'), (coupon) => emit('changed', coupon));
const laserOn = ref<'M3' | 'M4'>('M3');
const ON = [
  { value: 'M3', label: 'M3: power constant through corners' },
  { value: 'M4', label: 'M4: power follows the speed' },
] as const;
const air = ref<SwitchState | null>(null);
const extraction = ref<SwitchState | null>(null);
const tried = ref(false);
const unsaid = computed(() =>
  [air.value ? '' : 'air assist', extraction.value ? '' : 'extraction'].filter(Boolean).join(' and '),
);
/** What a mirror head does at turns it does always. */
const powerMode = computed(() => (props.gantry && laserOn.value === 'M4' ? 'scaled' : 'constant'));

function fire(how: () => void): void {
  tried.value = true;
  if (!unsaid.value) how();
}
const sendIt = () => fire(() => void send({ laserOn: laserOn.value, air: air.value, extraction: extraction.value }));
const isBurnt = () =>
  fire(() => emit('burnt', { air: air.value, extraction: extraction.value, powerMode: powerMode.value }));
const sends = computed(() => shop.devices.controller && props.gantry);
const share = computed(() => (burn.value && burn.value.totalS > 0 ? burn.value.elapsedS / burn.value.totalS : 0));
const left = computed(() => Math.max(0, (burn.value?.totalS ?? 0) - (burn.value?.elapsedS ?? 0)));
const WORDS = {
  running: 'Burning',
  paused: 'Paused, beam off',
  waiting: 'Waits for you',
  dropped: 'The controller does not answer',
  stopped: 'Stopped, beam off',
  partly: 'Partly done',
  done: 'Done',
} as const;
const broken = computed(() => burn.value?.state === 'dropped' || burn.value?.state === 'stopped');
</script>

<template>
  <h2>Burn it</h2>
  <template v-if="!burn">
    <p>Coat a spare blank as for the pieces, let it dry, lay it with its lower left corner at the head’s origin.</p>
    <FiringNotesFields v-model:air="air" v-model:extraction="extraction" />
    <p v-if="tried && unsaid" class="fault" role="alert">
      Say how {{ unsaid }} {{ unsaid.includes(' and ') ? 'stand' : 'stands' }} while it fires: a setting is proved for
      that alone.
    </p>
    <ChoiceField v-if="gantry" v-model="laserOn" label="Laser on" :options="ON" test-id="laser-on" />
    <template v-if="sends">
      <p class="quiet small">
        M3 suits small cells: they come out alike to their edges. M4 spares the corners of line work on machines that
        slow down there.
      </p>
      <p class="quiet small">Stay with it; enclosure shut, eyewear on. It takes {{ formatDuration(runTimeS) }}.</p>
    </template>
    <p v-else class="quiet">
      {{
        gantry
          ? 'No controller is tied to this server: take the G-code to the head.'
          : 'This head takes the SVG or DXF: every cell stands apart with its setting.'
      }}
    </p>
  </template>
  <section v-else class="run" :class="burn.state" data-test-id="burn">
    <p class="state" role="status">
      <strong data-test-id="burn-state">{{ WORDS[burn.state] }}</strong>
      <span v-if="burn.cell !== null" class="quiet"> cell {{ burn.cell + 1 }}</span>
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
      {{ burn.cellsDone.length }} of {{ cells }} cells · {{ formatDuration(burn.elapsedS) }} gone ·
      {{ formatDuration(left) }} left
    </p>
    <p v-if="burn.state === 'waiting'" class="ask" data-test-id="burn-message">{{ burn.message }}</p>
    <p v-if="burn.state === 'dropped'" class="ask">
      Stop the machine by its own switch if it still runs, then look at plug and cable. What was burnt so far is kept;
      it is asked again on its own.
    </p>
    <p v-else-if="burn.state === 'stopped'" class="ask">
      {{ burn.cellsDone.length }} cells are burnt whole. Burn the others without moving the blank, or take it as it is.
    </p>
  </section>
  <p v-if="fault" class="fault" role="alert" data-test-id="burn-fault">{{ fault }}</p>
  <div class="foot">
    <template v-if="!burn">
      <Button v-if="sends" label="Send it to the head" :loading="busy" data-test-id="send-burn" @click="sendIt" />
      <Button label="It is burnt" :outlined="sends" data-test-id="burnt" @click="isBurnt" />
    </template>
    <template v-else-if="burn.state === 'running'">
      <Button label="Pause" outlined :disabled="busy" data-test-id="pause-burn" @click="act('pause')" />
      <Button label="Stop" severity="danger" :disabled="busy" data-test-id="stop-burn" @click="act('stop')" />
    </template>
    <template v-else-if="burn.state === 'paused' || burn.state === 'waiting'">
      <Button
        :label="burn.state === 'waiting' ? 'It is set, go on' : 'Go on'"
        :disabled="busy"
        data-test-id="resume-burn"
        @click="act('resume')"
      />
      <Button label="Stop" severity="danger" outlined :disabled="busy" data-test-id="stop-burn" @click="act('stop')" />
    </template>
    <template v-else-if="broken">
      <Button
        :label="`Burn the other ${cells - burn.cellsDone.length}`"
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

.done .progress span,
.partly .progress span {
  background: var(--unto-bonded);
}

.ask {
  padding: 0.5rem 0.8rem;
  border-left: 4px solid var(--unto-danger);
  background: var(--unto-danger-tint);
}

.foot {
  margin-top: auto;
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}

.foot :deep(.p-button) {
  flex: 1;
}

@media (prefers-reduced-motion: reduce) {
  .progress span {
    transition: none;
  }
}
</style>
