<script setup lang="ts">
import { computed } from 'vue';
import { useTicket } from '../stores/ticket';
import { useUnits } from '../ui/useUnits';
import ChoiceField from '../ui/ChoiceField.vue';

/** Whether a run makes pieces anew that came out badly; shown only while such pieces wait. */
const ticket = useTicket();
const units = useUnits();
const waiting = computed(() => (ticket.page?.reworks ?? []).filter(({ doneRunId }) => doneRunId === null));
const choices = computed(() => [
  { value: null, label: 'No, for the first time' },
  ...waiting.value.map(({ id, pieces, way }) => ({
    value: id as string | null,
    label: `Piece${pieces.length > 1 ? 's' : ''} ${pieces.join(', ')}: ${way}`,
  })),
]);
const signed = (mm: number) => `${mm > 0 ? '+' : '−'}${units.text('length', Math.abs(mm))}`;
</script>

<template>
  <ChoiceField
    v-if="choices.length > 1"
    name="reworkId"
    class="wide"
    label="Are they made anew?"
    :options="choices"
    placeholder="Say whether"
    test-id="run-rework"
  />
  <p v-for="one in waiting" :key="one.id" class="wide small quiet">
    Piece{{ one.pieces.length > 1 ? 's' : '' }} {{ one.pieces.join(', ')
    }}<template v-if="one.focusMm">: focus {{ signed(one.focusMm) }} at that place</template>.
    <a v-if="one.region && ticket.page?.layout" :href="`/api/reworks/${one.id}/program/gcode`">G-code of the region</a>
  </p>
</template>
