<script setup lang="ts">
import { AIM_STRENGTHS, AIM_TONES, AIM_WORKS, createTicket, type CreateTicket } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, watch } from 'vue';
import { useRouter } from 'vue-router';
import { useShop } from '../stores/shop';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import ChoiceField from '../ui/ChoiceField.vue';
import FormNote from '../ui/FormNote.vue';
import { choicesOf } from '../ui/choices';
import NumberField from '../ui/NumberField.vue';
import PageHead from '../ui/PageHead.vue';
import TextField from '../ui/TextField.vue';
import { useStillHere } from '../ui/useStillHere';
import { useForm } from '../ui/useForm';
import DateField from '../ui/DateField.vue';
import TickField from '../ui/TickField.vue';

/** A new ticket: part, count, marked area, substrate, head and lens, and the aim. */
const shop = useShop();
const outbox = useOutbox();
const notices = useNotices();
const router = useRouter();
const NOTHING = '';

const form = useForm<CreateTicket>(
  createTicket,
  () => ({
    id: uuid(),
    title: '',
    pieces: 1,
    markWidthMm: Number.NaN,
    markHeightMm: Number.NaN,
    coatMarginMm: 3,
    substrateId: NOTHING,
    headId: NOTHING,
    lensId: NOTHING,
    aim: { tone: 'dark on light', strength: 'clear', work: 'fill' },
    foodUse: false,
    wantedOn: null,
    note: '',
  }),
  { draft: 'new-ticket' },
);
const stillHere = useStillHere();

const options = (kind: 'substrate' | 'head') =>
  shop.inUse(kind).map((item) => ({ value: item.id, label: item.body.name }));
const lenses = computed(() =>
  shop
    .inUse('lens')
    .filter(({ body }) => body.headId === form.values.value.headId)
    .map((item) => ({ value: item.id, label: item.body.name })),
);
watch(lenses, (found) => {
  if (!found.some(({ value }) => value === form.values.value.lensId))
    form.values.value.lensId = found.length === 1 ? found[0]!.value : NOTHING;
});

async function keep(): Promise<void> {
  await form.submit(async (values) => {
    const answer = await outbox.send('createTicket', { body: values }, `ticket “${values.title}”`);
    if (!answer) notices.say('The ticket waits to be sent.');
    if (stillHere()) await router.push(answer ? `/tickets/${values.id}/choose` : '/tickets');
    return answer;
  });
}
const { values, faults, busy } = form;
</script>

<template>
  <PageHead title="New ticket" about="One job: a part, how many, what the mark should be" />
  <form class="paper-form" novalidate @submit.prevent="keep">
    <FormNote />
    <fieldset>
      <legend>The part</legend>
      <TextField name="title" class="wide" label="What is marked" test-id="title" />
      <NumberField name="pieces" label="Pieces" test-id="pieces" />
      <ChoiceField
        name="substrateId"
        class="wide"
        label="Substrate"
        :options="options('substrate')"
        :fault="faults['substrateId'] && 'Choose what the part is made of.'"
        test-id="substrate"
      />
      <NumberField name="markWidthMm" label="Width of the mark" quantity="length" test-id="width" />
      <NumberField name="markHeightMm" label="Height of the mark" quantity="length" test-id="height" />
      <NumberField name="coatMarginMm" label="Coat margin round the mark" quantity="length" />
      <TickField v-model="values.foodUse" class="tick" test-id="food">Touches food or drink</TickField>
    </fieldset>
    <fieldset>
      <legend>Machine</legend>
      <ChoiceField
        name="headId"
        class="wide"
        label="Head"
        :options="options('head')"
        :fault="faults['headId'] && 'Choose the head that marks it.'"
        test-id="head"
      />
      <ChoiceField
        name="lensId"
        label="Lens"
        :options="lenses"
        :placeholder="values.headId ? 'Choose' : 'Choose a head first'"
        :fault="faults['lensId'] && 'Choose the lens fitted.'"
        test-id="lens"
      />
    </fieldset>
    <fieldset>
      <legend>The aim: what a good mark is here</legend>
      <ChoiceField name="aim.tone" label="Tone" :options="choicesOf(AIM_TONES)" test-id="tone" />
      <ChoiceField name="aim.strength" label="Strength" :options="choicesOf(AIM_STRENGTHS)" />
      <ChoiceField name="aim.work" label="Work" :options="choicesOf(AIM_WORKS)" />
      <DateField name="wantedOn" label="Wanted on" test-id="wanted-on" />
      <TextField name="note" class="full" label="Note" :lines="2" />
    </fieldset>
    <div class="foot"><Button type="submit" label="Open the ticket" :loading="busy" data-test-id="keep" /></div>
  </form>
</template>

<style scoped>
.tick {
  align-self: end;
}
</style>
