<script setup lang="ts">
import { CRITERION_INFO, type Criterion, type RankedOption } from '@unto/core';
import type { ChoiceOptionView } from '@unto/contract';
import { computed } from 'vue';
import { useShop } from '../stores/shop';
import GradeMark from '../evidence/GradeMark.vue';
import { cellText, handlingText } from './cell-text';
import { scoreFigure } from './score-figure';
import ValueScoreBar from './ValueScoreBar.vue';

/** One option over the common axes: each criterion with its range, its number and grade, and the score with its own range. */
const picked = defineModel<string | null>({ required: true });
const props = defineProps<{
  row: RankedOption;
  view: ChoiceOptionView;
  criteria: readonly Criterion[];
  best: Partial<Record<Criterion, string>>;
  dominator: string;
}>();
const shop = useShop();
const compound = computed(() => shop.item('compound', props.view.compoundId));
const cells = computed(() =>
  props.criteria.map((criterion) => {
    const estimate = props.view.estimates[criterion];
    const term = props.row.terms.find((entry) => entry.criterion === criterion)!;
    const words =
      criterion === 'handling'
        ? handlingText(compound.value?.body ?? null)
        : cellText(estimate, shop.workshop!.currency);
    return { criterion, estimate, term, words, best: props.best[criterion] === props.view.id };
  }),
);
/** What would put a number where there is a range. */
function filledBy(wanted: string): string {
  if (wanted === 'not scored') return `Score ${props.view.name} in Stores`;
  const what = wanted === 'coupon needed' ? 'A scrubbed coupon and a judged run' : 'A judged run';
  return `${what} of ${props.view.name} on this substrate under this head and lens would fill it`;
}
const score = computed(() => scoreFigure(props.row));
const standing = computed(() => {
  if (props.view.coupons)
    return `${props.view.coupons} coupon${props.view.coupons > 1 ? 's' : ''}, ${props.view.runs} runs here`;
  if (props.view.runs) return `${props.view.runs} runs here, no coupon`;
  return props.view.runsNear ? `${props.view.runsNear} runs nearby, none here` : 'never marked here';
});
</script>

<template>
  <tr :class="{ picked: picked === view.id, first: row.rank === 1 }" :data-test-id="`option-${view.name}`">
    <th scope="row">
      <label class="pick">
        <input v-model="picked" type="radio" name="option" :value="view.id" />
        <span>
          <strong>{{ view.name }}</strong>
          <span v-if="view.offLabel" class="flag">off its label</span>
          <span v-else-if="view.judgement.verdict === 'warned'" class="flag">with doubts</span>
          <span class="quiet about">{{ view.about }} · {{ standing }}</span>
          <span v-if="dominator" class="quiet about">never better than {{ dominator }}</span>
        </span>
      </label>
    </th>
    <td v-for="cell in cells" :key="cell.criterion" class="cell">
      <div class="plot">
        <ValueScoreBar
          :value-score="cell.term.valueScore"
          :low="cell.term.valueScoreLow"
          :high="cell.term.valueScoreHigh"
          :known="cell.estimate.figure !== null"
          :best="cell.best"
        />
      </div>
      <GradeMark
        v-if="cell.estimate.figure"
        short
        class="value mono"
        :figure="cell.estimate.figure"
        :title="`${view.name}: ${CRITERION_INFO[cell.criterion].label}`"
        ><span>{{ cell.words }} <strong v-if="cell.best" class="win">best</strong></span></GradeMark
      >
      <span v-else class="value mono wanted" :title="filledBy(cell.words)">{{ cell.words }}</span>
    </td>
    <td class="score">
      <GradeMark short class="mono big" :figure="score" :title="`${view.name}: score`">{{
        Math.round(row.score)
      }}</GradeMark>
      <span class="mono quiet range">{{ Math.round(row.low) }}–{{ Math.round(row.high) }}</span>
      <span v-if="row.rank === 1" class="win">first</span>
    </td>
  </tr>
</template>

<style scoped>
th,
td {
  padding: 0.32rem 0.4rem 0.3rem 0;
  border-bottom: 1px solid var(--unto-rule);
  vertical-align: top;
  font-weight: 400;
  text-align: left;
}

tr.picked th,
tr.picked td {
  background: var(--unto-surface);
}

tr.picked th {
  box-shadow: inset 4px 0 0 var(--unto-action);
}

.pick {
  display: flex;
  gap: 0.55rem;
  padding-left: 0.7rem;
  cursor: pointer;
}

.pick input {
  flex: none;
  width: 1.15rem;
  height: 1.15rem;
  margin-top: 0.15rem;
  accent-color: var(--unto-action);
}

.about {
  display: block;
  font-size: 0.78rem;
  line-height: 1.25;
}

.flag {
  margin-left: 0.3rem;
  padding: 0 0.3rem;
  font-size: 0.76rem;
  color: var(--unto-coat);
  border: 1px solid var(--unto-coat-line);
  border-radius: 3px;
  white-space: nowrap;
}

.plot {
  position: relative;
  height: 16px;
}

.value {
  font-size: 0.78rem;
  white-space: normal;
  align-items: baseline;
  text-align: left;
}

.wanted {
  display: block;
  font-size: 0.74rem;
  line-height: 1.2;
  color: var(--unto-coat);
}

.win {
  color: var(--unto-bonded);
  font-weight: 700;
  font-family: inherit;
}

.score {
  text-align: right;
  white-space: nowrap;
  padding-right: 0.2rem;
}

.score .big {
  display: flex;
  width: 100%;
  justify-content: flex-end;
  color: var(--unto-ink);
  font-size: 1.35rem;
  line-height: 1.1;
}

.range {
  font-size: 0.78rem;
}

.score .win {
  display: block;
  font-size: 0.8rem;
  line-height: 1;
}
</style>
