<script setup lang="ts">
import { crossSection, deliveredPower, type WindowFit } from '@unto/core';
import { powerSource, type CouponWindowCell, type FittedEquipment } from '@unto/domain';
import { computed, defineAsyncComponent, ref } from 'vue';
import { useShop } from '../stores/shop';
import { themeColours } from '../theme/colours';
import PickOne from '../ui/PickOne.vue';
import { useUnits } from '../ui/useUnits';
import { sectionChart, type CutAlong } from './section-chart';
import { percentFor, powerAxis, speedAxis, type MapRest } from './useWindow';

/** A cut through the window along speed or power, the other standing at the setting: the chance of holding with its band. */
const props = defineProps<{
  fit: WindowFit;
  cells: readonly CouponWindowCell[];
  rest: MapRest;
  equipment: FittedEquipment;
  /** Where the cut goes through. */
  through: { readonly powerW: number; readonly powerPercent: number; readonly speedMmPerS: number };
}>();
const Chart = defineAsyncComponent(() => import('./WindowChart.vue'));
const units = useUnits();
const shop = useShop();
const along = ref<CutAlong>('speed');
const WAYS = [
  { value: 'speed', label: 'along speed' },
  { value: 'power', label: 'along power' },
] as const;
const source = computed(() => powerSource(props.equipment));
const points = computed(() =>
  along.value === 'speed'
    ? speedAxis(props.cells).map((speedMmPerS) => ({ ...props.rest, powerW: props.through.powerW, speedMmPerS }))
    : powerAxis(props.cells).map((percent) => ({
        ...props.rest,
        powerW: Math.max(0.01, deliveredPower(percent, source.value)),
        speedMmPerS: props.through.speedMmPerS,
      })),
);
const percentOf = (powerW: number) => percentFor(powerW, props.equipment) ?? 100;
const at = ({ powerW, speedMmPerS }: { powerW: number; speedMmPerS: number }) =>
  along.value === 'speed' ? units.read('speed', speedMmPerS).value : units.read('power', percentOf(powerW)).value;
/** Cells within a tenth of the cut, or a quarter of its speed. */
const near = computed(() => {
  const { powerW, speedMmPerS } = props.through;
  return props.cells.filter((cell) =>
    along.value === 'speed' ? apart(cell.powerW, powerW) < 0.1 : apart(cell.speedMmPerS, speedMmPerS) < 0.25,
  );
});
const apart = (a: number, b: number) => Math.abs(Math.log(a / b));
const option = computed(() => {
  void shop.theme;
  return sectionChart({
    points: crossSection(props.fit, points.value),
    at,
    axis: `${along.value}, ${units.unit(along.value)}`,
    cells: near.value,
    colours: themeColours(),
  });
});
const stands = computed(() =>
  along.value === 'speed'
    ? units.text('power', props.through.powerPercent)
    : units.text('speed', props.through.speedMmPerS),
);
</script>

<template>
  <section class="cut" data-test-id="cross-section">
    <div class="head">
      <p>
        Cut through the window at <b class="mono">{{ stands }}</b>: the chance of holding, and where it lies nine times
        in ten.
      </p>
      <PickOne v-model="along" bare label="Cut" :options="WAYS" test-id="cut" />
    </div>
    <div class="plot">
      <Chart least="210px" :option="option" :label="`Chance of holding along ${along} at ${stands}`" />
    </div>
  </section>
</template>

<style scoped>
.cut {
  padding: 0.6rem 0.5rem;
}

.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 0.2rem 1rem;
}

.plot {
  height: 210px;
}
</style>
