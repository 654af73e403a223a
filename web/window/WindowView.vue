<script setup lang="ts">
import { settingFigure, settingWords } from '@unto/core';
import type { CreateRecipe } from '@unto/contract';
import { settingIn, type WindowFamily } from '@unto/domain';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, defineAsyncComponent, onMounted, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { ApiProblem } from '../api/client';
import { themeColours } from '../theme/colours';
import { windowChart } from './window-chart';
import { useShop } from '../stores/shop';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import { usePanel } from '../ui/useUnits';
import { useTicket } from '../stores/ticket';
import TicketLine from '../station/TicketLine.vue';
import ChoiceField from '../ui/ChoiceField.vue';
import { formatNumber } from '../ui/format';
import GradeMark from '../evidence/GradeMark.vue';
import PageHead from '../ui/PageHead.vue';
import { useStillHere } from '../ui/useStillHere';
import type { OfferedSetting } from '../workers/computations';
import MapPlace from './MapPlace.vue';
import SettingOffer, { type Offer } from './SettingOffer.vue';
import WindowTable from './WindowTable.vue';
import { FIT_SEED, MAP_PARTS, percentFor, powerAxis, useWindow, type MapRest } from './useWindow';

/** The process window of a ticket's pairing and the settings to use on its job. */
const props = defineProps<{ id: string }>();
const units = usePanel(() => store.fitted);
const WindowChart = defineAsyncComponent(() => import('./WindowChart.vue'));
const store = useTicket();
const shop = useShop();
const outbox = useOutbox();
const router = useRouter();
const { families, picked, family, coupons, cells, drawn, fault, busy, refresh, fit } = useWindow(() => props.id);
const rest = shallowRef<MapRest | null>(null);
const takenKind = ref<'quickest' | 'widest'>('quickest');
const asTable = ref(false);

onMounted(async () => {
  if (store.ticket?.id !== props.id) await store.open(props.id);
  await refresh();
});
const restOf = (from: MapRest | OfferedSetting): MapRest =>
  Object.fromEntries(MAP_PARTS.map((part) => [part, from[part] ?? cells.value[0]![part]])) as MapRest;
watch(
  family,
  (now) => {
    drawn.value = null;
    rest.value = now ? restOf(now.cells[0]!) : null;
  },
  { immediate: true },
);
watch(
  [rest, () => store.ticket?.id === props.id && store.fitted],
  ([now, fitted]) => now && fitted && fit(store.ticket!, fitted, shop.workshop!, now),
  { immediate: true },
);
watch(
  () => drawn.value?.answer,
  (answer, before) => {
    if (before || !answer) return;
    takenKind.value = answer.quickest ? 'quickest' : 'widest';
    const best = answer.quickest ?? answer.widest;
    if (best) rest.value = restOf(best);
  },
);

const offers = computed<Offer[]>(() => {
  const { quickest = null, widest = null } = drawn.value?.answer ?? {};
  return [
    ...(quickest ? [{ kind: 'quickest' as const, title: 'Quickest that holds', choice: quickest }] : []),
    ...(widest ? [{ kind: 'widest' as const, title: 'Widest margin', choice: widest }] : []),
  ];
});
const taken = computed(() => offers.value.find(({ kind }) => kind === takenKind.value) ?? offers.value[0] ?? null);

function figureOf({ worst, proof }: OfferedSetting) {
  const evidence = {
    grade: proof.grade,
    cells: cells.value.length,
    coupons: coupons.value.map(({ id }) => ({ kind: 'coupon', id })),
  };
  return { ...settingFigure({ worst }, evidence), value: worst * 100, unit: 'of 100' };
}
const shownCells = computed(() =>
  cells.value.filter((cell) => MAP_PARTS.every((part) => cell[part] === rest.value?.[part])),
);
const isShown = (choice: OfferedSetting) =>
  MAP_PARTS.every((part) => (choice[part] ?? null) === (rest.value?.[part] ?? null));
const familyName = ({ fixed, cells: own, couponIds, coats }: WindowFamily) =>
  `${settingWords({ ...fixed, coats: coats || 1 }, units.reading.value) || 'plain'}: ${own.length} cells of ${couponIds.length === 1 ? 'one coupon' : `${couponIds.length} coupons`}`;
const option = computed(() => {
  void shop.theme;
  if (!drawn.value || !store.fitted) return null;
  const { map } = drawn.value;
  const inPercent = (watts: readonly number[]) => watts.map((watt) => percentFor(watt, store.fitted!));
  const choice = taken.value?.choice;
  return windowChart({
    map,
    powersPercent: powerAxis(cells.value),
    lowerPercent: inPercent(map.lowerW),
    upperPercent: inPercent(map.upperW),
    cells: shownCells.value,
    setting:
      choice && isShown(choice)
        ? {
            ...choice,
            label: taken.value!.title.toLowerCase(),
          }
        : null,
    powerShare: shop.workshop!.tolerancePower,
    units,
    colours: themeColours(),
  });
});

const stillHere = useStillHere();

async function makeRecipe(): Promise<void> {
  const { choice, kind } = taken.value!;
  const { powerW: _powerW, ...setting } = settingIn(family.value!, choice);
  const body: CreateRecipe = {
    id: uuid(),
    ticketId: props.id,
    kind,
    couponIds: coupons.value.map(({ id }) => id),
    ...setting,
    seed: FIT_SEED,
  };
  try {
    const answer = await outbox.send('createRecipe', { body }, 'a recipe');
    if (answer && stillHere()) await router.push(`/tickets/${props.id}/mark`);
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    useNotices().say(error.problem.faults?.[0]?.message ?? error.problem.detail, 'danger');
  }
}
</script>

<template>
  <template v-if="store.ticket && store.fitted">
    <PageHead
      :title="`${store.compound?.body.name ?? 'No compound'} on ${store.fitted.substrate.name}`"
      :about="`${store.fitted.head.name}, ${store.fitted.lens.name} · ${coupons.length} coupon${coupons.length === 1 ? '' : 's'}, ${cells.length} scrubbed cells`"
    />
    <TicketLine :ticket-id="id" class="no-print" />
    <div class="bar">
      <ChoiceField
        v-if="families.length > 1"
        v-model="picked"
        class="families"
        label="Cells that go together"
        :options="families.map((each, value) => ({ value, label: familyName(each) }))"
        test-id="window-family"
      />
      <MapPlace v-if="family && rest" v-model="rest" :family="family" />
      <span class="quiet small"
        >for {{ store.ticket.title }}, {{ units.size(store.ticket.markWidthMm, store.ticket.markHeightMm) }} · power ±
        {{ formatNumber(shop.workshop!.tolerancePower * 100) }} %, focus ±
        {{ units.text('length', shop.workshop!.toleranceFocusMm) }}</span
      >
      <Button
        class="table"
        text
        size="small"
        :label="asTable ? 'Show the map' : 'Show as a table'"
        data-test-id="window-table"
        @click="asTable = !asTable"
      />
    </div>
    <div class="window">
      <div class="left">
        <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
        <p v-if="!cells.length && !busy" class="empty">
          No scrubbed cell for this pairing yet. Scrub a coupon and enter its cells.
        </p>
        <WindowTable v-if="asTable" :cells="cells" />
        <template v-else-if="option">
          <WindowChart
            class="map"
            :option="option"
            :label="`Chance of holding over speed and power. ${taken ? `${taken.title}: ${units.text('power', taken.choice.powerPercent)}, ${units.text('speed', taken.choice.speedMmPerS)}.` : ''}`"
            data-test-id="window-map"
          />
          <p class="legend quiet small">
            <span>● holds</span><span>○ too little</span><span>✕ too much</span><span>green: chance of holding</span
            ><span>lines: even bet</span>
          </p>
        </template>
      </div>
      <aside class="right">
        <h2>The setting to use</h2>
        <p v-if="drawn && !drawn.answer.quickest" class="warn" role="status">
          No tested setting meets the bound: {{ Math.round(shop.workshop!.bound * 100) }} of 100 in the worst case. The
          widest margin below is carried, not proved; another coupon would settle it.
        </p>
        <SettingOffer
          v-for="offer in offers"
          :key="offer.kind"
          :offer="offer"
          :figure="figureOf(offer.choice)"
          :taken="taken?.kind === offer.kind"
          @take="takenKind = offer.kind"
        />
        <div v-if="taken" class="evidence">
          <GradeMark :figure="figureOf(taken.choice)" title="Share that holds in the worst case" /><span
            class="quiet small"
            >what this rests on</span
          >
        </div>
        <p v-if="taken?.choice.proof.because.length" class="quiet small" data-test-id="proof-because">
          {{ taken.choice.proof.grade === 'carried' ? 'Not proved' : 'Not from pictures alone' }}:
          {{ taken.choice.proof.because.join('; ') }}.
        </p>
        <p v-if="drawn" class="quiet small">
          Worst case: power and focus at the ends of their tolerance, and the fit at its 5th percentile of
          {{ drawn.fit.drawCount }} draws. How the coat’s thickness moves the window is not in it until a coupon varies
          the coat.
        </p>
        <div class="foot">
          <Button v-if="taken" label="Make it a recipe" data-test-id="make-recipe" @click="makeRecipe" />
          <Button outlined label="Another coupon" @click="router.push(`/tickets/${id}/prove`)" />
        </div>
      </aside>
    </div>
  </template>
  <p v-else class="empty quiet">Opening the window …</p>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 1rem;
  padding: 0.4rem 1.5rem;
  background: var(--unto-surface);
  border-bottom: 1px solid var(--unto-rule);
  min-height: 52px;
}

.families {
  width: 20rem;
}

.table {
  margin-left: auto;
}

.window {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 400px;
  grid-template-rows: minmax(0, 1fr);
  min-height: 0;
}

.left {
  display: flex;
  flex-direction: column;
  padding: 0.6rem 1rem 0.6rem 1.2rem;
  min-width: 0;
  min-height: 460px;
}

.map {
  flex: 1;
}

.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1.4rem;
  padding-left: 4rem;
}

.right {
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
  padding: 0.9rem 1.3rem 1rem;
  background: var(--unto-surface);
  border-left: 1px solid var(--unto-rule);
  overflow-y: auto;
}

.evidence {
  display: flex;
  gap: 0.6rem;
  align-items: baseline;
}

.warn {
  padding: 0.5rem 0.7rem;
  border-left: 4px solid var(--unto-coat-line);
  background: var(--unto-coat-tint);
  font-size: 0.92rem;
}

.foot {
  margin-top: auto;
  display: flex;
  gap: 0.6rem;
}

.foot :deep(.p-button) {
  flex: 1;
}

.empty {
  padding: 2rem 0.5rem;
}

@media (max-width: 900px) {
  .window {
    grid-template-columns: minmax(0, 1fr);
  }

  .left {
    height: 480px;
  }

  .right {
    border-left: 0;
  }
}
</style>
