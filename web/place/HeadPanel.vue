<script setup lang="ts">
import { HEAD_CHANGE_STEPS, type HeadChangeStep } from '@unto/core';
import type { CreateFitting } from '@unto/contract';
import { isOther } from '@unto/domain';
import Button from 'primevue/button';
import Checkbox from 'primevue/checkbox';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import { useAct } from '../stores/useAct';
import { useShop } from '../stores/shop';
import { useNotices } from '../stores/notices';
import { useTicket } from '../stores/ticket';
import ChoiceField from '../ui/ChoiceField.vue';
import { formatMoment } from '../ui/format';

/** Which head and lens stand on the machine, and the change to others step by step. */
const WORK = [
  { value: 'mark', label: 'marking' },
  { value: 'cut', label: 'cutting' },
] as const;
const ticket = useTicket();
const shop = useShop();
const { act, busy } = useAct();
const own = computed(() => ticket.ticket!);
const fitting = computed(() => ticket.page?.fitting ?? null);
const other = computed(() => isOther(fitting.value, own.value));
const machineId = computed(() => shop.item('head', own.value.headId)?.body.machineId);
const heads = computed(() =>
  shop
    .inUse('head')
    .filter(({ body }) => body.machineId === machineId.value)
    .map(({ id, body }) => ({ value: id, label: body.name })),
);
// After a cut the marking head comes next; with the planned head on, another one.
const headId = ref(
  other.value || !fitting.value
    ? own.value.headId
    : (heads.value.find(({ value }) => value !== own.value.headId)?.value ?? own.value.headId),
);
const lenses = computed(() =>
  shop
    .inUse('lens')
    .filter(({ body }) => body.headId === headId.value)
    .map(({ id, body }) => ({ value: id, label: body.name })),
);
const lensChosen = ref<string | null>(null);
const lensId = computed({
  get: () =>
    lenses.value.find(({ value }) => value === (lensChosen.value ?? own.value.lensId))?.value ??
    lenses.value[0]?.value ??
    '',
  set: (id: string) => (lensChosen.value = id),
});
const work = ref<CreateFitting['work']>('mark');
const done = ref<HeadChangeStep[]>([]);
const eyewear = computed(() => shop.item('head', headId.value)?.body.eyewear);

async function fit(): Promise<void> {
  const body = {
    id: uuid(),
    headId: headId.value,
    lensId: lensId.value,
    ticketId: own.value.id,
    work: work.value,
    steps: done.value,
  };
  if (!(await act('createFitting', { body }, 'a change of head'))) return;
  done.value = [];
  useNotices().say('Fitted. Focus, alignment and eyewear are asked again.');
}
</script>

<template>
  <section class="now" :class="{ other, known: fitting !== null && !other }" data-test-id="fitted">
    <p v-if="!fitting">
      Nobody said yet what stands on this machine. This ticket is planned on {{ shop.nameOf(own.headId) }} with
      {{ shop.nameOf(own.lensId) }}.
    </p>
    <template v-else>
      <p>
        <strong>{{ shop.nameOf(fitting.headId) }}</strong> with {{ shop.nameOf(fitting.lensId) }} is fitted, for
        {{ fitting.work === 'cut' ? 'cutting' : 'marking' }}.
        <span class="quiet small">{{ shop.personOf(fitting.by) }}, {{ formatMoment(fitting.at) }}</span>
      </p>
      <p v-if="other">
        This ticket marks with <strong>{{ shop.nameOf(own.headId) }}</strong>, {{ shop.nameOf(own.lensId) }}: change it
        before anything is fired.
      </p>
    </template>
  </section>
  <h3>Change head or lens</h3>
  <div class="form-grid">
    <ChoiceField v-model="headId" label="Head" :options="heads" test-id="fit-head" />
    <ChoiceField v-model="lensId" label="Lens" :options="lenses" test-id="fit-lens" />
    <ChoiceField v-model="work" label="For" :options="WORK" test-id="fit-work" />
  </div>
  <ul class="steps">
    <li v-for="step in HEAD_CHANGE_STEPS" :key="step.code">
      <label>
        <Checkbox v-model="done" :value="step.code" :pt="{ input: { 'data-test-id': `step-${step.code}` } }" />
        <span>{{ step.text }}{{ step.code === 'eyewear' && eyewear ? `: ${eyewear}` : '' }}</span>
      </label>
    </li>
  </ul>
  <div class="panel-foot">
    <Button
      :label="`${shop.nameOf(headId)} is fitted`"
      :disabled="done.length < HEAD_CHANGE_STEPS.length"
      :loading="busy"
      data-test-id="fit"
      @click="fit"
    />
  </div>
</template>

<style scoped>
.now {
  padding: 0.5rem 0.7rem;
  border: 1px solid var(--unto-rule);
  border-left: 4px solid var(--unto-slate);
}

.known {
  border-left-color: var(--unto-bonded);
}

.other {
  border-left-color: var(--unto-danger);
  background: var(--unto-danger-tint);
}

.steps {
  list-style: none;
  margin: 0;
  padding: 0;
}

label {
  display: flex;
  align-items: center;
  gap: 0.7rem;
  min-height: 46px;
  border-bottom: 1px solid var(--unto-rule);
}
</style>
