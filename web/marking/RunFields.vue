<script setup lang="ts">
import { INTERVAL_UNITS, POWER_UNITS, SPEED_UNITS, type SwitchState } from '@unto/core';
import { computed } from 'vue';
import SettingRestFields from '../setting/SettingRestFields.vue';
import { pulsedOf } from '../setting/setting-names';
import { useTicket } from '../stores/ticket';
import ChoiceField from '../ui/ChoiceField.vue';
import EnteredField from '../ui/EnteredField.vue';
import { useRunEntry } from './useRunEntry';

/** The whole setting of a run as its panel shows it, and out of which blanks. */
const props = defineProps<{ air: SwitchState | null | '' }>();
const ticket = useTicket();
const { blanks } = useRunEntry();
const pulsed = computed(() => pulsedOf(ticket.fitted!));
const powderAir = computed(() => props.air === 'on' && ticket.compound?.body.handling === 'loose powder');
</script>

<template>
  <EnteredField name="power" label="Power" :units="POWER_UNITS" test-id="power" />
  <EnteredField name="speed" label="Speed" :units="SPEED_UNITS" test-id="speed" />
  <EnteredField name="interval" label="Line interval" :units="INTERVAL_UNITS" test-id="interval" />
  <SettingRestFields :pulsed="pulsed" fired />
  <ChoiceField
    v-if="blanks.length > 1"
    name="blankId"
    class="wide"
    label="Out of which blanks"
    placeholder="not noted"
    :options="blanks"
    test-id="run-blank"
  />
  <p v-if="powderAir" class="stop wide" role="alert">
    <strong>Air on over a powder coat</strong> blows the coat away: marks come out pale. Usual practice is air off.
  </p>
</template>

<style scoped>
.stop {
  padding: 0.5rem 0.7rem;
  border-left: 4px solid var(--unto-danger);
  background: var(--unto-danger-tint);
  font-size: 0.92rem;
}
</style>
