<script setup lang="ts">
import type { FiringNotes, SwitchState } from '@unto/core';
import type { Coupon } from '@unto/contract';
import Button from 'primevue/button';
import { computed, ref, toRef } from 'vue';
import { useShop } from '../stores/shop';
import FiringNotesFields from '../setting/FiringNotes.vue';
import ChoiceField from '../ui/ChoiceField.vue';
import { formatDuration } from '../ui/format';
import BurnRun from '../burns/BurnRun.vue';
import { useCouponBurn } from './useCouponBurn';

/** Burn a coupon: sent to the controller and followed, or by hand. */
const props = defineProps<{ coupon: Coupon; gantry: boolean; cells: number; runTimeS: number }>();
const emit = defineEmits<{ changed: [Coupon]; burnt: [FiringNotes] }>();
const shop = useShop();
const { burn, notSent, busy, fault, send, act, settle } = useCouponBurn(toRef(props, 'coupon'), (coupon) =>
  emit('changed', coupon),
);
const laserOn = ref<'M3' | 'M4'>('M3');
const ON = [
  { value: 'M3', label: 'stays as set where the head slows (M3)' },
  { value: 'M4', label: 'falls with the speed of the head (M4)' },
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
</script>

<template>
  <h2>Burn it</h2>
  <BurnRun
    v-if="burn"
    :burn="burn"
    noun="cell"
    :count="cells"
    :busy="busy"
    :fault="fault"
    @act="act"
    @settle="settle"
  />
  <template v-else>
    <p>Coat a spare blank as for the pieces, let it dry, lay it with its lower left corner at the head’s origin.</p>
    <FiringNotesFields v-model:air="air" v-model:extraction="extraction" />
    <p v-if="tried && unsaid" class="fault" role="alert">
      Say how {{ unsaid }} {{ unsaid.includes(' and ') ? 'stand' : 'stands' }} while it fires: a setting is proved for
      that alone.
    </p>
    <ChoiceField v-if="gantry" v-model="laserOn" label="Power" :options="ON" test-id="laser-on" />
    <template v-if="sends">
      <p class="quiet small">
        Power that stays as set suits small cells: they come out alike to their edges. Power that falls with the speed
        spares the corners of line work on machines that slow down there.
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
    <p v-if="fault || notSent" class="fault" role="alert" data-test-id="burn-fault">{{ fault || notSent }}</p>
    <div class="foot">
      <Button v-if="sends" label="Send it to the head" :loading="busy" data-test-id="send-burn" @click="sendIt" />
      <Button label="It is burnt" :outlined="sends" data-test-id="burnt" @click="isBurnt" />
    </div>
  </template>
</template>

<style scoped>
.foot {
  margin-top: auto;
  padding-bottom: 0.9rem;
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}

.foot :deep(.p-button) {
  flex: 1;
}
</style>
