<script setup lang="ts">
import { coatRules, makeFigure, decisive } from '@unto/core';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed } from 'vue';
import { useAct } from '../stores/useAct';
import { useShop } from '../stores/shop';
import { useTicket } from '../stores/ticket';
import { formatDay, formatDuration, formatMoney, formatNumber } from '../ui/format';
import GradeMark from '../evidence/GradeMark.vue';
import NumberField from '../ui/NumberField.vue';
import type { Coat } from './useCoat';
import { dryingWords } from './words';
import { useUnits } from '../ui/useUnits';

/** What the batch takes: strokes, compound out of which containers, a mix to measure out, and how this coat is handled. */
const props = defineProps<{ coat: Coat }>();
const units = useUnits();
const { body, left, spares, strokes, stroke, plan, mix, ready, mixes, care, application } = props.coat;
const shop = useShop();
const { act } = useAct();
const rules = computed(() => coatRules(body.value.handling));
const strokesFigure = computed(() => {
  const known = stroke.value.weighings > 0;
  return makeFigure({
    formula: 'strokesFor',
    value: strokes.value.total,
    unit: 'strokes',
    interval: { low: strokes.value.low, high: strokes.value.high, level: 0.9 },
    inputs: [
      decisive('mass a stroke lays', known ? 'measured' : 'usual', {
        value: Number(stroke.value.gramsPerStroke.toPrecision(3)),
        unit: 'g',
      }),
      decisive('mass for the batch', plan.value.mass.grade, {
        value: Number(plan.value.mass.value.toPrecision(3)),
        unit: 'g',
      }),
    ],
  });
});
const bought = computed(() => {
  const buy = ready.value.result?.buy;
  if (!buy) return '';
  const parts = buy.counts.flatMap((count, i) => (count ? [`${count} × ${body.value.sizes[i]!.label}`] : []));
  return `${parts.join(' and ')}, ${formatMoney(buy.priceMinor, shop.workshop!.currency)}`;
});

async function startMix(): Promise<void> {
  const id = useTicket().ticket!.id;
  const label = `mix of ${formatNumber(mix.value!.totalMl)} mL`;
  const minimumS = body.value.potLifeHours! * 3600;
  await act(
    'createTimer',
    { params: { id }, body: { id: uuid(), kind: 'pot', label, minimumS } },
    'the timer of a mix',
  );
}
</script>

<template>
  <h2>
    {{ left ? `Coat ${left} piece${left > 1 ? 's' : ''} with ${body.name}` : 'Every piece of the ticket is coated' }}
  </h2>
  <NumberField v-model="spares" label="Spare and test pieces coated with them" unit="pieces" test-id="coat-spares" />
  <dl class="plan" data-test-id="coat-takes">
    <dt>{{ care.verb }}</dt>
    <dd>
      <template v-if="body.shakeS">{{ formatDuration(body.shakeS) }}, </template>{{ care.until }}
    </dd>
    <dt>Lay</dt>
    <dd>
      {{ body.coats }} coat{{ body.coats > 1 ? 's, crossed,' : '' }} by {{ application
      }}<template v-if="application === 'aerosol'">
        of about {{ strokes.perCoat }} stroke{{ strokes.perCoat > 1 ? 's' : '' }}</template
      ><template v-if="care.sprays"> from {{ units.span('length', body.distanceMinMm, body.distanceMaxMm) }}</template>
      {{ ' ' }}<GradeMark v-if="application === 'aerosol'" :figure="strokesFigure" title="Strokes" />
    </dd>
    <template v-if="mix">
      <dt>Mix</dt>
      <dd>
        <strong class="mono">{{ formatNumber(mix.compoundMl) }} mL</strong> compound +
        <strong class="mono">{{ formatNumber(mix.thinnerMl) }} mL</strong> {{ body.thinner || 'thinner'
        }}{{ mix.thinnerStepMl < 5 ? ' by the syringe' : '' }}, stirred with a dry brush; nothing is carried
        over<template v-if="body.potLifeHours">, use within {{ formatDuration(body.potLifeHours * 3600) }}</template>
      </dd>
    </template>
    <dt>Set out</dt>
    <dd>
      <p v-if="ready.fault" class="fault">{{ ready.fault }}</p>
      <template v-else-if="ready.result">
        <p v-for="use in ready.result.use" :key="use.id">
          {{ use.name }}: <span class="mono">{{ units.figure('mass', use.takeG) }}</span> of
          <span class="mono">{{ units.figure('mass', use.leftG) }}</span>
        </p>
        <p v-for="left_out in ready.result.passedOver" :key="left_out.name" class="quiet small">
          Not {{ left_out.name }}: {{ left_out.why }}
        </p>
        <p v-if="bought" class="buy" data-test-id="coat-buy">
          <strong>{{ units.figure('mass', ready.result.shortG) }} short.</strong> Buy {{ bought }}
        </p>
      </template>
    </dd>
    <dt>Dry</dt>
    <dd>{{ dryingWords(body) }}, until all gloss is gone</dd>
    <dt>Handle</dt>
    <dd data-test-id="coat-rules">
      <p v-for="rule in rules.carry" :key="rule">{{ rule }}</p>
      <p class="quiet small">
        Stored: {{ rules.store }}
        {{ body.shelfLifeDays === null ? 'Its maker names no shelf life.' : `Keeps ${body.shelfLifeDays} days.` }}
      </p>
    </dd>
  </dl>
  <p v-for="timer in mixes" :key="timer.id" class="small">
    {{ timer.label }}: use by {{ formatDay(timer.startedAt) }},
    {{ new Date(Date.parse(timer.startedAt) + timer.minimumS * 1000).toTimeString().slice(0, 5) }}
  </p>
  <Button
    v-if="mix && body.potLifeHours"
    outlined
    :label="`Mixed ${formatNumber(mix.totalMl)} mL now: start its timer`"
    data-test-id="start-mix"
    @click="startMix"
  />
</template>

<style scoped>
.plan {
  display: grid;
  grid-template-columns: 4.6rem minmax(0, 1fr);
  gap: 0.45rem 0.7rem;
  margin: 0;
}

dt {
  color: var(--unto-quiet);
}

dd {
  margin: 0;
}

.buy {
  color: var(--unto-danger);
}
</style>
