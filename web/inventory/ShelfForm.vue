<script setup lang="ts">
import {
  emptyBody,
  shelfFields,
  INVENTORY_BODIES,
  type ShelfField,
  type InventoryBodyOf,
  type InventoryItem,
  type InventoryKind,
} from '@unto/contract';
import { quantityOfUnit } from '@unto/core';
import Button from 'primevue/button';
import Checkbox from 'primevue/checkbox';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import { ApiProblem } from '../api/client';
import { useShop } from '../stores/shop';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import ChoiceField from '../ui/ChoiceField.vue';
import FormNote from '../ui/FormNote.vue';
import NumberField from '../ui/NumberField.vue';
import TextField from '../ui/TextField.vue';
import { useForm } from '../ui/useForm';
import FileField from './FileField.vue';
import FormHelpers from './FormHelpers.vue';
import { isMoney, KIND_WORDS } from './kinds';
import { rowsToText, textToRows } from './table-text';
import DateField from '../ui/DateField.vue';
import TickField from '../ui/TickField.vue';

/** Add or revise a store item. Every kept edit is a new revision; what was made on an earlier one keeps it. */
const props = defineProps<{
  kind: InventoryKind;
  item: InventoryItem | null;
  like?: InventoryItem | null;
  preset?: Record<string, unknown> | undefined;
}>();
const emit = defineEmits<{ done: [id: string]; close: [] }>();
const shop = useShop();
const outbox = useOutbox();
const notices = useNotices();
const fields = computed(() => shelfFields(props.kind));
const theirs = ref<InventoryItem | null>(null);
const version = ref(props.item?.version ?? 0);

const form = useForm<Record<string, unknown>>(INVENTORY_BODIES[props.kind], () => firstBody(), {
  draft: `shelf-${props.kind}-${props.item?.id ?? props.like?.id ?? 'new'}`,
});
const { values, faults, busy, touch } = form;
const tables = ref<Record<string, string>>(
  Object.fromEntries(
    fields.value
      .filter(({ kind }) => kind === 'rows')
      .map((field) => [field.key, rowsToText(field, (values.value[field.key] ?? []) as Record<string, unknown>[])]),
  ),
);

/** The item's own body, a copy of another one's under a new name, or an empty one. */
function firstBody(): Record<string, unknown> {
  const from = props.item ?? props.like;
  if (!from) return { ...emptyBody(props.kind), ...props.preset };
  const body = JSON.parse(JSON.stringify(from.body)) as Record<string, unknown>;
  return props.item ? body : { ...body, name: `${String(body['name'])}, copy` };
}

function typedRows(field: ShelfField, text: string | null | undefined): void {
  tables.value[field.key] = text ?? '';
  values.value[field.key] = textToRows(field, text ?? '');
}

function faultOf(key: string): string | undefined {
  return faults.value[key] ?? Object.entries(faults.value).find(([path]) => path.startsWith(`${key}[`))?.[1];
}

const links = (field: ShelfField) => [
  ...(field.optional ? [{ value: null, label: 'not known yet' }] : []),
  ...shop.inUse(field.linkTo!).map(({ id, body }) => ({ value: id, label: body.name })),
];
const words = (field: ShelfField) => [
  ...(field.optional ? [{ value: null, label: 'none' }] : []),
  ...field.words.map((value) => ({ value, label: value })),
];
const currency = computed(() => shop.workshop!.currency);
const unitOf = (field: ShelfField) =>
  isMoney(field.key) ? [currency.value, field.unit].filter(Boolean).join(' ') : field.unit;
const inMajor = (field: ShelfField) => {
  const value = values.value[field.key] as number | null;
  return isMoney(field.key) && value !== null ? value / 100 : value;
};
function typedNumber(field: ShelfField, value: number | null | undefined): void {
  values.value[field.key] =
    isMoney(field.key) && typeof value === 'number' ? Number((value * 100).toPrecision(12)) : value;
}

async function keep(): Promise<void> {
  const id = props.item?.id ?? uuid();
  await form.submit(async (body) => {
    try {
      const whole = body as unknown as InventoryBodyOf[InventoryKind];
      const name = String(body['name']);
      const answer = props.item
        ? await outbox.send(
            'reviseInventoryItem',
            { params: { id }, body: { version: version.value, body: whole } },
            name,
          )
        : await outbox.send('createInventoryItem', { body: { id, kind: props.kind, body: whole } }, name);
      if (answer && props.item) offerUndo(props.item, answer);
      emit('done', id);
      return answer;
    } catch (error) {
      if (error instanceof ApiProblem && error.problem.type === 'version-conflict')
        theirs.value = error.problem.current as InventoryItem;
      else throw error;
    }
  });
}

/** An edit can be taken back: the body before it becomes the newest revision. */
function offerUndo(before: InventoryItem, now: InventoryItem): void {
  notices.say(`${now.body.name}: revision ${now.revision} kept.`, 'plain', () => {
    const body = { version: now.version, body: before.body };
    void outbox.send('reviseInventoryItem', { params: { id: now.id }, body }, `${before.body.name}, taken back`);
  });
}

function putOver(): void {
  version.value = theirs.value!.version;
  theirs.value = null;
  void keep();
}
</script>

<template>
  <form class="shelf" novalidate @submit.prevent="keep">
    <h2>{{ item ? `Revise ${item.body.name}` : `New ${KIND_WORDS[kind].one}` }}</h2>
    <FormHelpers v-model="values" :kind="kind" />
    <FormNote />
    <div v-if="theirs" class="clash" role="alert">
      <p>
        <strong>Somebody else made revision {{ theirs.revision }} meanwhile.</strong> Yours is still in the form.
      </p>
      <Button type="button" outlined label="Take theirs" @click="emit('done', theirs.id)" />
      <Button type="button" label="Put yours over it" @click="putOver" />
    </div>
    <div class="grid">
      <template v-for="field in fields" :key="field.key">
        <ChoiceField
          v-if="field.kind === 'link'"
          :name="field.key"
          :label="field.label"
          :options="links(field)"
          :placeholder="field.optional ? 'not known yet' : 'Choose'"
          :test-id="`shelf-${field.key}`"
          :fault="faultOf(field.key) && `Choose the ${field.linkTo}.`"
        />
        <ChoiceField
          v-else-if="field.kind === 'one'"
          :name="field.key"
          :label="field.label"
          :options="words(field)"
          :placeholder="field.optional ? 'none' : 'Choose'"
          :test-id="`shelf-${field.key}`"
        />
        <NumberField
          v-else-if="field.kind === 'number'"
          :model-value="inMajor(field)"
          :label="field.label"
          :unit="unitOf(field)"
          :quantity="isMoney(field.key) ? undefined : (quantityOfUnit(field.unit) ?? undefined)"
          :optional="field.optional"
          :must="!field.optional"
          :fault="faultOf(field.key)"
          :test-id="`shelf-${field.key}`"
          @update:model-value="typedNumber(field, $event)"
          @left="touch(field.key)"
        />
        <FileField
          v-else-if="field.kind === 'file'"
          v-model="values[field.key] as { hash: string; name: string } | null"
          :label="field.label"
          :fault="faultOf(field.key)"
          :test-id="`shelf-${field.key}`"
        />
        <TickField v-else-if="field.kind === 'yes'" v-model="values[field.key] as boolean">{{ field.label }}</TickField>
        <fieldset v-else-if="field.kind === 'many'" class="wide">
          <legend>{{ field.label }}</legend>
          <label v-for="word in field.words" :key="word" class="tick"
            ><Checkbox
              v-model="values[field.key] as string[]"
              :value="word"
              :pt="{ input: { 'data-test-id': `shelf-${field.key}-${word}` } }"
            />
            {{ word }}</label
          >
        </fieldset>
        <TextField
          v-else-if="field.kind === 'rows'"
          class="wide"
          :model-value="tables[field.key] ?? ''"
          :lines="5"
          :label="`${field.label}: one row a line, ${field.columns.map(({ label }) => label.toLowerCase()).join('; ')}`"
          :fault="faultOf(field.key)"
          :test-id="`shelf-${field.key}`"
          @update:model-value="typedRows(field, $event)"
          @left="touch(field.key)"
        />
        <DateField
          v-else-if="field.kind === 'day'"
          :name="field.key"
          :label="field.label"
          :test-id="`shelf-${field.key}`"
        />
        <TextField v-else :name="field.key" :label="field.label" :test-id="`shelf-${field.key}`" />
      </template>
    </div>
    <div class="foot">
      <Button
        type="submit"
        :label="item ? 'Keep as a new revision' : 'Keep'"
        :loading="busy"
        data-test-id="keep-item"
      />
      <Button type="button" outlined label="Back" @click="emit('close')" />
    </div>
  </form>
</template>

<style scoped>
.shelf {
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
}

.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
  gap: 0.6rem 1rem;
  align-items: end;
}

.wide {
  grid-column: 1 / -1;
}

fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1.2rem;
  margin: 0;
  border: 1px solid var(--unto-rule);
}

legend {
  font-size: 0.88rem;
  color: var(--unto-quiet);
}

.tick {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 44px;
}

.clash {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
  padding: 0.6rem;
  background: var(--unto-coat-tint);
}

.foot {
  display: flex;
  gap: 0.6rem;
  position: sticky;
  bottom: 0;
  padding: 0.5rem 0;
  background: var(--unto-ground);
}
</style>
