<script setup lang="ts">
import { AIM_STRENGTHS, AIM_TONES, AIM_WORKS, type CreateTicket } from '@unto/contract';
import { computed, inject, watch } from 'vue';
import { useShop } from '../stores/shop';
import ItemField from '../inventory/ItemField.vue';
import ChoiceField from '../ui/ChoiceField.vue';
import { choicesOf } from '../ui/choices';
import DateField from '../ui/DateField.vue';
import NumberField from '../ui/NumberField.vue';
import TextField from '../ui/TextField.vue';
import TickField from '../ui/TickField.vue';
import { FORM } from '../ui/useForm';

/** What a ticket is asked: part, count, marked area, substrate, head and lens, and the aim. */
const shop = useShop();
const form = inject(FORM)!;
const values = computed(() => form.values.value as { -readonly [K in keyof CreateTicket]: CreateTicket[K] });
const options = (kind: 'substrate' | 'head') =>
  shop.inUse(kind).map((item) => ({ value: item.id, label: item.body.name }));
const lenses = computed(() =>
  shop
    .inUse('lens')
    .filter(({ body }) => body.headId === values.value.headId)
    .map((item) => ({ value: item.id, label: item.body.name })),
);
watch(
  lenses,
  (found) => {
    if (!found.some(({ value }) => value === values.value.lensId))
      values.value.lensId = found.length === 1 ? found[0]!.value : '';
  },
  { immediate: true },
);
/** A refusal of an identifier says nothing to anybody: what is to be chosen does. */
const said = (path: string, words: string) => form.faults.value[path] && words;
</script>

<template>
  <fieldset>
    <legend>The part</legend>
    <TextField name="title" class="wide" label="What is marked" test-id="title" />
    <NumberField name="pieces" label="Pieces" test-id="pieces" />
    <ItemField
      kind="substrate"
      name="substrateId"
      class="wide"
      label="Substrate"
      :options="options('substrate')"
      :fault="said('substrateId', 'Choose what the part is made of.')"
      test-id="substrate"
    />
    <NumberField name="markWidthMm" label="Width of the mark" quantity="length" test-id="width" />
    <NumberField name="markHeightMm" label="Height of the mark" quantity="length" test-id="height" />
    <NumberField name="coatMarginMm" label="Coat margin round the mark" quantity="length" />
    <TickField v-model="values.foodUse" class="tick" test-id="food">Touches food or drink</TickField>
  </fieldset>
  <fieldset>
    <legend>Machine</legend>
    <ItemField
      kind="head"
      name="headId"
      class="wide"
      label="Head"
      :options="options('head')"
      :fault="said('headId', 'Choose the head that marks it.')"
      test-id="head"
    />
    <ItemField
      kind="lens"
      name="lensId"
      class="wide"
      label="Lens"
      :preset="{ headId: values.headId }"
      :options="lenses"
      :placeholder="values.headId ? 'Choose' : 'Head first'"
      :fault="said('lensId', 'Choose the lens fitted.')"
      test-id="lens"
    />
  </fieldset>
  <fieldset>
    <legend>The aim: what a good mark is here</legend>
    <ChoiceField name="aim.tone" label="Tone" :options="choicesOf(AIM_TONES)" test-id="tone" />
    <ChoiceField name="aim.strength" label="Strength" :options="choicesOf(AIM_STRENGTHS)" />
    <ChoiceField name="aim.work" label="Work" :options="choicesOf(AIM_WORKS)" />
    <DateField name="wantedOn" label="Wanted on" test-id="wanted-on" />
    <TextField name="note" class="full" label="Note" :lines="2" test-id="ticket-note" />
  </fieldset>
</template>

<style scoped>
.tick {
  align-self: end;
}
</style>
