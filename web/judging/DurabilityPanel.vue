<script setup lang="ts">
import { PROTOCOLS, protocolOf, type ProtocolCode } from '@unto/core';
import { createDurabilityTest, type CreateDurabilityTest, type DurabilityTest } from '@unto/contract';
import { retentionOf } from '@unto/domain';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref, watch } from 'vue';
import { useNow } from '../stores/now';
import { useOutbox } from '../stores/outbox';
import { useTicket } from '../stores/ticket';
import ChoiceField from '../ui/ChoiceField.vue';
import DateField from '../ui/DateField.vue';
import FormNote from '../ui/FormNote.vue';
import NumberField from '../ui/NumberField.vue';
import { formatMoment, formatNumber, LOCALE } from '../ui/format';
import { useForm } from '../ui/useForm';
import LookAtTest from './LookAtTest.vue';

/** What the marks stand: tests begun on a piece, looked at until they are over, what is kept of the contrast, when the next look is due. */
const props = defineProps<{ spoilt: readonly number[] }>();
const ticket = useTicket();
const outbox = useOutbox();
const time = useNow();
const tests = computed(() => ticket.page?.durability ?? []);
const runs = computed(() =>
  (ticket.page?.runs ?? []).filter(({ cleaning, correctedById }) => cleaning && !correctedById),
);
const runChoices = computed(() =>
  runs.value.map(({ id, at, pieces }) => ({ value: id, label: `${formatMoment(at)}, ${pieces} pieces` })),
);
const looking = ref<string | null>(null);
const adding = ref(false);
const READ = [
  { value: null, label: 'not read' },
  { value: 'picture', label: 'by picture' },
  { value: 'eye', label: 'by eye, on the step scale' },
] as const;
const form = useForm<CreateDurabilityTest>(
  createDurabilityTest,
  () => ({
    ...{ id: uuid(), runId: runs.value[0]?.id ?? '', piece: Number.NaN, protocol: '' as never, dose: Number.NaN },
    ...{ beforeContrast: null, readBy: null, dueOn: null, note: '' },
  }),
  { draft: `durability-${ticket.ticket!.id}` },
);
const { values, busy } = form;
const protocol = computed(() => PROTOCOLS.find(({ code }) => code === values.value.protocol) ?? null);
const dayIn = (days: number) => new Date(time.now + days * 86_400_000).toISOString().slice(0, 10);
// How far it usually goes and when it is looked at is planned; whoever begins it says otherwise.
watch(
  () => values.value.protocol,
  (code) => {
    if (!code) return;
    const { usual, days, destructive } = protocolOf(code);
    values.value.dose = usual;
    values.value.dueOn = days === null ? null : dayIn(days);
    if (destructive && props.spoilt.length) values.value.piece = props.spoilt[0]!;
  },
);
async function begin(): Promise<void> {
  await form.submit(async (body) => {
    const call = { params: { id: ticket.ticket!.id }, body };
    const answer = await outbox.send('createDurabilityTest', call, 'a test');
    form.reset();
    adding.value = false;
    return answer;
  });
}

const fine = (value: number | null) => (value === null ? '–' : formatNumber(Number(value.toFixed(1))));
const percent = (share: number) => `${Math.round(100 * share)}\u202f%`;
function keeps(test: DurabilityTest): string {
  const left = retentionOf(test);
  if (left) return `${percent(left.share)} (${percent(left.low)}–${left.high === null ? '?' : percent(left.high)})`;
  return test.looks.at(-1)?.result ?? '–';
}
function due({ over, dueOn, looks }: DurabilityTest): string {
  if (over) return `over, ${formatMoment(looks.at(-1)!.at).split(',')[0]}`;
  return dueOn ? new Date(dueOn).toLocaleDateString(LOCALE, { day: 'numeric', month: 'short' }) : 'now';
}
const late = ({ over, dueOn }: DurabilityTest) => !over && dueOn !== null && dueOn < dayIn(0);
const codes = PROTOCOLS.map(({ code, words }) => ({ value: code as ProtocolCode, label: words }));
</script>

<template>
  <h2>What it stands</h2>
  <p v-if="!runs.length" class="quiet">Clean a run first: what lies under the coat is not seen yet.</p>
  <table v-if="tests.length" class="plain small" data-test-id="durability">
    <thead>
      <tr>
        <th>Test</th>
        <th class="number">ΔL* before</th>
        <th class="number">after</th>
        <th>keeps</th>
        <th>look</th>
      </tr>
    </thead>
    <tbody>
      <template v-for="test in tests" :key="test.id">
        <tr :data-test-id="`durability-${test.protocol}`">
          <td>
            <strong>{{ protocolOf(test.protocol).words }}</strong><br />
            <span class="quiet"
              >{{ test.looks.at(-1)?.doseDone ?? 0 }} of {{ test.dose }} {{ protocolOf(test.protocol).unit }} · piece
              {{ test.piece }}</span
            >
          </td>
          <td class="number mono">{{ fine(test.beforeContrast) }}</td>
          <td class="number mono">{{ fine(test.looks.at(-1)?.afterContrast ?? null) }}</td>
          <td>{{ keeps(test) }}</td>
          <td>
            <Button
              v-if="!test.over"
              size="small"
              :outlined="looking !== test.id"
              :severity="late(test) ? 'danger' : undefined"
              :label="due(test)"
              :data-test-id="`look-${test.protocol}`"
              @click="looking = looking === test.id ? null : test.id"
            />
            <span v-else class="quiet">{{ due(test) }}</span>
          </td>
        </tr>
        <tr v-if="looking === test.id">
          <td colspan="5"><LookAtTest :test="test" @done="looking = null" /></td>
        </tr>
      </template>
    </tbody>
  </table>
  <template v-if="runs.length">
    <form v-if="adding" id="durability" class="form-grid" novalidate @submit.prevent="begin">
      <FormNote />
      <ChoiceField name="protocol" class="wide" label="Test" :options="codes" test-id="protocol" />
      <ChoiceField v-if="runs.length > 1" name="runId" class="wide" label="On a piece of" :options="runChoices" />
      <NumberField
        name="piece"
        label="Piece"
        :hint="protocol?.destructive ? 'It takes the mark off: a piece that is faulty already' : undefined"
        test-id="durability-piece"
      />
      <NumberField name="dose" :label="`How many ${protocol?.unit ?? ''}`" test-id="durability-dose" />
      <ChoiceField name="readBy" label="Contrast before" :options="READ" test-id="durability-read" />
      <NumberField v-if="values.readBy" name="beforeContrast" optional label="ΔL* before" test-id="durability-before" />
      <DateField name="dueOn" label="To be looked at on" test-id="durability-due" />
    </form>
    <Button
      v-if="adding"
      type="submit"
      form="durability"
      label="Begin the test"
      :loading="busy"
      data-test-id="durability-begin"
    />
    <Button v-else outlined label="Begin a test" data-test-id="durability-add" @click="adding = true" />
  </template>
</template>
