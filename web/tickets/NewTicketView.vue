<script setup lang="ts">
import { AIM_STRENGTHS, AIM_TONES, AIM_WORKS, createTicket, type CreateTicket } from '@unto/contract';
import Button from 'primevue/button';
import Checkbox from 'primevue/checkbox';
import { v4 as uuid } from 'uuid';
import { computed, watch } from 'vue';
import { useRouter } from 'vue-router';
import { useShop } from '../stores/shop';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import ChoiceField from '../ui/ChoiceField.vue';
import { choicesOf } from '../ui/choices';
import NumberField from '../ui/NumberField.vue';
import PageHead from '../ui/PageHead.vue';
import TextField from '../ui/TextField.vue';
import { useDraft } from '../ui/useDraft';
import { useForm } from '../ui/useForm';

/** A new ticket: part, count, marked area, substrate, head and lens, and the aim. */
const shop = useShop();
const outbox = useOutbox();
const notices = useNotices();
const router = useRouter();
const NOTHING = '';

const form = useForm<CreateTicket>(createTicket, () => ({
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
}));
const draft = useDraft('new-ticket', form.values);

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
    const answer = await outbox.send('POST', '/api/tickets', values, `ticket “${values.title}”`);
    draft.forget();
    if (answer) await router.push(`/tickets/${values.id}/choose`);
    else {
      notices.say('The ticket waits to be sent.');
      await router.push('/tickets');
    }
  });
}
const { values, faults, general, busy, touch } = form;
</script>

<template>
  <PageHead title="New ticket" about="One job: a part, how many, what the mark should be" />
  <form class="body" novalidate @submit.prevent="keep">
    <p v-if="general" class="fault" role="alert">{{ general }}</p>
    <fieldset>
      <legend>The part</legend>
      <TextField
        v-model="values.title"
        class="wide"
        label="What is marked"
        :fault="faults['title']"
        test-id="title"
        @left="touch('title')"
      />
      <NumberField
        v-model="values.pieces"
        label="Pieces"
        :fault="faults['pieces']"
        test-id="pieces"
        @left="touch('pieces')"
      />
      <ChoiceField
        v-model="values.substrateId"
        class="wide"
        label="Substrate"
        :options="options('substrate')"
        :fault="faults['substrateId'] && 'Choose what the part is made of.'"
        test-id="substrate"
        @left="touch('substrateId')"
      />
      <NumberField
        v-model="values.markWidthMm"
        label="Width of the mark"
        unit="mm"
        :fault="faults['markWidthMm']"
        test-id="width"
        @left="touch('markWidthMm')"
      />
      <NumberField
        v-model="values.markHeightMm"
        label="Height of the mark"
        unit="mm"
        :fault="faults['markHeightMm']"
        test-id="height"
        @left="touch('markHeightMm')"
      />
      <NumberField
        v-model="values.coatMarginMm"
        label="Coat margin round the mark"
        unit="mm"
        :fault="faults['coatMarginMm']"
        @left="touch('coatMarginMm')"
      />
      <label class="tick"
        ><Checkbox v-model="values.foodUse" binary input-id="food" /> <span>Touches food or drink</span></label
      >
    </fieldset>
    <fieldset>
      <legend>Machine</legend>
      <ChoiceField
        v-model="values.headId"
        class="wide"
        label="Head"
        :options="options('head')"
        :fault="faults['headId'] && 'Choose the head that marks it.'"
        test-id="head"
        @left="touch('headId')"
      />
      <ChoiceField
        v-model="values.lensId"
        label="Lens"
        :options="lenses"
        :placeholder="values.headId ? 'Choose' : 'Choose a head first'"
        :fault="faults['lensId'] && 'Choose the lens fitted.'"
        test-id="lens"
        @left="touch('lensId')"
      />
    </fieldset>
    <fieldset>
      <legend>The aim: what a good mark is here</legend>
      <ChoiceField v-model="values.aim.tone" label="Tone" :options="choicesOf(AIM_TONES)" test-id="tone" />
      <ChoiceField v-model="values.aim.strength" label="Strength" :options="choicesOf(AIM_STRENGTHS)" />
      <ChoiceField v-model="values.aim.work" label="Work" :options="choicesOf(AIM_WORKS)" />
      <TextField
        v-model="values.wantedOn"
        label="Wanted on"
        type="date"
        :fault="faults['wantedOn']"
        @left="touch('wantedOn')"
      />
      <TextField v-model="values.note" class="full" label="Note" :lines="2" :fault="faults['note']" />
    </fieldset>
    <div class="foot"><Button type="submit" label="Open the ticket" :loading="busy" data-test-id="keep" /></div>
  </form>
</template>

<style scoped>
.body {
  padding: 0.6rem 1.5rem 0;
  max-width: 62rem;
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
}

fieldset {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 0.8rem 1rem;
  align-items: start;
  margin: 0;
  padding: 0.8rem 1rem 1rem;
  border: 1px solid var(--unto-rule);
  border-radius: 4px;
  background: var(--unto-surface);
}

legend {
  font-weight: 700;
  padding: 0 0.4rem;
}

.wide {
  grid-column: span 2;
}

.full {
  grid-column: 1 / -1;
}

.tick {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  align-self: end;
  min-height: 44px;
}

.foot {
  position: sticky;
  bottom: 0;
  padding: 0.5rem 0;
  background: var(--unto-ground);
}

@media (max-width: 800px) {
  fieldset {
    grid-template-columns: minmax(0, 1fr);
  }

  .wide,
  .full {
    grid-column: auto;
  }
}
</style>
