<script setup lang="ts">
import {
  cellSizeAdvice,
  compoundForJob,
  decisive,
  isVitreous,
  lineOverlap,
  makeFigure,
  settingWords,
  thinSheetFactor,
  USUAL_TRANSFERS,
} from '@unto/core';
import { computed } from 'vue';
import { useTicket } from '../stores/ticket';
import { formatDuration, formatFigure } from '../ui/format';
import GradeMark from '../evidence/GradeMark.vue';
import type { DesignedCoupon } from '../workers/computations';
import { useUnits } from '../ui/useUnits';

/** Figures of a coupon while it is designed, and what to mind about it. */
const props = defineProps<{ made: DesignedCoupon; selected: number }>();
const units = useUnits();
const store = useTicket();
const equipment = store.fitted!;
const design = computed(() => props.made.layout.design);
const cell = computed(() => props.made.layout.cells[props.selected]);
const prediction = computed(() => props.made.predictions[props.selected]);
const spotMm = Math.sqrt(equipment.lens.spotXMm * equipment.lens.spotYMm);
const overlap = computed(() => (cell.value ? lineOverlap(cell.value.intervalMm, spotMm) : 0));
/** How much hotter the sheet runs than a thick piece, over the time of a row. */
const thinSheet = computed(() => {
  if (!cell.value || !prediction.value?.heatIndexK) return 1;
  const { conductivity, diffusivity, thicknessMm } = equipment.substrate;
  const { speedMmPerS } = cell.value;
  const heat = { powerW: prediction.value.powerW, speedMmPerS, radiusMm: spotMm / 2, conductivity, diffusivity };
  return thinSheetFactor(heat, { thicknessMm, historyS: design.value.cell.widthMm / speedMmPerS });
});
const hottest = computed(() => {
  const heats = props.made.predictions.map(({ heatIndexK }) => heatIndexK ?? 0);
  const most = Math.max(0, ...heats);
  return { heat: most, cell: heats.indexOf(most) + 1 };
});
const compound = computed(() => {
  const { compound: chosen } = store;
  if (!chosen) return null;
  const { body } = chosen;
  const { widthMm, heightMm } = design.value.blank;
  return makeFigure({
    formula: 'compoundForJob',
    value: compoundForJob({
      ...body,
      areaMm2: widthMm * heightMm,
      dryFilmUm: (body.dryFilmMinUm + body.dryFilmMaxUm) / 2,
      transfer: USUAL_TRANSFERS[body.application].value,
    }),
    unit: 'g',
    inputs: [decisive('share reaching the part', 'usual', { value: USUAL_TRANSFERS[body.application].value })],
  });
});
const unreachable = computed(() => {
  const reasons = props.made.layout.cells.flatMap(({ unreachableBecause }) => unreachableBecause ?? []);
  return reasons.length
    ? `${reasons.length} crossed cells are left out: the head ${[...new Set(reasons)].join('; ')}.`
    : '';
});
const mind = computed(() => {
  const doses = props.made.predictions.flatMap(({ doseJPerMm2 }) => doseJPerMm2 ?? []).sort((a, b) => a - b);
  const middle = doses[doses.length >> 1] ?? 0;
  const widestIntervalMm = Math.max(...props.made.layout.cells.map(({ intervalMm }) => intervalMm));
  return [
    unreachable.value,
    cellSizeAdvice(design.value, { spotMm, widestIntervalMm }),
    props.made.labelDose < middle
      ? `Labels get ${formatFigure(props.made.labelDose)} J/mm², less than the middle cell: they may go in the scrub. Give them more power or less speed.`
      : '',
    isVitreous(equipment.substrate.family) && !store.compound
      ? 'Bare glass chips before it marks: begin with the weakest cells.'
      : isVitreous(equipment.substrate.family)
        ? 'Glass and ceramic: too much power chips and crazes. Let the blank cool before the rinse; wear eye and hand protection.'
        : '',
  ].filter(Boolean);
});
</script>

<template>
  <dl class="figures">
    <div>
      <dt>cells</dt>
      <dd class="mono" data-test-id="cell-count">{{ made.layout.cells.length }}</dd>
    </div>
    <div>
      <dt>run time</dt>
      <dd class="mono">{{ formatDuration(made.runTimeS) }}</dd>
    </div>
    <div>
      <dt>blank needed</dt>
      <dd class="mono">
        {{ units.size(made.layout.needed.widthMm, made.layout.needed.heightMm, 1) }}
      </dd>
    </div>
    <div v-if="made.runUpMm">
      <dt>run-up beside the cells</dt>
      <dd class="mono">{{ units.figure('length', made.runUpMm, 2) }}</dd>
    </div>
    <div v-if="compound">
      <dt>compound, whole blank</dt>
      <dd class="mono">
        {{ units.figure('mass', compound.value, 2) }} <GradeMark :figure="compound" title="Compound for the blank" />
      </dd>
    </div>
    <div>
      <dt>highest heat index, cell {{ hottest.cell }}</dt>
      <dd class="mono">{{ formatFigure(hottest.heat) }}</dd>
    </div>
    <div v-if="cell && prediction">
      <dt>cell {{ cell.index + 1 }}: {{ settingWords(cell, units.reading.value) }}</dt>
      <dd class="mono" data-test-id="cell-dose">
        {{ prediction.doseJPerMm2 === null ? 'lines' : `${formatFigure(prediction.doseJPerMm2)} J/mm²` }} ·
        {{
          prediction.heatIndexK === null
            ? (cell.unreachableBecause ?? 'does not fire')
            : `heat index ${formatFigure(prediction.heatIndexK)}`
        }}
      </dd>
    </div>
    <div v-if="cell && design.fill === 'filled'">
      <dt>lines overlap</dt>
      <dd class="mono">{{ overlap > 0 ? `${formatFigure(overlap * 100, 2)} %` : 'not at all' }}</dd>
    </div>
    <div v-if="thinSheet > 1.1">
      <dt>thin sheet, runs hotter</dt>
      <dd class="mono">× {{ formatFigure(thinSheet, 2) }}</dd>
    </div>
  </dl>
  <p v-for="text in mind" :key="text" class="mind" data-test-id="design-mind">{{ text }}</p>
</template>

<style scoped>
.figures {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.6rem;
  margin: 0;
}

dt {
  font-size: 0.8rem;
  color: var(--unto-quiet);
}

dd {
  margin: 0;
  font-size: 1.05rem;
}

.mind {
  margin: 0;
  padding: 0.3rem 0.7rem;
  border-left: 4px solid var(--unto-coat-line);
  font-size: 0.92rem;
}
</style>
