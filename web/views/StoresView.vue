<script setup lang="ts">
import { STORE_KINDS, type StoreItem, type StoreKind } from '@unto/contract';
import Button from 'primevue/button';
import { computed, ref, watch } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { ApiProblem, request } from '../api/client';
import { shelfFields, type ShelfField } from '../shelf/describe-fields';
import ShelfForm from '../shelf/ShelfForm.vue';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import { formatDay, withUnit } from '../ui/format';
import PageHead from '../ui/PageHead.vue';

/** What the shop keeps: machines, heads, lenses, calibrations, compounds, containers, substrates. */
const props = defineProps<{ id?: string }>();
const bench = useBench();
const outbox = useOutbox();
const notices = useNotices();
const router = useRouter();
const editing = ref<{ kind: StoreKind; item: StoreItem | null } | null>(null);
const history = ref<{ number: number; at: string; byId: string }[]>([]);
const PLURALS: Record<StoreKind, string> = {
  machine: 'Machines',
  head: 'Heads',
  lens: 'Lenses',
  calibration: 'Power calibrations',
  compound: 'Compounds',
  container: 'Containers',
  substrate: 'Substrates',
};

const open = computed(() => bench.items.find((item) => item.id === props.id) ?? null);
const groups = computed(() =>
  STORE_KINDS.map((kind) => ({ kind, items: bench.items.filter((item) => item.kind === kind) })),
);
watch(
  () => open.value?.revisionId,
  async () => {
    editing.value = null;
    history.value = open.value ? await request('GET', `/api/stores/${open.value.id}/revisions`) : [];
  },
  { immediate: true },
);

function shown(field: ShelfField, item: StoreItem): string {
  const value = (item.body as unknown as Record<string, unknown>)[field.key];
  if (value === null || value === '' || (Array.isArray(value) && !value.length)) return '–';
  if (field.kind === 'link') return bench.nameOf(value as string);
  if (field.kind === 'yes') return value ? 'yes' : 'no';
  if (field.kind === 'many') return (value as string[]).join(', ');
  if (field.kind === 'rows')
    return (value as Record<string, unknown>[])
      .map((row) =>
        field.columns
          .map(({ key }) =>
            key === 'priceMinor'
              ? `${(Number(row[key]) / 100).toFixed(2)} ${bench.workshop!.currency}`
              : String(row[key]),
          )
          .join(' · '),
      )
      .join('\n');
  if (field.key === 'priceMinor') return `${(Number(value) / 100).toFixed(2)} ${bench.workshop!.currency}`;
  return typeof value === 'number' ? withUnit(value, field.unit, 5) : String(value);
}

async function retire(item: StoreItem, retired: boolean): Promise<void> {
  try {
    await outbox.send(
      'PUT',
      `/api/stores/${item.id}/retired`,
      { version: item.version, retired },
      `${item.body.name} ${retired ? 'retired' : 'taken back'}`,
    );
    await bench.load();
    const now = bench.items.find(({ id }) => id === item.id)!;
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
</script>

<template>
  <PageHead
    title="Stores"
    about="What records pin: every edit makes a new revision, nothing a record used is ever lost"
  />
  <div class="stores">
    <nav class="shelf" aria-label="Store items">
      <section v-for="{ kind, items } in groups" :key="kind">
        <div class="shelf-head">
          <h2>{{ PLURALS[kind] }}</h2>
          <button
            type="button"
            :aria-label="`Add to ${PLURALS[kind]}`"
            :data-test-id="`add-${kind}`"
            @click="editing = { kind, item: null }"
          >
            Add
          </button>
        </div>
        <RouterLink
          v-for="item in items"
          :key="item.id"
          :to="`/stores/${item.id}`"
          class="entry"
          :class="{ here: item.id === id, retired: item.retired }"
          >{{ item.body.name }}{{ item.retired ? ', retired' : '' }}</RouterLink
        >
        <p v-if="!items.length" class="quiet small">None yet.</p>
      </section>
    </nav>
    <div class="page">
      <ShelfForm
        v-if="editing"
        :key="editing.kind + (editing.item?.id ?? '')"
        :kind="editing.kind"
        :item="editing.item"
        @done="done"
        @close="editing = null"
      />
      <template v-else-if="open">
        <div class="item-head">
          <h2>{{ open.body.name }}</h2>
          <span class="quiet">{{ open.kind }}, revision {{ open.revision }}</span>
          <Button outlined label="Revise" data-test-id="revise" @click="editing = { kind: open.kind, item: open }" />
          <Button
            outlined
            severity="secondary"
            :label="open.retired ? 'Take back' : 'Retire'"
            @click="retire(open, !open.retired)"
          />
        </div>
        <table class="plain">
          <tbody>
            <tr v-for="field in shelfFields(open.kind)" :key="field.key">
              <td class="quiet name">{{ field.label }}</td>
              <td class="value">{{ shown(field, open) }}</td>
            </tr>
          </tbody>
        </table>
        <h3>Revisions</h3>
        <p v-for="revision in history" :key="revision.number" class="small quiet">
          {{ revision.number }}: {{ formatDay(revision.at) }}, {{ bench.personOf(revision.byId) }}
        </p>
      </template>
      <p v-else class="quiet">Choose something on the left to see it, or add what is missing.</p>
    </div>
  </div>
</template>

<style scoped>
.stores {
  flex: 1;
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  grid-template-rows: minmax(0, 1fr);
  min-height: 0;
}

.shelf {
  padding: 0.6rem 1rem 1rem 1.5rem;
  border-right: 1px solid var(--unto-rule);
  background: var(--unto-surface);
  overflow-y: auto;
}

.shelf-head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-top: 0.6rem;
}

.shelf-head button {
  min-height: 36px;
  border: 0;
  background: none;
  color: var(--unto-action);
  font-weight: 700;
  cursor: pointer;
}

.entry {
  display: block;
  padding: 0.35rem 0.5rem;
  color: var(--unto-ink);
  text-decoration: none;
  border-bottom: 1px solid var(--unto-rule);
}

.entry.here {
  background: var(--unto-coat-tint);
  font-weight: 700;
}

.entry.retired {
  color: var(--unto-quiet);
}

.page {
  padding: 1rem 1.5rem;
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
  max-width: 64rem;
  overflow-y: auto;
}

.item-head {
  display: flex;
  align-items: center;
  gap: 0.8rem;
}

.item-head .quiet {
  flex: 1;
}

.name {
  width: 18rem;
}

.value {
  white-space: pre-line;
}

@media (max-width: 800px) {
  .stores {
    grid-template-columns: minmax(0, 1fr);
  }

  .shelf {
    overflow: visible;
  }
}
</style>
