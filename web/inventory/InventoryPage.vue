<script setup lang="ts">
import { ownFields, type InventoryItem } from '@unto/contract';
import Button from 'primevue/button';
import { useQuery } from '@pinia/colada';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useShop } from '../stores/shop';
import { formatDay } from '../ui/format';
import GradeMark from '../evidence/GradeMark.vue';
import FigureTile from '../evidence/FigureTile.vue';
import TileStrip from '../ui/TileStrip.vue';
import { KIND_WORDS } from './kinds';
import UpkeepPanel from './UpkeepPanel.vue';
import { useUnits } from '../ui/useUnits';
import { shownValue } from './shown-value';

/** One store item: what it says, what rests on it, its revisions. */
const props = defineProps<{ item: InventoryItem }>();
defineEmits<{ revise: []; copy: []; retire: [retired: boolean] }>();
const shop = useShop();
const { data: used } = useQuery({
  key: () => [...KEYS.item(props.item.id), 'use'],
  query: () => api.call('inventoryUse', { params: { id: props.item.id } }),
});
const { data: revisions } = useQuery({
  key: () => [...KEYS.item(props.item.id), 'revisions'],
  query: () => api.call('inventoryHistory', { params: { id: props.item.id } }),
});
const use = computed(() => used.value ?? null);
const history = computed(() => revisions.value ?? []);
const fields = computed(() => ownFields(props.item.kind));
const units = useUnits();
const names = computed(() => ({
  nameOf: (id: string) => shop.nameOf(id),
  currency: shop.workshop!.currency,
  units,
}));
/** Fields at which nobody has said anything but the item's kind. */
const usual = computed(() => ('usual' in props.item.body ? props.item.body.usual : []));
/** Kinds of field whose values want room. */
const WIDE = new Set(['many', 'rows', 'file']);
const sheet = computed(() =>
  props.item.kind === 'compound' ? (props.item as InventoryItem<'compound'>).body.dataSheet : null,
);
const unknown = computed(
  () => props.item.kind === 'blank' && (props.item as InventoryItem<'blank'>).body.substrateId === null,
);
const rests = computed(() => {
  if (!use.value) return '';
  const { tickets, coupons, runs, weighings } = use.value;
  const parts = [
    [tickets, 'ticket'],
    [coupons, 'coupon'],
    [runs, 'run'],
    [weighings, 'weighing'],
  ] as const;
  const said = parts.filter(([n]) => n > 0).map(([n, word]) => `${n} ${word}${n === 1 ? '' : 's'}`);
  return said.length ? `${said.join(', ')} rest on it.` : 'Nothing rests on it yet.';
});
const links = computed(() => ({
  container: shop.items.filter(
    (other) => other.kind === 'container' && (other.body as { compoundId?: string }).compoundId === props.item.id,
  ),
}));
</script>

<template>
  <div class="item-head">
    <h2>{{ item.body.name }}</h2>
    <span class="quiet"
      >{{ KIND_WORDS[item.kind].one }}, revision {{ item.revision }}{{ item.retired ? ', retired' : '' }}</span
    >
    <RouterLink v-if="item.kind === 'substrate'" :to="`/substrates/${item.id}`" data-test-id="what-works"
      >What works on it</RouterLink
    >
    <Button outlined label="Revise" data-test-id="revise" @click="$emit('revise')" />
    <Button outlined label="Duplicate" data-test-id="duplicate" @click="$emit('copy')" />
    <Button
      outlined
      severity="secondary"
      :label="item.retired ? 'Take back' : 'Retire'"
      data-test-id="retire"
      @click="$emit('retire', !item.retired)"
    />
  </div>
  <p class="quiet small" data-test-id="rests">
    {{ rests }} <span v-if="use && use.runs + use.coupons > 0">It can be retired, never deleted.</span>
  </p>
  <p v-if="use?.blanksLeft != null" data-test-id="blanks-left">
    <strong class="mono">{{ use.blanksLeft }}</strong> left on the shelf: as counted last, less what was run and fired
    since.
  </p>
  <TileStrip v-if="use?.left">
    <FigureTile label="left at the newest weighing" :figure="use.left.grams" test-id="left-grams" />
    <FigureTile
      label="pieces that still is"
      :figure="use.left.pieces"
      :text="use.left.pieces ? String(use.left.pieces.value) : ''"
      test-id="left-pieces"
    />
  </TileStrip>
  <p v-if="unknown" class="unknown">
    Nobody knows yet what these are.
    <RouterLink :to="`/identify?blank=${item.id}`" data-test-id="identify">What is this part?</RouterLink>
  </p>
  <dl class="fields">
    <div v-for="field in fields" :key="field.key" :class="{ wide: WIDE.has(field.kind) }">
      <dt class="quiet">{{ field.label }}</dt>
      <dd>
        <a v-if="field.kind === 'file' && sheet" :href="`/api/files/${sheet.hash}`" target="_blank" rel="noopener">{{
          sheet.name
        }}</a>
        <template v-else>{{ shownValue(field, item, names) }}</template>
        <GradeMark v-if="usual.includes(field.key)" grade="usual" class="mark" :title="field.label" />
      </dd>
    </div>
    <div v-if="links.container.length" class="wide">
      <dt class="quiet">Containers of it</dt>
      <dd>
        <RouterLink v-for="other in links.container" :key="other.id" class="other" :to="`/stores/${other.id}`">{{
          other.body.name
        }}</RouterLink>
      </dd>
    </div>
  </dl>
  <UpkeepPanel v-if="item.kind === 'head' || item.kind === 'lens'" :item-id="item.id" :kind="item.kind" />
  <h3>Revisions</h3>
  <p v-for="revision in history" :key="revision.number" class="small quiet">
    {{ revision.number }}: {{ formatDay(revision.at) }}, {{ shop.personOf(revision.byId) }}
  </p>
</template>

<style scoped>
.item-head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.8rem;
}

.item-head .quiet {
  flex: 1;
}

.fields {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 0 2rem;
  margin: 0;
}

.fields > div {
  display: grid;
  grid-template-columns: 12rem minmax(0, 1fr);
  gap: 0.6rem;
  padding: 0.38rem 0;
  border-bottom: 1px solid var(--unto-rule);
}

.fields > .wide {
  grid-column: 1 / -1;
}

dd .mark {
  margin-left: 0.6rem;
}

dd {
  margin: 0;
  white-space: pre-line;
}

@media (max-width: 1000px) {
  .fields {
    grid-template-columns: minmax(0, 1fr);
  }
}

.other {
  margin-right: 1rem;
}

.unknown {
  padding: 0.6rem 0.8rem;
  background: var(--unto-coat-tint);
  border-left: 4px solid var(--unto-coat-line);
}
</style>
