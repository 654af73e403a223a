<script setup lang="ts">
import {
  CHOICE_NAMES,
  CHOICES,
  deliveredPower,
  settingFigure,
  settingPrice,
  settingWords,
  type ChoiceKind,
} from '@unto/core';
import type { CreateRecipe } from '@unto/contract';
import { powerSource, settingIn, type WindowFamily } from '@unto/domain';
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
import { formatMoney, formatNumber } from '../ui/format';
import GradeMark from '../evidence/GradeMark.vue';
import PageHead from '../ui/PageHead.vue';
import { useStillHere } from '../ui/useStillHere';
import type { OfferedSetting } from '../workers/computations';
import MapLegend from './MapLegend.vue';
import MapPlace from './MapPlace.vue';
import OddCells from './OddCells.vue';
import SeenCoupons from './SeenCoupons.vue';
import SettingOffer, { type Offer } from './SettingOffer.vue';
import WindowTable from './WindowTable.vue';
import { useNextCoupon } from './useNextCoupon';
import { FIT_SEED, MAP_PARTS, percentFor, powerAxis, useWindow, type MapRest } from './useWindow';

/** The process window of a ticket's pairing and the settings to use on its job. */
const props = defineProps<{ id: string }>();
const units = usePanel(() => store.fitted);
const WindowChart = defineAsyncComponent(() => import('./WindowChart.vue'));
const store = useTicket();
const shop = useShop();
const outbox = useOutbox();
const router = useRouter();
const { families, picked, family, coupons, cells, drawn, cost, fault, busy, refresh, fit } = useWindow(() => props.id);
const rest = shallowRef<MapRest | null>(null);
const takenKind = ref<ChoiceKind>('quickest');
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
  ([now, equipment]) => now && equipment && fit(store.ticket!, equipment, now),
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

/** One offer a setting: what is quickest may be the cheapest as well. */
const offers = computed<Offer[]>(() => {
  const answer = drawn.value?.answer;
  const made: Offer[] = [];
  for (const kind of CHOICES) {
    const choice = answer?.[kind];
    if (!choice) continue;
    const same = made.findIndex((offer) => sameChoice(offer.choice, choice));
    if (same >= 0) made[same] = { ...made[same]!, also: [...made[same]!.also, kind] };
    else made.push({ kind, also: [], choice, price: priceOf(choice) });
  }
  return made;
});
const sameChoice = (a: OfferedSetting, b: OfferedSetting) =>
  a.powerPercent === b.powerPercent && a.speedMmPerS === b.speedMmPerS && isAt(a, restOf(b));
const isAt = (choice: OfferedSetting, place: MapRest) =>
  MAP_PARTS.every((part) => (choice[part] ?? cells.value[0]![part]) === place[part]);
const priceOf = (choice: OfferedSetting) =>
  cost.value ? formatMoney(settingPrice(choice, cost.value), shop.workshop!.currency) : '';
const taken = computed(() => offers.value.find(({ kind }) => kind === takenKind.value) ?? offers.value[0] ?? null);

function figureOf({ worst, proof }: OfferedSetting) {
  const evidence = {
    grade: proof.grade,
    cells: cells.value.length,
    coupons: coupons.value.map(({ id }) => ({ kind: 'coupon', id })),
  };
  return { ...settingFigure({ worst }, evidence), value: worst * 100, unit: 'of 100' };
}
const odd = computed(() => new Set((drawn.value?.odd ?? []).map(({ index }) => index)));
const shownCells = computed(() =>
  cells.value
    .map((cell, index) => ({ ...cell, odd: odd.value.has(index) }))
    .filter((cell) => MAP_PARTS.every((part) => cell[part] === rest.value?.[part])),
);
const { next, onMap, gain, pays, address } = useNextCoupon({ drawn, cells, cost }, { units, rest });
const isShown = (choice: OfferedSetting) => rest.value !== null && isAt(choice, rest.value);
const familyName = ({ fixed, cells: own, couponIds, coats }: WindowFamily) =>
  `${settingWords({ ...fixed, coats: coats || 1 }, units.reading.value) || 'plain'}: ${own.length} cells of ${couponIds.length === 1 ? 'one coupon' : `${couponIds.length} coupons`}`;
const option = computed(() => {
  void shop.theme;
  if (!drawn.value || !store.fitted) return null;
  const { map } = drawn.value;
  const source = powerSource(store.fitted);
  const choice = taken.value?.choice;
  return windowChart({
    map,
    powersPercent: powerAxis(cells.value),
    percentOf: (watts) => percentFor(watts, store.fitted!),
    wattsOf: (percent) => deliveredPower(percent, source),
    cells: shownCells.value,
    next: onMap.value,
    intervalMm: rest.value!.intervalMm,
    passes: rest.value!.passes * rest.value!.hatches,
    setting: choice && isShown(choice) ? choice : null,
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
          <p class="lead">
            Each spot is a setting. <strong>The deeper the green, the surer a mark made there stays on.</strong>
          </p>
          <WindowChart
            class="map"
            :option="option"
            :label="`Chance of holding over speed and power. ${taken ? `${CHOICE_NAMES[taken.kind]}: ${units.text('power', taken.choice.powerPercent)}, ${units.text('speed', taken.choice.speedMmPerS)}.` : ''}`"
            data-test-id="window-map"
          />
          <MapLegend :next="onMap !== null" />
          <SeenCoupons :coupons="coupons" :cells="cells" />
        </template>
      </div>
      <aside class="right">
        <h2>The setting to use</h2>
        <p v-if="drawn && !drawn.answer.quickest" class="warn" role="status">
          No tested setting is sure enough to hold: {{ Math.round(shop.workshop!.bound * 100) }} of 100 are asked at the
          worst of its tolerance. The widest margin below is carried, not proved; the next coupon would settle it.
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
        <p v-for="note in drawn?.notes ?? []" :key="note" class="warn" role="status" data-test-id="fit-note">
          {{ note }}
        </p>
        <OddCells v-if="drawn" :coupons="coupons" :cells="cells" :odd="drawn.odd" />
        <section v-if="next" data-test-id="next-coupon">
          <h2>The next coupon</h2>
          <p>
            24 cells at
            <b class="mono">{{ next.powersPercent.map((power) => units.text('power', power)).join(' to ') }}</b>,
            <b class="mono">{{ next.speedsMmPerS.map((speed) => units.text('speed', speed)).join(' to ') }}</b>,
            {{ units.text('interval', next.rest.intervalMm) }} interval, would tell most. {{ gain }}
          </p>
          <p v-if="pays" class="quiet">{{ pays }}</p>
        </section>
        <p v-else-if="drawn?.answer.quickest" class="small" data-test-id="next-coupon">
          Nothing that was tried is likely to hold quicker: another coupon is not worth its blank.
        </p>
        <p v-if="drawn" class="quiet small">
          At worst: power and focus at the ends of their tolerance, in 95 of 100 draws of the fit.
          {{ cost ? 'A piece’s price here is its blank and the minutes under the head. ' : '' }}How the coat’s thickness
          moves the window is not in it until a coupon varies the coat.
        </p>
        <div class="foot">
          <Button v-if="taken" label="Make it a recipe" data-test-id="make-recipe" @click="makeRecipe" />
          <Button
            outlined
            :label="next ? 'Design that coupon' : 'Another coupon'"
            data-test-id="next-design"
            @click="router.push(address)"
          />
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
  min-height: 0;
  overflow-y: auto;
}

.map {
  flex: 1 0 400px;
}

.lead {
  padding: 0 0.5rem 0.3rem;
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
    overflow-y: visible;
  }

  .right {
    border-left: 0;
  }
}
</style>
