<script setup lang="ts">
import { useQuery } from '@pinia/colada';
import type { Comparison } from '@unto/core';
import type { WindowSummary } from '@unto/contract';
import Button from 'primevue/button';
import { computed, defineAsyncComponent, ref } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import GradeMark from '../evidence/GradeMark.vue';
import { useShop } from '../stores/shop';
import { themeColours } from '../theme/colours';
import ChoiceField from '../ui/ChoiceField.vue';
import { formatDuration, formatNumber, withUnit } from '../ui/format';
import NumberField from '../ui/NumberField.vue';
import PageHead from '../ui/PageHead.vue';
import { comparedText, windowAddress, type Compared } from '../window/address';
import { compareChart } from './compare-chart';
import { comparedIn, letterOf, MOST_COMPARED } from './compared';
import { useCompare, type ComparedRow } from './useCompare';

/** Two to six windows on the same axes: where each holds, how quick each may be, and which is quicker. */
const Chart = defineAsyncComponent(() => import('../window/WindowChart.vue'));
const route = useRoute();
const router = useRouter();
const shop = useShop();
const mark = ref({ widthMm: 40, heightMm: 12 });
const chosen = computed(() => comparedIn(route.query['of']));
const { rows, answers, busy, fault } = useCompare(
  () => chosen.value,
  () => mark.value,
);
const { data: windows } = useQuery({
  key: [...KEYS.windows(), 'list'],
  query: () => api.all('listWindows', {}),
});
const show = (all: readonly Compared[]) => router.replace({ query: { of: all.map(comparedText) } });
const whole = (of: WindowSummary): Compared => ({ ...of, lot: null, coats: null });
const more = computed(() => {
  const named = new Set(chosen.value.map(comparedText));
  return (windows.value ?? [])
    .filter((one) => !named.has(comparedText(whole(one))))
    .map((one) => ({ value: comparedText(whole(one)), label: `${nameOf(one)}, ${shop.nameOf(one.headId)}` }));
});
const nameOf = ({ compoundId, substrateId }: Pick<Compared, 'compoundId' | 'substrateId'>) =>
  `${shop.nameOf(compoundId) || 'No compound'} on ${shop.nameOf(substrateId)}`;

function add(text: string | undefined): void {
  if (text) void show([...chosen.value, ...comparedIn(text)]);
}
const drop = (index: number) => show(chosen.value.filter((_, i) => i !== index));
/** Lots that a window may be told apart by. */
const lotsOf = ({ of, window }: ComparedRow) =>
  of.lot === null ? [...new Set(window.coupons.map(({ lot }) => lot).filter(Boolean))] : [];
const coatsOf = ({ of, window }: ComparedRow) =>
  of.coats === null ? [...new Set(window.cells.flatMap(({ coats }) => coats ?? []))] : [];
function split(index: number, into: readonly Partial<Compared>[]): void {
  void show(chosen.value.flatMap((one, i) => (i === index ? into.map((part) => ({ ...one, ...part })) : [one])));
}

const option = computed(() => {
  void shop.theme;
  if (!answers.value.size) return null;
  const outlines = rows.value.flatMap((row, i) => {
    const answer = answers.value.get(row);
    return answer ? [{ letter: letterOf(i), bands: answer.bands, setting: answer.quickest }] : [];
  });
  return compareChart(outlines, themeColours());
});
const told = computed(() =>
  rows.value.map((row, i) => ({ row, letter: letterOf(i), answer: answers.value.get(row) ?? null })),
);
const first = computed(() => told.value.find(({ answer }) => answer !== null)?.letter ?? 'A');

/** How a window stands to the first, in words. */
function against({ ratio, quicker }: Comparison): string {
  const of = Math.round(quicker * 100);
  if (!ratio) return `one of the two holds too seldom to say; ${of} of 100 that it is quicker`;
  const { low, middle, high } = ratio;
  const number = (value: number) => (Number.isFinite(value) ? formatNumber(value, 2) : 'many');
  const sure = of >= 95 ? 'quicker' : of <= 5 ? 'slower' : 'not told apart';
  return `${sure}: ${number(middle)} times as quick, ${number(low)} to ${number(high)}; quicker ${of} times of 100`;
}
const secondsText = (seconds: number) => (Number.isFinite(seconds) ? formatDuration(seconds) : 'never');
</script>

<template>
  <PageHead title="Compare windows" about="Where each holds, how quick each may be, and which is quicker">
    <RouterLink to="/windows">All windows</RouterLink>
  </PageHead>
  <div class="bar no-print">
    <ChoiceField
      v-if="chosen.length < MOST_COMPARED"
      class="add"
      :model-value="undefined"
      label="Add a window"
      :options="more"
      placeholder="Compound on part, head"
      test-id="compare-add"
      @update:model-value="add"
    />
    <NumberField v-model="mark.widthMm" class="side" label="A mark of" quantity="length" test-id="mark-width" />
    <NumberField v-model="mark.heightMm" class="side" label="by" quantity="length" test-id="mark-height" />
  </div>
  <div class="body">
    <p v-if="!chosen.length" class="quiet">Choose two to six windows: compounds, lots, coats, parts or heads.</p>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <p v-if="busy" class="quiet" role="status">Fitting …</p>
    <div v-if="option" class="plot">
      <Chart
        least="300px"
        :option="option"
        label="Where each window holds, over speed and power at the part"
        data-test-id="compare-chart"
      />
      <p class="quiet small">Inside each line 80 of 100 hold. ◆ its quickest proven setting.</p>
    </div>
    <table v-if="told.length" class="plain" data-test-id="compare-table">
      <thead>
        <tr>
          <th></th>
          <th>Window</th>
          <th class="number">Cells</th>
          <th>Quickest proven setting</th>
          <th>A piece, where 9 of 10 hold</th>
          <th>Against {{ first }}</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="({ row, letter, answer }, i) in told"
          :key="comparedText(row.of)"
          :data-test-id="`compared-${letter}`"
        >
          <td>
            <strong class="mono">{{ letter }}</strong>
          </td>
          <td>
            <RouterLink :to="windowAddress(row.of)">{{ nameOf(row.of) }}</RouterLink><span
              v-if="row.of.lot"
              class="mono"
              >, lot {{ row.of.lot }}</span
            ><span v-if="row.of.coats">, {{ row.of.coats }} coat{{ row.of.coats > 1 ? 's' : '' }}</span>
            <span class="quiet small block">{{ shop.nameOf(row.of.headId) }}, {{ shop.nameOf(row.of.lensId) }}</span>
          </td>
          <td class="number" data-label="cells">{{ row.family?.cells.length ?? 0 }}</td>
          <template v-if="answer">
            <td data-label="quickest proven">
              <template v-if="answer.quickest"
                ><span class="mono"
                  >{{ withUnit(answer.quickest.powerW, 'W', 3) }} ·
                  {{ withUnit(answer.quickest.speedMmPerS, 'mm/s', 3) }} ·
                  {{ withUnit(answer.quickest.intervalMm, 'mm', 3) }}</span
                >
                <span class="block"
                  ><b class="mono">{{ formatDuration(answer.quickest.seconds) }}</b> a piece
                  <GradeMark :grade="answer.quickest.proof.grade" /></span
                ><span v-if="answer.quickest.contrast" class="quiet small block"
                  >contrast {{ Math.round(answer.quickest.contrast.mean) }},
                  {{ Math.round(answer.quickest.contrast.low) }} to
                  {{ Math.round(answer.quickest.contrast.high) }}</span
                ></template
              >
              <span v-else class="quiet">none is sure enough</span>
            </td>
            <td data-label="a piece, where 9 of 10 hold">
              <b class="mono">{{ secondsText(answer.best.middle) }}</b><span class="quiet small block"
                >{{ secondsText(answer.best.low) }} to {{ secondsText(answer.best.high)
                }}{{ answer.times.atEnd > 0.3 ? '; it may hold quicker than was tried' : '' }}</span
              >
            </td>
            <td :data-label="letter === first ? undefined : `against ${first}`">
              <template v-if="letter !== first"
                >{{ against(answer.withFirst)
                }}<span v-if="answer.crossovers.length" class="block small" :data-test-id="`crossover-${letter}`"
                  >Which of them is quicker changes at
                  {{ answer.crossovers.map((watts) => withUnit(watts, 'W', 2)).join(', ') }} at the part.</span
                ></template
              >
            </td>
          </template>
          <td v-else colspan="3" class="quiet">{{ row.family ? 'fitting …' : 'no scrubbed cell' }}</td>
          <td class="acts no-print">
            <Button
              v-if="lotsOf(row).length > 1"
              text
              size="small"
              label="Lot by lot"
              @click="
                split(
                  i,
                  lotsOf(row).map((lot) => ({ lot })),
                )
              "
            />
            <Button
              v-if="coatsOf(row).length > 1"
              text
              size="small"
              label="Coat by coat"
              @click="
                split(
                  i,
                  coatsOf(row).map((coats) => ({ coats })),
                )
              "
            />
            <Button text size="small" label="Take out" :data-test-id="`take-out-${letter}`" @click="drop(i)" />
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="told.length" class="quiet small">
      Times are of the mark above, turnarounds included, at the power that is best for each. An interval holds nine
      times in ten; which is quicker is said once it is so in 95 of 100 draws of both fits.
    </p>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.6rem 1rem;
  padding: 0.5rem 1.5rem;
  background: var(--unto-surface);
  border-bottom: 1px solid var(--unto-rule);
}

.add {
  width: min(26rem, 100%);
}

.side {
  width: 7rem;
}

.body {
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
  padding: 0.8rem 1.5rem 1.5rem;
  overflow-x: auto;
}

.plot :deep(.chart) {
  height: 320px;
}

.plain td {
  vertical-align: top;
}

.block {
  display: block;
}

.acts {
  white-space: nowrap;
}

@media (max-width: 760px) {
  .plain thead {
    display: none;
  }

  .plain tr {
    display: block;
    padding: 0.6rem 0;
    border-bottom: 1px solid var(--unto-rule);
  }

  .plain td {
    display: block;
    border: 0;
    padding: 0.15rem 0;
    text-align: left;
  }

  .plain td.number {
    text-align: left;
  }

  .plain td[data-label]::before {
    content: attr(data-label) ': ';
    color: var(--unto-quiet);
    font-family: 'Atkinson Hyperlegible', sans-serif;
  }
}
</style>
