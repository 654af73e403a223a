<script setup lang="ts">
import type { InventoryKind, ShelfField } from '@unto/contract';
import { quantityOfUnit } from '@unto/core';
import Checkbox from 'primevue/checkbox';
import { computed, inject, ref, watch } from 'vue';
import { useShop } from '../stores/shop';
import ChoiceField from '../ui/ChoiceField.vue';
import DateField from '../ui/DateField.vue';
import NumberField from '../ui/NumberField.vue';
import TextField from '../ui/TextField.vue';
import TickField from '../ui/TickField.vue';
import { FORM } from '../ui/useForm';
import GradeMark from '../evidence/GradeMark.vue';
import FieldDrawing from './FieldDrawing.vue';
import FileField from './FileField.vue';
import { FIELD_HINTS } from './field-words';
import ItemField from './ItemField.vue';
import { isMoney } from './kinds';
import { rowsToText, textToRows } from './table-text';

/** One field of a store item, as its schema says; one that stands at what is usual says so, and can be said to be so. */
const props = defineProps<{ field: ShelfField; kind: InventoryKind; usual: boolean }>();
const emit = defineEmits<{ left: []; confirm: [] }>();
const shop = useShop();
const form = inject(FORM)!;
const values = computed(() => form.values.value as Record<string, unknown>);
const hint = computed(() => FIELD_HINTS[props.kind]?.[props.field.key]);
const fault = computed(() => {
  const { key } = props.field;
  const { value: faults } = form.faults;
  return faults[key] ?? Object.entries(faults).find(([path]) => path.startsWith(`${key}[`))?.[1];
});

const money = computed(() => isMoney(props.field.key));
const unit = computed(() =>
  money.value ? [shop.workshop!.currency, props.field.unit].filter(Boolean).join(' ') : props.field.unit,
);
const number = computed({
  get: () => {
    const value = values.value[props.field.key] as number | null;
    return money.value && value !== null ? value / 100 : value;
  },
  set: (value: number | null | undefined) => {
    values.value[props.field.key] =
      money.value && typeof value === 'number' ? Number((value * 100).toPrecision(12)) : value;
  },
});

const rows = () => (values.value[props.field.key] ?? []) as Record<string, unknown>[];
const table = ref(props.field.kind === 'rows' ? rowsToText(props.field, rows()) : '');
watch(
  () => values.value[props.field.key],
  () => {
    if (props.field.kind !== 'rows') return;
    if (JSON.stringify(textToRows(props.field, table.value)) !== JSON.stringify(rows()))
      table.value = rowsToText(props.field, rows());
  },
  { deep: true },
);
function typedRows(text: string | null | undefined): void {
  table.value = text ?? '';
  values.value[props.field.key] = textToRows(props.field, table.value);
}

const options = computed(() => [
  ...(props.field.optional ? [{ value: null, label: 'not known yet' }] : []),
  ...shop.inUse(props.field.linkTo!).map(({ id, body }) => ({ value: id as string | null, label: body.name })),
]);
const words = computed(() => [
  ...(props.field.optional ? [{ value: null, label: 'none' }] : []),
  ...props.field.words.map((value) => ({ value: value as string | null, label: value })),
]);

function left(): void {
  form.touch(props.field.key);
  emit('left');
}
</script>

<template>
  <div class="shelf-field" :class="{ wide: ['many', 'rows', 'link'].includes(field.kind) }">
    <ItemField
      v-if="field.kind === 'link'"
      :kind="field.linkTo!"
      :name="field.key"
      :label="field.label"
      :options="options"
      :placeholder="field.optional ? 'not known yet' : 'Choose'"
      :test-id="`shelf-${field.key}`"
      :hint="hint"
      :fault="fault && `Choose the ${field.linkTo}.`"
    />
    <ChoiceField
      v-else-if="field.kind === 'one'"
      :name="field.key"
      :label="field.label"
      :options="words"
      :placeholder="field.optional ? 'none' : 'Choose'"
      :hint="hint"
      :test-id="`shelf-${field.key}`"
    />
    <NumberField
      v-else-if="field.kind === 'number'"
      v-model="number"
      :label="field.label"
      :unit="unit"
      :quantity="money ? undefined : (quantityOfUnit(field.unit) ?? undefined)"
      :share="field.share"
      :optional="field.optional"
      :must="!field.optional"
      :fault="fault"
      :hint="hint"
      :test-id="`shelf-${field.key}`"
      @left="left"
    />
    <FileField
      v-else-if="field.kind === 'file'"
      v-model="values[field.key] as { hash: string; name: string } | null"
      :label="field.label"
      :fault="fault"
      :test-id="`shelf-${field.key}`"
    />
    <template v-else-if="field.kind === 'yes'">
      <TickField v-model="values[field.key] as boolean" :test-id="`shelf-${field.key}`">{{ field.label }}</TickField>
      <p v-if="hint" class="quiet small">{{ hint }}</p>
    </template>
    <fieldset v-else-if="field.kind === 'many'">
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
      :model-value="table"
      :lines="4"
      :label="`${field.label}: one row a line, ${field.columns.map(({ label }) => label.toLowerCase()).join('; ')}`"
      :fault="fault"
      :hint="hint"
      :test-id="`shelf-${field.key}`"
      @update:model-value="typedRows"
      @left="left"
    />
    <DateField
      v-else-if="field.kind === 'day'"
      :name="field.key"
      :label="field.label"
      :test-id="`shelf-${field.key}`"
    />
    <TextField
      v-else
      :name="field.key"
      :label="field.label"
      :hint="hint"
      :test-id="`shelf-${field.key}`"
      @left="emit('left')"
    />
    <FieldDrawing :field="field.key" />
    <p v-if="usual" class="usual" :data-test-id="`usual-${field.key}`">
      <GradeMark grade="usual" :title="field.label" />
      <button type="button" class="so" :data-test-id="`so-${field.key}`" @click="emit('confirm')">It is so here</button>
    </p>
  </div>
</template>

<style scoped>
.shelf-field {
  min-width: 0;
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

.usual {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  margin: 0;
}

.so {
  min-height: 28px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--unto-action);
  font-size: 0.8rem;
  text-decoration: underline;
  cursor: pointer;
}
</style>
