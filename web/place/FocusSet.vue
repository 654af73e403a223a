<script setup lang="ts">
import { focusMethods, type FocusMethod } from '@unto/core';
import { focusDepth } from '@unto/domain';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { useTicket } from '../stores/ticket';
import ChoiceField from '../ui/ChoiceField.vue';
import GradeMark from '../evidence/GradeMark.vue';
import NumberField from '../ui/NumberField.vue';
import { newestReading, usePlaceEntry } from './usePlaceEntry';
import { useUnits } from '../ui/useUnits';

/** How the focus is found on this head, and what it is set to on purpose: above, on or below the surface. */
const ticket = useTicket();
const units = useUnits();
const before = newestReading('set');
const planned = computed(() => ticket.page?.recipes[0]?.focusOffsetMm ?? null);
const depth = computed(() => focusDepth(ticket.fitted!.lens, ticket.page?.huntedDepth ?? null));
const ways = computed(() =>
  focusMethods({
    beam: ticket.fitted!.head.wavelengthClass,
    depthMm: depth.value.value,
    coated: ticket.compound !== null,
    hunted: ticket.page?.huntedDepth !== null,
  }),
);
const method = ref<FocusMethod | null>(before?.method ?? null);
const offsetMm = ref<number>(before?.offsetMm ?? planned.value ?? 0);
const thicknessMm = ref<number>(before?.thicknessMm ?? ticket.substrate?.body.thicknessMm ?? Number.NaN);
const entries = computed(() => ({
  method: method.value ?? ways.value[0]!.method,
  offsetMm: offsetMm.value,
  thicknessMm: thicknessMm.value,
}));
const { result, fault, keep, busy } = usePlaceEntry('set', entries);
const options = computed(() => ways.value.map((way) => ({ value: way.method, label: way.method })));
const why = computed(() => ways.value.find((way) => way.method === entries.value.method)?.why ?? '');
const where = computed(() =>
  offsetMm.value === 0 ? 'on the surface' : offsetMm.value > 0 ? 'above the surface' : 'below the surface',
);
const off = computed(() => planned.value !== null && Math.abs(planned.value - offsetMm.value) > 0.005);
</script>

<template>
  <section class="set">
    <h3>Set the focus</h3>
    <div class="form-grid">
      <ChoiceField
        :model-value="entries.method"
        label="Found by"
        :options="options"
        :hint="why"
        class="wide"
        test-id="focus-method"
        @update:model-value="method = $event ?? null"
      />
      <NumberField v-model="thicknessMm" label="Thickness set" quantity="length" test-id="thickness-set" />
      <NumberField v-model="offsetMm" :label="`Focus, ${where}`" quantity="length" test-id="focus-offset" />
    </div>
    <p v-if="off" class="fault" data-test-id="offset-off">
      The setting was proved {{ planned === 0 ? 'on the surface' : `at ${units.text('length', planned!)}` }}: another
      offset is another setting.
    </p>
    <div class="line">
      <p v-if="result">
        <span class="mono">{{ units.figure('length', result.spot.value) }}</span> spot on the part
        <GradeMark :figure="result.spot" title="Spot on the part" />
      </p>
      <p v-else class="fault small">{{ fault }}</p>
      <Button
        outlined
        label="Focus is set"
        :disabled="!result"
        :loading="busy"
        data-test-id="keep-set"
        @click="keep('taken')"
      />
    </div>
  </section>
</template>

<style scoped>
.set {
  display: flex;
  flex-direction: column;
  gap: 0.5rem;
  padding-bottom: 0.6rem;
  border-bottom: 1px solid var(--unto-rule);
}

.line {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.8rem;
}
</style>
