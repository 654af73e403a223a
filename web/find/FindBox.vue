<script setup lang="ts">
import { FOUND_KINDS, type Found, type FoundKind } from '@unto/contract';
import { useEventListener, watchDebounced } from '@vueuse/core';
import Dialog from 'primevue/dialog';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { api, Unreachable } from '../api/client';
import { isTyping } from '../ui/keys';
import { recent, remember } from './recent';

/** One field that finds anything: opened by a key, gone through by the arrows, what was opened last first. */
const visible = defineModel<boolean>({ required: true });
const router = useRouter();
const sought = ref('');
const found = ref<readonly Found[]>([]);
const said = ref('');
const at = ref(0);
const list = useTemplateRef<HTMLElement>('list');

const WORDS: Record<FoundKind, string> = {
  ticket: 'Tickets',
  coupon: 'Coupons',
  run: 'Runs',
  setting: 'Settings',
  store: 'Stores',
  stated: 'Stated settings',
};
const groups = computed(() => {
  if (!sought.value.trim() && recent.value.length)
    return [{ name: 'Opened last', entries: recent.value as readonly Found[] }];
  return FOUND_KINDS.map((kind) => ({
    name: WORDS[kind],
    entries: found.value.filter((one) => one.kind === kind),
  })).filter(({ entries }) => entries.length > 0);
});
const entries = computed(() => groups.value.flatMap(({ entries: of }) => of));

let asked = 0;
async function seek(): Promise<void> {
  const mine = (asked += 1);
  try {
    const answer = await api.call('find', { query: { q: sought.value.trim() } });
    if (mine !== asked) return;
    found.value = answer;
    said.value = answer.length ? '' : 'Nothing holds all of these words.';
  } catch (error) {
    said.value =
      error instanceof Unreachable ? 'The server does not answer just now.' : String((error as Error).message);
  }
}
watchDebounced(sought, () => visible.value && void seek(), { debounce: 120 });
watch(visible, (open) => {
  if (!open) return;
  sought.value = '';
  void seek();
});
watch(entries, () => (at.value = 0));

useEventListener('keydown', (event: KeyboardEvent) => {
  if (event.key !== '/' || isTyping(event)) return;
  event.preventDefault();
  visible.value = true;
});

async function move(by: number): Promise<void> {
  const { length } = entries.value;
  if (!length) return;
  at.value = (at.value + by + length) % length;
  await nextTick();
  list.value?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest' });
}

async function open(one: Found | undefined): Promise<void> {
  if (!one) return;
  remember(one);
  visible.value = false;
  await router.push(one.to);
}
const indexOf = (one: Found) => entries.value.indexOf(one);
</script>

<template>
  <Dialog v-model:visible="visible" modal header="Find" position="top" class="find" data-test-id="find">
    <input
      v-model="sought"
      class="field"
      type="search"
      role="combobox"
      autofocus
      autocomplete="off"
      placeholder="A ticket, coupon code, lot, substrate, setting …"
      aria-label="What is sought"
      aria-controls="found"
      :aria-expanded="entries.length > 0"
      :aria-activedescendant="entries.length ? `found-${at}` : undefined"
      data-test-id="find-field"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="open(entries[at])"
    />
    <p v-if="said && !entries.length" class="quiet" role="status">{{ said }}</p>
    <div id="found" ref="list" role="listbox" aria-label="Found">
      <div v-for="group in groups" :key="group.name" role="group" :aria-label="group.name">
        <p class="group quiet small">{{ group.name }}</p>
        <div
          v-for="one in group.entries"
          :id="`found-${indexOf(one)}`"
          :key="one.to + one.title"
          class="entry"
          role="option"
          :aria-selected="indexOf(one) === at"
          data-test-id="found"
          @mousemove="at = indexOf(one)"
          @click="open(one)"
        >
          <strong>{{ one.title }}</strong> <span class="quiet small">{{ one.text }}</span>
        </div>
      </div>
    </div>
  </Dialog>
</template>

<style>
.find.p-dialog {
  width: 44rem;
  max-width: 96vw;
}
</style>

<style scoped>
.field {
  width: calc(100% - 8px);
  margin: 4px;
  min-height: 48px;
  padding: 0 0.8rem;
  border: 1px solid var(--unto-slate);
  border-radius: 4px;
  background: var(--unto-surface);
  color: var(--unto-ink);
  font: inherit;
  font-size: 1.1rem;
}

#found {
  max-height: 60vh;
  margin-top: 0.4rem;
  overflow-y: auto;
}

.group {
  margin: 0.6rem 0 0.1rem;
}

.entry {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.8rem;
  align-items: baseline;
  min-height: 44px;
  padding: 0.55rem 0.6rem;
  border-bottom: 1px solid var(--unto-rule);
  cursor: pointer;
}

.entry[aria-selected='true'] {
  background: var(--unto-edge);
  box-shadow: inset 3px 0 0 var(--unto-action);
}
</style>
