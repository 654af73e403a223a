<script setup lang="ts">
import { CHOICE_NAMES, deliveredPower, heatIndex, isMeasured, lessonWords, MEASURES, type Mix } from '@unto/core';
import { powerSource, windowEquipment, type FittedEquipment, type WindowFamily } from '@unto/domain';
import Button from 'primevue/button';
import { refDebounced, StorageSerializers, useLocalStorage } from '@vueuse/core';
import { computed, defineAsyncComponent, onMounted, ref, shallowRef, watch } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { themeColours } from '../theme/colours';
import { windowChart } from './window-chart';
import { useShop } from '../stores/shop';
import { useAct } from '../stores/useAct';
import { usePanel } from '../ui/useUnits';
import TicketLine from '../station/TicketLine.vue';
import ChoiceField from '../ui/ChoiceField.vue';
import { formatNumber } from '../ui/format';
import GradeMark from '../evidence/GradeMark.vue';
import PickOne from '../ui/PickOne.vue';
import NumberField from '../ui/NumberField.vue';
import PageHead from '../ui/PageHead.vue';
import { useStillHere } from '../ui/useStillHere';
import type { OfferedSetting } from '../workers/computations';
import CrossSection from './CrossSection.vue';
import MapLegend from './MapLegend.vue';
import MapPlace from './MapPlace.vue';
import NextCoupon from './NextCoupon.vue';
import OwnMix from './OwnMix.vue';
import OddCells from './OddCells.vue';
import SeenCoupons from './SeenCoupons.vue';
import SettingOffer from './SettingOffer.vue';
import WindowRecipes from './WindowRecipes.vue';
import WindowTable from './WindowTable.vue';
import { comparedText, pairingIn, type WindowParams } from './address';
import { familyWords } from './family-words';
import { MAP_WORDS, shownMap } from './map-shown';
import { mainKind } from './main-kind';
import { useBench } from './useBench';
import { useNextCoupon } from './useNextCoupon';
import { useOffers } from './useOffers';
import { recipeBody } from './recipe-body';
import { MAP_PARTS, percentFor, powerAxis, useWindow, type MapRest } from './useWindow';

/** The process window of a pairing, and the settings to use on a job. */
const props = defineProps<WindowParams>();
const route = useRoute();
const router = useRouter();
const shop = useShop();
const pairing = () => pairingIn(props);
const ticketId = () => (typeof route.query['ticket'] === 'string' ? route.query['ticket'] : null);
const bench = useBench(pairing, ticketId);
const { ticket, fitted, compound, mark, typed } = bench;
const units = usePanel(() => fitted.value);
const WindowChart = defineAsyncComponent(() => import('./WindowChart.vue'));
const seen = useWindow(pairing);
const { families, picked, family, coupons, runs, recipes, cells, atFull, drawn, cost, mapOf, field, grid, asked } =
  seen;
const { fault, busy, refresh, fit, map, cut } = seen;
const { offers, taken, takenKind, figureOf } = useOffers({ drawn, cells, coupons, cost });
const rest = shallowRef<MapRest | null>(null);
/** What somebody weighs against what; theirs for all windows. */
const mix = useLocalStorage<Mix | null>('unto-mix', null, { serializer: StorageSerializers.object });
const settledMix = refDebounced(mix, 150);
const asTable = ref(false);

onMounted(async () => {
  await bench.open();
  await refresh();
});
const restOf = (from: MapRest | OfferedSetting): MapRest =>
  Object.fromEntries(MAP_PARTS.map((part) => [part, from[part] ?? cells.value[0]![part]])) as MapRest;
watch(
  family,
  (now, before) => {
    // The same cells weighed otherwise are fitted anew, the map cut where it was.
    if (before && now?.cells.length === before.cells.length && now.couponIds.join() === before.couponIds.join()) {
      return;
    }
    drawn.value = null;
    rest.value = now ? restOf(now.cells[0]!) : null;
  },
  { immediate: true },
);
watch(
  [family, fitted, mark, settledMix, () => ticketId() === null || ticket.value !== null],
  ([now, equipment, of, weights, ready]) =>
    now &&
    equipment &&
    ready &&
    fit({ ...of, tone: ticket.value?.aim.tone }, equipment, weights ? { ...weights } : null),
  { immediate: true, deep: true },
);
watch(drawn, (now, before) => {
  if (!before && now && taken.value) rest.value = restOf(taken.value.choice);
});
watch([drawn, rest], ([now, place]) => now && place && fitted.value && cut(place, fitted.value));

const isAt = (choice: OfferedSetting, place: MapRest) =>
  MAP_PARTS.every((part) => (choice[part] ?? cells.value[0]![part]) === place[part]);
const odd = computed(() => new Set((drawn.value?.odd ?? []).map(({ index }) => index)));
/** Where the map on screen is cut: another place that was asked for is drawn once its fit is there. */
const mapRest = computed(() => (grid.value?.rest as MapRest | undefined) ?? rest.value);
const shownCells = computed(() =>
  cells.value
    .map((cell, index) => ({ ...cell, odd: odd.value.has(index) }))
    .filter((cell) => MAP_PARTS.every((part) => cell[part] === mapRest.value?.[part])),
);
const next = useNextCoupon({ drawn, cells, cost, asked }, { units, rest: mapRest, bench });
const familyName = (one: WindowFamily) =>
  `${familyWords(one, units)}: ${one.cells.length} cells of ${one.couponIds.length === 1 ? 'one coupon' : `${one.couponIds.length} coupons`}`;
const shown = computed(() => map.value && shownMap(map.value, field.value));
const mapsOf = computed(() =>
  (['chance', ...MEASURES] as const)
    .filter((of) => of === 'chance' || isMeasured(cells.value, of))
    .map((value) => ({ value, label: MAP_WORDS[value].label })),
);
/** Heat index of one W at a speed on this part under this spot. */
const heatPerWatt = (equipment: FittedEquipment) => (speedMmPerS: number) =>
  heatIndex({ ...windowEquipment(equipment), powerW: 1, speedMmPerS });
const option = computed(() => {
  void shop.theme;
  if (!shown.value || !fitted.value) return null;
  const source = powerSource(fitted.value);
  const choice = taken.value?.choice;
  return windowChart({
    ...shown.value,
    powersPercent: powerAxis(cells.value),
    percentOf: (watts) => percentFor(watts, fitted.value!),
    wattsOf: (percent) => deliveredPower(percent, source),
    cells: shownCells.value,
    next: next.onMap.value,
    intervalMm: mapRest.value!.intervalMm,
    passes: mapRest.value!.passes * mapRest.value!.hatches,
    setting: choice && isAt(choice, mapRest.value!) ? choice : null,
    powerShare: shop.workshop!.tolerancePower,
    heatOf: heatPerWatt(fitted.value),
    units,
    colours: themeColours(),
  });
});

const { act } = useAct();
const stillHere = useStillHere();

/** Accepts the taken setting as a recipe of the pairing; a ticket takes it into use at once. */
async function makeRecipe(): Promise<void> {
  const body = recipeBody({
    ...{ pairing: pairing(), ticket: ticket.value, mark: mark.value, family: family.value!, atFull: atFull.value },
    ...{ choice: taken.value!.choice, kind: mainKind(taken.value!) },
  });
  const answer = await act('createRecipe', { body }, 'a recipe');
  if (answer && stillHere())
    await router.push(ticket.value ? `/tickets/${ticket.value.id}/mark` : `/recipes/${answer.id}`);
}
</script>

<template>
  <template v-if="fitted && (ticketId() === null || ticket)">
    <PageHead
      :title="`${compound?.body.name ?? 'No compound'} on ${fitted.substrate.name}`"
      :about="`${fitted.head.name}, ${fitted.lens.name} · ${coupons.length} coupon${coupons.length === 1 ? '' : 's'}, ${cells.length - runs.length} cells${runs.length ? `, ${runs.length} run${runs.length === 1 ? '' : 's'}` : ''}`"
      ><RouterLink
        :to="{ path: '/compare', query: { of: comparedText({ ...pairing(), lot: null, coats: null }) } }"
        data-test-id="compare"
        >Compare</RouterLink
      ><RouterLink
        :to="{ path: `${route.path}/match`, query: ticket ? { ticket: ticket.id } : {} }"
        data-test-id="match-piece"
        >Match a piece</RouterLink
      ></PageHead
    >
    <TicketLine v-if="ticket" :ticket-id="ticket.id" class="no-print" />
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
      <span v-if="ticket" class="quiet small"
        >for {{ ticket.title }}, {{ units.size(mark.widthMm, mark.heightMm) }}</span
      >
      <span v-else class="mark" data-test-id="typed-mark">
        <NumberField v-model="typed.widthMm" class="side" label="A mark of" quantity="length" test-id="mark-width" />
        <NumberField v-model="typed.heightMm" class="side" label="by" quantity="length" test-id="mark-height" />
      </span>
      <span class="quiet small"
        >power ± {{ formatNumber(shop.workshop!.tolerancePower * 100) }} %, focus ±
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
    <div class="window" :aria-busy="busy">
      <div class="left">
        <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
        <p v-if="!cells.length && !busy" class="empty">
          No scrubbed cell for this pairing yet. Scrub a coupon and enter its cells.
        </p>
        <WindowTable v-if="asTable" :cells="cells" />
        <template v-else-if="option">
          <div class="lead">
            <p v-if="mapOf === 'chance'">
              Each spot is a setting. <strong>The deeper the green, the surer a mark made there stays on.</strong>
            </p>
            <p v-else>
              Each spot is a setting. <strong>The deeper the green, the more {{ MAP_WORDS[mapOf].unit }}</strong> its
              marks read in pictures.
            </p>
            <PickOne v-if="mapsOf.length > 1" v-model="mapOf" bare label="Map of" :options="mapsOf" test-id="map-of" />
          </div>
          <WindowChart
            class="map"
            :option="option"
            :label="`Chance of holding over speed and power; + and − zoom, arrows move, 0 shows all. ${taken ? `${CHOICE_NAMES[taken.kind]}: ${units.text('power', taken.choice.powerPercent)}, ${units.text('speed', taken.choice.speedMmPerS)}.` : ''}`"
            data-test-id="window-map"
          />
          <MapLegend :next="next.onMap.value !== null" :levels="shown!.levels" :unit="MAP_WORDS[mapOf].unit" />
          <CrossSection
            v-if="taken && drawn && mapRest && isAt(taken.choice, mapRest)"
            :fit="drawn.fit"
            :cells="shownCells"
            :rest="mapRest"
            :equipment="fitted"
            :through="taken.choice"
          />
          <SeenCoupons
            v-model:at-full="atFull"
            :coupons="coupons"
            :runs="runs"
            :cells="cells"
            :effects="drawn?.seen ?? []"
            :lessons="drawn ? lessonWords(drawn.fit.lessons) : []"
          />
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
        <OwnMix v-if="drawn?.answer.quickest" v-model="mix" />
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
        <NextCoupon v-if="drawn" :next="next" :proven="drawn.answer.quickest !== null" />
        <WindowRecipes v-if="recipes.length" :recipes="recipes" />
        <p v-if="drawn" class="quiet small">
          At worst: power and focus at the ends of their tolerance, in 95 of 100 draws of the fit.
          {{ cost ? 'A piece’s price here is its blank and the minutes under the head. ' : ''
          }}{{
            family?.varied.includes('coats')
              ? ''
              : 'How the coat’s thickness moves the window is not in it until a coupon varies the coats.'
          }}
        </p>
        <div class="foot">
          <Button v-if="taken" label="Make it a recipe" data-test-id="make-recipe" @click="makeRecipe" />
          <Button
            outlined
            :label="!ticket ? 'Coupon on a new ticket' : next.next.value ? 'Design that coupon' : 'Another coupon'"
            data-test-id="next-design"
            @click="router.push(next.address.value)"
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
  gap: 0.4rem 1rem;
  padding: 0.4rem 1.5rem;
  background: var(--unto-surface);
  border-bottom: 1px solid var(--unto-rule);
  min-height: 52px;
}

.families {
  width: 20rem;
}

.mark {
  display: flex;
  gap: 0.5rem;
}

.side {
  width: 7rem;
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
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 0.2rem 1rem;
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

/* All maps stay in reach on a narrow page. */
.lead :deep(.p-selectbutton) {
  flex-wrap: wrap;
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
