<script setup lang="ts">
import { STORE_BODIES, type StoreItem, type StoreKind } from '@unto/contract';
import Button from 'primevue/button';
import Checkbox from 'primevue/checkbox';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import { ApiProblem } from '../api/client';
import { useBench } from '../stores/bench';
import { useOutbox } from '../stores/outbox';
import ChoiceField from '../ui/ChoiceField.vue';
import NumberField from '../ui/NumberField.vue';
import TextField from '../ui/TextField.vue';
import { useForm } from '../ui/useForm';
import { blankBody, rowsToText, shelfFields, textToRows, type ShelfField } from './describe-fields';

/** Add or revise a store item. Every kept edit is a new revision; what was made on an earlier one keeps it. */
const props = defineProps<{ kind: StoreKind; item: StoreItem | null }>();
const emit = defineEmits<{ done: [id: string]; close: [] }>();
const bench = useBench();
const outbox = useOutbox();
const fields = computed(() => shelfFields(props.kind));
const theirs = ref<StoreItem | null>(null);
const version = ref(props.item?.version ?? 0);

const form = useForm<Record<string, unknown>>(STORE_BODIES[props.kind], () =>
  props.item ? JSON.parse(JSON.stringify(props.item.body)) : blankBody(props.kind),
);
const { values, faults, general, busy, touch } = form;
const tables = ref<Record<string, string>>(
  Object.fromEntries(
    fields.value
      .filter(({ kind }) => kind === 'rows')
      .map((field) => [field.key, rowsToText(field, (values.value[field.key] ?? []) as Record<string, unknown>[])]),
  ),
);

function typedRows(field: ShelfField, text: string | null): void {
  tables.value[field.key] = text ?? '';
  values.value[field.key] = textToRows(field, text ?? '');
}

function faultOf(key: string): string | undefined {
  return faults.value[key] ?? Object.entries(faults.value).find(([path]) => path.startsWith(`${key}[`))?.[1];
}

const links = (field: ShelfField) =>
  bench.inUse(field.linkTo!).map(({ id, body }) => ({ value: id, label: body.name }));
const words = (field: ShelfField) => field.words.map((value) => ({ value, label: value }));

async function keep(): Promise<void> {
  const id = props.item?.id ?? uuid();
  await form.submit(async (body) => {
    try {
      const answer = props.item
        ? await outbox.send('PUT', `/api/stores/${id}`, { version: version.value, body }, String(body['name']))
        : await outbox.send('POST', '/api/stores', { id, kind: props.kind, body }, String(body['name']));
      if (answer) await bench.load();
      emit('done', id);
    } catch (error) {
      if (error instanceof ApiProblem && error.problem.type === 'version-conflict')
        theirs.value = error.problem.current as StoreItem;
      else throw error;
    }
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
    <h2>{{ item ? `Revise ${item.body.name}` : `New ${kind}` }}</h2>
    <p v-if="general" class="fault" role="alert">{{ general }}</p>
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
          v-model="values[field.key] as string"
          :label="field.label"
          :options="links(field)"
          :test-id="`shelf-${field.key}`"
          :fault="faultOf(field.key) && `Choose the ${field.linkTo}.`"
          @left="touch(field.key)"
        />
        <ChoiceField
          v-else-if="field.kind === 'one'"
          v-model="values[field.key] as string"
          :label="field.label"
          :options="words(field)"
          :test-id="`shelf-${field.key}`"
          :fault="faultOf(field.key)"
        />
        <NumberField
          v-else-if="field.kind === 'number'"
          v-model="values[field.key] as number"
          :label="field.label"
          :unit="field.unit"
          :optional="field.optional"
          :fault="faultOf(field.key)"
          :test-id="`shelf-${field.key}`"
          @left="touch(field.key)"
        />
        <label v-else-if="field.kind === 'yes'" class="tick"
          ><Checkbox v-model="values[field.key] as boolean" binary /> {{ field.label }}</label
        >
        <fieldset v-else-if="field.kind === 'many'" class="wide">
          <legend>{{ field.label }}</legend>
          <label v-for="word in field.words" :key="word" class="tick"
            ><Checkbox v-model="values[field.key] as string[]" :value="word" /> {{ word }}</label
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
        <TextField
          v-else
          v-model="values[field.key] as string"
          :label="field.label"
          :type="field.key.endsWith('On') ? 'date' : 'text'"
          :fault="faultOf(field.key)"
          :test-id="`shelf-${field.key}`"
          @left="touch(field.key)"
        />
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
