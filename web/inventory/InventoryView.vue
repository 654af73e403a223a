<script setup lang="ts">
import { INVENTORY_KINDS, type InventoryItem, type InventoryKind } from '@unto/contract';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { ApiProblem } from '../api/client';
import { KIND_WORDS } from './kinds';
import ShelfForm from './ShelfForm.vue';
import InventoryPage from './InventoryPage.vue';
import InventoryShelf from './InventoryShelf.vue';
import { useBringing } from '../stores/useBringing';
import { useShop } from '../stores/shop';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import { bringFile, type FileFault } from '../ui/bring-file';
import FileLabel from '../ui/FileLabel.vue';
import PageHead from '../ui/PageHead.vue';

/** What the shop keeps: machines, heads, lenses, calibrations, compounds, containers, substrates, blanks, profiles. */
const props = defineProps<{ id?: string }>();
const shop = useShop();
const outbox = useOutbox();
const notices = useNotices();
const brings = useBringing();
const router = useRouter();
const route = useRoute();
interface Editing {
  readonly kind: InventoryKind;
  readonly item: InventoryItem | null;
  readonly like: InventoryItem | null;
  readonly preset?: Record<string, unknown>;
}
const editing = ref<Editing | null>(presetOf());
const faults = ref<readonly FileFault[]>([]);

/** An address can ask for a new item with some fields filled in: /stores?add=substrate&family=brass&layer=bare. */
function presetOf(): Editing | null {
  const { add, ...preset } = route.query;
  const found = INVENTORY_KINDS.find((entry) => entry === add);
  return found ? { kind: found, item: null, like: null, preset } : null;
}

const open = computed(() => shop.items.find((item) => item.id === props.id) ?? null);
const asked = INVENTORY_KINDS.find((kind) => kind === route.query['kind']);
const kind = ref<InventoryKind | null>(open.value?.kind ?? asked ?? 'compound');
watch(
  () => open.value?.revisionId,
  () => {
    editing.value = null;
    if (open.value) kind.value = open.value.kind;
  },
);

async function retire(item: InventoryItem, retired: boolean): Promise<void> {
  try {
    const said = `${item.body.name} ${retired ? 'retired' : 'taken back'}`;
    const call = { params: { id: item.id }, body: { version: item.version, retired } };
    const now = await outbox.send('retireInventoryItem', call, said);
    if (!now) return;
    notices.say(
      retired ? 'Retired; records that used it keep it.' : 'Taken back.',
      'plain',
      () => void retire(now, !retired),
    );
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    notices.say(error.problem.detail, 'danger');
  }
}

async function done(id: string): Promise<void> {
  editing.value = null;
  await router.push(`/stores/${id}`);
}

async function bringBack(file: File): Promise<void> {
  const brought = await bringFile(file, (format) =>
    brings.bring('importInventory', {
      query: { format, ...(format === 'csv' ? { kind: kind.value! } : {}) },
      body: file,
    }),
  );
  faults.value = 'faults' in brought ? brought.faults : [];
  if ('faults' in brought) return;
  const { created, revised, unchanged } = brought.report;
  notices.say(`${created} brought in, ${revised} revised, ${unchanged} here already and unchanged.`);
}
</script>

<template>
  <PageHead title="Stores" about="Every edit makes a new revision; nothing a record used is ever lost">
    <RouterLink to="/card" data-test-id="to-card">Reference card</RouterLink>
    <span class="files no-print">
      <a v-if="kind" :href="`/api/inventory.csv?kind=${kind}`" :download="`${kind}s.csv`" data-test-id="stores-csv"
        >{{ KIND_WORDS[kind].many }} as CSV</a
      >
      <a href="/api/inventory.json" download="stores.json" data-test-id="stores-json">All as JSON</a>
      <FileLabel label="Bring a file back" accept=".csv,.json" test-id="stores-import" @brought="bringBack" />
    </span>
  </PageHead>
  <section v-if="faults.length" class="faults" role="alert" data-test-id="import-faults">
    <p>
      <strong>Nothing was brought in.</strong>
      <button type="button" class="link" @click="faults = []">Close</button>
    </p>
    <p v-for="(fault, i) in faults.slice(0, 12)" :key="i" class="fault">{{ fault.message }}</p>
    <p v-if="faults.length > 12" class="quiet small">and {{ faults.length - 12 }} more.</p>
  </section>
  <div class="stores">
    <InventoryShelf
      v-model="kind"
      :items="shop.items"
      :here="id"
      :class="{ 'no-print': open }"
      @add="editing = { kind: $event, item: null, like: null }"
    />
    <div class="page">
      <ShelfForm
        v-if="editing"
        :key="editing.kind + (editing.item?.id ?? '') + (editing.like?.id ?? '')"
        :kind="editing.kind"
        :item="editing.item"
        :like="editing.like"
        :preset="editing.preset"
        @done="done"
        @close="editing = null"
      />
      <InventoryPage
        v-else-if="open"
        :key="open.id"
        :item="open"
        @revise="editing = { kind: open.kind, item: open, like: null }"
        @copy="editing = { kind: open.kind, item: null, like: open }"
        @retire="retire(open, $event)"
      />
      <p v-else class="quiet">Choose something on the left to see it, or add what is missing.</p>
    </div>
  </div>
</template>

<style scoped>
.files {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 1rem;
}

.faults {
  padding: 0.6rem 1.5rem;
  background: var(--unto-danger-tint);
  border-left: 4px solid var(--unto-danger);
}

.link {
  padding: 1px 6px;
}

.stores {
  flex: 1;
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  grid-template-rows: minmax(0, 1fr);
  min-height: 0;
}

.page {
  padding: 1rem 1.5rem;
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
  max-width: 64rem;
  overflow-y: auto;
}

@media (max-width: 800px) {
  .stores {
    grid-template-columns: minmax(0, 1fr);
  }
}

@media print {
  .stores {
    display: block;
  }
}
</style>
