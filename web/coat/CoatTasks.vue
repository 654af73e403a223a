<script setup lang="ts">
import Button from 'primevue/button';
import { computed, defineAsyncComponent, ref, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';
import { themeColours } from '../theme/colours';
import { trendChart } from './trend-chart';
import SectionDrawing from '../section/SectionDrawing.vue';
import { useSection } from '../section/useSection';
import StationBody from '../station/StationBody.vue';
import { useShop } from '../stores/shop';
import { useTicket } from '../stores/ticket';
import FigureTile from '../evidence/FigureTile.vue';
import TaskTabs from '../ui/TaskTabs.vue';
import TileStrip from '../ui/TileStrip.vue';
import LayPanel from './LayPanel.vue';
import PicturePanel from './PicturePanel.vue';
import PictureStage from './PictureStage.vue';
import PlanPanel from './PlanPanel.vue';
import ReadPanel from './ReadPanel.vue';
import StorePanel from './StorePanel.vue';
import TrendPanel from './TrendPanel.vue';
import { useCoat } from './useCoat';
import { usePicture } from './usePicture';
import { useUnits } from '../ui/useUnits';

/** Plan the coat, lay and weigh it, read it, let it dry by the timer, store it; how each hand lays. */
const CoatChart = defineAsyncComponent(() => import('../window/WindowChart.vue'));
const TASKS = [
  { key: 'plan', label: 'Plan' },
  { key: 'lay', label: 'Lay' },
  { key: 'read', label: 'Read' },
  { key: 'picture', label: 'Picture' },
  { key: 'store', label: 'Store' },
  { key: 'trend', label: 'Trend' },
] as const;
const ticket = useTicket();
const shop = useShop();
const units = useUnits();
const router = useRouter();
const coat = useCoat();
const { plan, left, spares, drying, newest } = coat;
const picture = usePicture(() => newest.value?.id ?? null);
const task = ref<(typeof TASKS)[number]['key']>('lay');
const model = useSection('coat');
const lay = useTemplateRef<InstanceType<typeof LayPanel>>('lay');
const trend = useTemplateRef<InstanceType<typeof TrendPanel>>('trend');
const option = computed(() => {
  const shown = trend.value;
  return shown?.points.length && shop.theme
    ? trendChart({ points: shown.points, band: shown.band, units, colours: themeColours() })
    : null;
});
const batch = computed(
  () =>
    `${left.value || 'no'} piece${left.value === 1 ? '' : 's'}${spares.value > 0 ? ` and ${spares.value} spare` : ''}`,
);
</script>

<template>
  <StationBody station="coat">
    <template #left>
      <template v-if="task === 'trend' && option">
        <h2>Films as weighed</h2>
        <CoatChart :option="option" label="Dry films over time against the band; the table beside it holds the same" />
      </template>
      <template v-else-if="task === 'picture' && picture.opened.value">
        <h2>The coat from above</h2>
        <PictureStage :picture="picture" />
      </template>
      <SectionDrawing
        v-else-if="model"
        :model="model"
        :title="drying[0] ? `Section, ${drying[0].label}` : 'Section through the coat'"
      />
      <TileStrip>
        <FigureTile label="lay wet" :figure="plan.wet" test-id="tile-wet" />
        <FigureTile label="dries to" :figure="plan.dry" test-id="tile-dry" />
        <FigureTile :label="`compound for ${batch}`" :figure="plan.mass" test-id="tile-mass" />
        <FigureTile
          label="compound a piece"
          :figure="plan.pricePerPiece"
          :unit="shop.workshop!.currency"
          test-id="tile-price"
        />
        <FigureTile
          label="a square centimetre"
          :figure="plan.pricePerCm2"
          :unit="shop.workshop!.currency"
          :digits="2"
          test-id="tile-area-price"
        />
      </TileStrip>
    </template>
    <TaskTabs v-model="task" :tasks="TASKS" name="coat" />
    <PlanPanel v-if="task === 'plan'" :coat="coat" />
    <LayPanel v-else-if="task === 'lay'" ref="lay" :coat="coat" />
    <ReadPanel v-else-if="task === 'read'" :coat="coat" />
    <PicturePanel v-else-if="task === 'picture'" :picture="picture" />
    <StorePanel v-else-if="task === 'store'" :coat="coat" />
    <TrendPanel v-else ref="trend" :coat="coat" />
    <template #foot>
      <Button
        v-if="task === 'lay'"
        :label="drying.length ? 'Next tray laid' : 'Last stroke laid: start drying'"
        :outlined="drying.length > 0"
        :data-test-id="drying.length ? 'next-tray' : 'start-drying'"
        @click="lay?.startDrying()"
      />
      <Button
        v-if="task !== 'picture'"
        :label="drying.length ? 'Prepare Place meanwhile' : 'Go to Place'"
        :outlined="task !== 'lay' || !drying.length"
        data-test-id="to-place"
        @click="router.push(`/tickets/${ticket.ticket!.id}/place`)"
      />
    </template>
  </StationBody>
</template>
