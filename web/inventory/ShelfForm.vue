<script setup lang="ts">
import {
  emptyBody,
  ownFields,
  INVENTORY_BODIES,
  type InventoryBodyOf,
  type InventoryItem,
  type InventoryKind,
  type ShelfField as ShelfFieldOf,
} from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import { ApiProblem } from '../api/client';
import { useShop } from '../stores/shop';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import FormNote from '../ui/FormNote.vue';
import { useForm } from '../ui/useForm';
import { MAIN_FIELDS } from './field-words';
import FormHelpers from './FormHelpers.vue';
import KindPick from './KindPick.vue';
import { KIND_WORDS } from './kinds';
import ShelfField from './ShelfField.vue';
import { useKindValues } from './useKindValues';

/** Add or revise a store item. Every kept edit is a new revision; what was made on an earlier one keeps it. */
const props = defineProps<{
  kind: InventoryKind;
  item: InventoryItem | null;
  like?: InventoryItem | null;
  preset?: Record<string, unknown> | undefined;
  /** Opened over another form, which goes on with what is made here. */
  inPlace?: boolean;
}>();
const emit = defineEmits<{ done: [id: string]; close: [] }>();
const shop = useShop();
const outbox = useOutbox();
const notices = useNotices();
const theirs = ref<InventoryItem | null>(null);
const version = ref(props.item?.version ?? 0);

const form = useForm<Record<string, unknown>>(INVENTORY_BODIES[props.kind], () => firstBody(), {
  draft: `shelf-${props.kind}-${props.item?.id ?? props.like?.id ?? 'new'}`,
});
const { values, faults, busy } = form;
const kinded = useKindValues(props.kind, values);

/** The item's own body, a copy of another one's under a new name, or an empty one. */
function firstBody(): Record<string, unknown> {
  const from = props.item ?? props.like;
  if (!from) return { ...emptyBody(props.kind), ...props.preset };
  const body = JSON.parse(JSON.stringify(from.body)) as Record<string, unknown>;
  return props.item ? body : { ...body, name: `${String(body['name'])}, copy` };
}

const fields = computed(() => ownFields(props.kind));
const main = computed(() => MAIN_FIELDS[props.kind] ?? fields.value.map(({ key }) => key));
const first = computed(() => fields.value.filter(({ key }) => main.value.includes(key)));
const rest = computed(() => fields.value.filter(({ key }) => !main.value.includes(key)));
/** All stand open where no kind fills them, or one of them is wrong. */
const open = computed(
  () =>
    !kinded.ofKind.value ||
    rest.value.some(({ key }) => Object.keys(faults.value).some((path) => path === key || path.startsWith(`${key}[`))),
);
/** What a field of the form is told, and what it tells. */
const shelfField = (field: ShelfFieldOf) => ({
  field,
  kind: props.kind,
  usual: kinded.usual.value.includes(field.key),
  onLeft: () => kinded.left(field.key),
  onConfirm: () => kinded.confirm(field.key),
});
const usualRest = computed(() => rest.value.filter(({ key }) => kinded.usual.value.includes(key)).length);
const headKind = computed(() =>
  props.kind === 'lens' ? shop.item('head', values.value['headId'] as string)?.body.ofKind : undefined,
);

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
    <h2 v-if="!inPlace">{{ item ? `Revise ${item.body.name}` : `New ${KIND_WORDS[kind].one}` }}</h2>
    <KindPick :model-value="kinded.ofKind.value" :kind="kind" :of="headKind" @update:model-value="kinded.take" />
    <FormNote />
    <div v-if="theirs" class="clash" role="alert">
      <p>
        <strong>Somebody else made revision {{ theirs.revision }} meanwhile.</strong> Yours is still in the form.
      </p>
      <Button type="button" outlined label="Take theirs" @click="emit('done', theirs.id)" />
      <Button type="button" label="Put yours over it" @click="putOver" />
    </div>
    <div class="grid">
      <ShelfField v-for="field in first" :key="field.key" v-bind="shelfField(field)" />
    </div>
    <details v-if="rest.length" :open="open" data-test-id="more">
      <summary>
        More, if you know it
        <span class="quiet small">
          {{ rest.length }} fields{{ usualRest ? `, ${usualRest} at what is usual for the kind` : '' }}
        </span>
      </summary>
      <FormHelpers v-model="values" :kind="kind" />
      <div class="grid">
        <ShelfField v-for="field in rest" :key="field.key" v-bind="shelfField(field)" />
      </div>
    </details>
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
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 0.8rem 1rem;
  align-items: start;
}

summary {
  padding: 0.6rem 0;
  min-height: 44px;
  font-weight: 700;
  color: var(--unto-action);
  cursor: pointer;
}

summary .quiet {
  margin-left: 0.6rem;
  font-weight: 400;
}

details[open] > summary {
  margin-bottom: 0.4rem;
  border-bottom: 1px solid var(--unto-rule);
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
