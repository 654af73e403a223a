<script setup lang="ts">
import { nextTestStep, PLAIN_SETTING, settingOf, type MarkSetting, type StepTestOutcome } from '@unto/core';
import { createTestStep, type CreateTestStep } from '@unto/contract';
import { windowEquipment } from '@unto/domain';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, watch } from 'vue';
import SettingLine from '../setting/SettingLine.vue';
import SettingRestFields from '../setting/SettingRestFields.vue';
import { pulsedOf } from '../setting/setting-names';
import { useShop } from '../stores/shop';
import { useNotices } from '../stores/notices';
import { useTicket } from '../stores/ticket';
import { useAct } from '../stores/useAct';
import { formatMoment } from '../ui/format';
import NumberField from '../ui/NumberField.vue';
import { orFault } from '../ui/or-fault';
import TextField from '../ui/TextField.vue';
import { useForm } from '../ui/useForm';

/** Proof with no spare blank: tiny cells on a hidden place of the piece, from the weakest upward, until the first that holds. */
const emit = defineEmits<{ close: [] }>();
const ticket = useTicket();
const shop = useShop();
const { act } = useAct();
const own = ticket.ticket!;
const fitted = ticket.fitted!;
const steps = computed(() => ticket.page?.testSteps ?? []);
/** A setting as it is sent: what reached the part is worked out anew. */
function enteredOf(step: MarkSetting) {
  const { powerW: _powerW, ...setting } = settingOf(step);
  return setting;
}

/** The next cell: where the one before stood, its outcome for whoever looks at it to say. */
const form = useForm<CreateTestStep>(createTestStep, () => {
  const last = steps.value.at(-1);
  return {
    id: uuid(),
    ...(last ? enteredOf(last) : PLAIN_SETTING),
    powerPercent: last?.powerPercent ?? 90,
    speedMmPerS: Number.NaN,
    intervalMm: last?.intervalMm ?? 0.06,
    air: last?.air ?? ('' as never),
    outcome: '' as never,
    note: last?.note ?? '',
  };
});
const { values, busy } = form;
const advice = computed(() =>
  orFault(() =>
    nextTestStep(steps.value, {
      ...windowEquipment(fitted),
      topSpeedMmPerS: fitted.machine.topSpeedMmPerS,
      slowestMmPerS: fitted.machine.topSpeedMmPerS / 200,
    }),
  ),
);
watch(
  () => advice.value.result,
  (now) => now?.kind === 'fire' && (values.value.speedMmPerS = now.speedMmPerS),
  { immediate: true },
);
const held = computed(() => {
  const now = advice.value.result;
  return now?.kind === 'stop' ? now.holds : null;
});
const OUTCOMES: readonly { value: StepTestOutcome; word: string }[] = [
  { value: 'lost', word: 'Nothing left' },
  { value: 'faint', word: 'Faint' },
  { value: 'holds', word: '● Holds' },
  { value: 'over', word: '✕ Too much' },
];
const WORDS: Record<StepTestOutcome, string> = {
  lost: 'nothing left',
  faint: 'faint',
  holds: 'holds',
  over: 'too much',
};

async function keep(outcome: StepTestOutcome): Promise<void> {
  values.value.outcome = outcome;
  await form.submit(async (entry) => {
    const kept = await act('createTestStep', { params: { id: own.id }, body: entry }, 'a cell of the step test');
    form.reset();
    return kept;
  });
}

async function accept(): Promise<void> {
  const step = steps.value.findLast(({ outcome }) => outcome === 'holds')!;
  const body = {
    id: uuid(),
    ticketId: own.id,
    kind: 'step test' as const,
    couponIds: [],
    ...enteredOf(step),
    powerPercent: step.powerPercent,
    speedMmPerS: step.speedMmPerS,
    intervalMm: step.intervalMm,
    seed: 0,
  };
  if (await act('createRecipe', { body }, 'the setting that held')) {
    useNotices().say('Kept: proved by eye for this piece, and for no other.');
    emit('close');
  }
}
</script>

<template>
  <h2>Step test on the piece itself</h2>
  <p class="quiet">
    With no spare blank: coat a hidden place, fire a cell of 2 × 2 mm, rinse it, scrub it, look. The weakest first; stop
    at the first that holds.
  </p>
  <ol v-if="steps.length" class="steps" data-test-id="test-steps">
    <li v-for="step in steps" :key="step.id" :class="step.outcome">
      <SettingLine :setting="step" />
      <strong>{{ WORDS[step.outcome] }}</strong>
      <span class="quiet small">{{ shop.personOf(step.by) }}, {{ formatMoment(step.at) }}</span>
    </li>
  </ol>
  <p v-if="advice.fault" class="fault" role="alert">{{ advice.fault }}</p>
  <template v-else-if="advice.result?.kind === 'fire'">
    <p class="advice" data-test-id="step-test-advice">{{ advice.result.why }}</p>
    <form class="form-grid" novalidate @submit.prevent>
      <NumberField name="powerPercent" label="Power" quantity="power" test-id="step-test-power" />
      <NumberField name="speedMmPerS" label="Speed" quantity="speed" test-id="step-test-speed" />
      <NumberField name="intervalMm" label="Line interval" quantity="interval" />
      <SettingRestFields :pulsed="pulsedOf(fitted)" fired />
      <TextField name="note" class="wide" label="Where on the piece" test-id="step-test-place" />
    </form>
    <p><strong>Fired, rinsed and scrubbed, it is</strong></p>
    <div class="outcomes">
      <Button
        v-for="entry in OUTCOMES"
        :key="entry.value"
        outlined
        :label="entry.word"
        :disabled="busy"
        :data-test-id="`step-test-${entry.value}`"
        @click="keep(entry.value)"
      />
    </div>
  </template>
  <p v-else-if="advice.result" class="advice" :class="{ held }" data-test-id="step-test-advice">
    {{ advice.result.why }}
  </p>
  <div class="panel-foot">
    <Button
      v-if="held"
      label="Take this setting for the piece"
      :loading="busy"
      data-test-id="step-test-accept"
      @click="accept"
    />
    <Button outlined label="Back" @click="emit('close')" />
  </div>
</template>

<style scoped>
.steps {
  margin: 0;
  padding-left: 1.4rem;
}

.steps li {
  padding: 0.25rem 0;
}

.steps li > * {
  margin-right: 0.8rem;
}

.steps .holds strong {
  color: var(--unto-bonded);
}

.steps .over strong {
  color: var(--unto-danger);
}

.advice {
  padding: 0.55rem 0.8rem;
  border: 1px solid var(--unto-rule);
  border-left: 4px solid var(--unto-coat-line);
}

.held {
  border-left-color: var(--unto-bonded);
}

.outcomes {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 0.5rem;
}
</style>
