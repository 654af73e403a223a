<script setup lang="ts">
import { CORE_READING, CoreError, decodeTable, STAGES, type Outcome, type Stage } from '@unto/core';
import Button from 'primevue/button';
import { computed, ref, toRef, watch } from 'vue';
import TicketLine from '../station/TicketLine.vue';
import { RouterLink, useRouter } from 'vue-router';
import { windowAddress } from '../window/address';
import type { Coupon } from '@unto/contract';
import { newestOutcomes } from '@unto/domain';
import BurnPanel from './BurnPanel.vue';
import CodeAsked from './CodeAsked.vue';
import CellPanel from './CellPanel.vue';
import CouponFiles from './CouponFiles.vue';
import CouponGrid from './CouponGrid.vue';
import EyePanel from './EyePanel.vue';
import KeptMap from './KeptMap.vue';
import MeasureMaps from './MeasureMaps.vue';
import OutcomeButtons from './OutcomeButtons.vue';
import PictureHandles from './PictureHandles.vue';
import RulesPanel from './RulesPanel.vue';
import { useCoupon } from './useCoupon';
import { useOutcomes } from './useOutcomes';
import { useShop } from '../stores/shop';
import BringPicture from '../pictures/BringPicture.vue';
import PageHead from '../ui/PageHead.vue';
import { provideReading } from '../ui/useUnits';
import PickOne from '../ui/PickOne.vue';
import { valueOf } from '../workers/computations';

/** A coupon: burn it, picture and read its cells after the rinse and after the scrub, export and import. */
const props = defineProps<{ id: string }>();
const shop = useShop();
const router = useRouter();
const {
  coupon,
  made,
  fitted,
  tone,
  stage,
  fault,
  worker,
  pictures,
  eye,
  pending,
  adopt,
  markBurnt,
  keepMarks,
  keepPicture,
} = useCoupon(toRef(props, 'id'));
/** Everything here reads as the labels on the blank do. */
provideReading(computed(() => coupon.value?.design.labels.reading ?? CORE_READING));
const STAGE_WORDS = { rinsed: 'Rinsed', scrubbed: 'Scrubbed' } as const;
const selected = ref(0);
const brush = ref<Outcome>('holds');
const mode = ref<'cells' | 'handles' | 'measures'>('cells');

const open = computed(() => pictures.pictures[stage.value]);
/** A picture that is not kept yet, of which the code cannot be told. */
const codeAsked = computed(() => Boolean(open.value?.entries?.code.includes('?') && !open.value.keptAs));
const entries = computed(() => ({
  rinsed: pictures.pictures.rinsed?.entries ?? null,
  scrubbed: pictures.pictures.scrubbed?.entries ?? null,
}));
/** What lies on the table: the cells of a stage, or its measures. */
const shownStage = computed<Stage | 'measures'>({
  get: () => (mode.value === 'measures' ? 'measures' : stage.value),
  set(wanted) {
    if (wanted !== 'measures') stage.value = wanted;
    mode.value = wanted === 'measures' ? 'measures' : 'cells';
  },
});
const views = computed(() => [
  ...STAGES.map((value) => ({ value, label: STAGE_WORDS[value] })),
  ...(entries.value.rinsed || entries.value.scrubbed ? [{ value: 'measures' as const, label: 'Measures' }] : []),
]);
const typicalPrint = computed(
  () => open.value?.entries && (open.value.entries.print?.basis ?? 'typical') === 'typical',
);
const placing = computed(() => open.value?.photo && mode.value === 'handles');
// A coupon that was not found asks for its handles, and keeps them until somebody is content.
watch(
  () => open.value?.sure === false,
  (lost) => lost && (mode.value = 'handles'),
);
/** The photograph of a kept picture is opened only when its corners are to be moved. */
async function moveHandles(): Promise<void> {
  if (mode.value === 'handles') mode.value = 'cells';
  else {
    await pictures.reopen(stage.value);
    mode.value = 'handles';
  }
}
const ticketTo = computed(() => (coupon.value?.ticketId ? `/tickets/${coupon.value.ticketId}/prove` : '/coupons'));
const outcomes = useOutcomes({ made, stage, pictures, eye, selected, brush });
const { readsPicture, shown, unreadable, taken, proposed, reasonsMissing, grade, about, mark, rest } = outcomes;

async function keepByEye(): Promise<void> {
  const at = stage.value;
  if ((await keepMarks('entered', eye.changed.value, at)) && at === 'rinsed') stage.value = 'scrubbed';
}

async function keepReadings(): Promise<void> {
  const at = stage.value;
  if (!(await keepPicture())) return;
  mode.value = 'cells';
  if (at === 'rinsed') stage.value = 'scrubbed';
  else await toWindow();
}

/** The window that its cells bear on, for the job of its ticket. */
const toWindow = () => router.push(windowAddress(coupon.value!, coupon.value!.ticketId));

async function importTable(file: File): Promise<void> {
  fault.value = '';
  try {
    const text = decodeTable(new Uint8Array(await file.arrayBuffer()));
    const rows = valueOf(await worker.core.readTable({ text, layout: made.value!.layout }));
    for (const at of STAGES) {
      const before = newestOutcomes(coupon.value!, at);
      const found = rows.flatMap((row) =>
        row[at] && before.get(row.cell) !== row[at] ? [{ cell: row.cell, outcome: row[at]! }] : [],
      );
      if (found.length) await keepMarks('csv', found, at);
    }
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    fault.value = error.message;
  }
}

const changedByServer = (found: Coupon) => adopt(found);
</script>

<template>
  <PageHead
    v-if="coupon"
    :title="`Coupon ${coupon.design.code}`"
    :about="`${shop.nameOf(coupon.substrateId)} · ${shop.nameOf(coupon.compoundId) || 'no compound'} · ${shop.nameOf(coupon.headId)}, ${shop.nameOf(coupon.lensId)}`"
  >
    <RouterLink v-if="coupon.burntAt && coupon.ticketId" :to="`/faults/coupon/${coupon.id}`" data-test-id="find-fault"
      >Find the fault</RouterLink
    >
    <RouterLink :to="ticketTo">its ticket</RouterLink>
  </PageHead>
  <TicketLine v-if="coupon?.ticketId" :ticket-id="coupon.ticketId" class="no-print" />
  <p v-if="fault" class="fault said" role="alert" data-test-id="coupon-fault">{{ fault }}</p>
  <div v-if="coupon && made && fitted" class="coupon">
    <div class="left">
      <div class="bar">
        <PickOne v-if="coupon.burntAt" v-model="shownStage" bare label="Stage" :options="views" test-id="stage" />
        <CouponFiles :coupon="coupon" :made="made" :fitted="fitted" :worker="worker" @table="importTable" />
      </div>
      <p v-if="about" class="quiet small" data-test-id="reading-about">
        {{ about }}
        <RouterLink v-if="typicalPrint" to="/card" data-test-id="typical-print"
          >Typical print of the card assumed: say once what yours throws back</RouterLink
        >
      </p>
      <p v-if="pictures.fault.value" class="fault" role="alert" data-test-id="picture-fault">
        {{ pictures.fault.value }}
      </p>
      <PictureHandles
        v-if="placing"
        :photo="open!.photo!"
        :corners="open!.corners"
        @placed="pictures.place(stage, $event)"
      />
      <MeasureMaps
        v-else-if="mode === 'measures'"
        :layout="made.layout"
        :entries="entries"
        :tone="tone"
        :selected="selected"
        @select="selected = $event"
      />
      <CouponGrid
        v-else
        v-model:selected="selected"
        :layout="made.layout"
        :predictions="made.predictions"
        :outcomes="shown"
        :editable="coupon.burntAt !== null"
        :paints="!readsPicture"
        :picture="open?.level?.url"
        :done="coupon.burntAt ? undefined : coupon.burn?.cellsDone"
        :unreadable="unreadable"
        @mark="mark"
        @paint="mark($event, brush)"
      />
      <p v-if="coupon.burntAt" class="quiet small key">
        ○ too little &nbsp; ● holds &nbsp; ✕ too much &nbsp; ? cannot be read &nbsp;·&nbsp; arrows move, T H M mark
        <button
          v-if="open?.entries && open.sure"
          type="button"
          class="plain"
          data-test-id="move-handles"
          @click="moveHandles"
        >
          {{ mode === 'handles' ? 'Back to the cells' : 'Frame off? Move its corners' }}
        </button>
      </p>
    </div>
    <aside class="right">
      <BurnPanel
        v-if="!coupon.burntAt"
        :coupon="coupon"
        :gantry="fitted.machine.motion === 'gantry'"
        :cells="made.layout.cells.filter(({ reachable }) => reachable).length"
        :run-time-s="made.runTimeS"
        @changed="changedByServer"
        @burnt="markBurnt"
      />
      <template v-else>
        <CellPanel
          v-if="made.predictions[selected]"
          :layout="made.layout"
          :prediction="made.predictions[selected]!"
          :index="selected"
          :pictures="pictures.pictures"
          :tone="tone"
          :outcome="shown.get(selected) ?? null"
          :proposed="readsPicture ? proposed : null"
          :reason="taken?.reason ?? ''"
          :grade="grade"
        />
        <template v-if="readsPicture">
          <OutcomeButtons
            :outcome="shown.get(selected) ?? null"
            :proposed="proposed?.outcome ?? null"
            :taken="taken"
            @take="mark(selected, $event)"
            @reason="taken && pictures.byHand[stage].set(selected, { outcome: taken.outcome, reason: $event })"
          />
          <template v-if="entries.rinsed && entries.scrubbed">
            <h3>Kept after the scrub, % of contrast</h3>
            <KeptMap :layout="made.layout" :entries="entries" :selected="selected" @select="selected = $event" />
          </template>
          <RulesPanel v-model="pictures.rules.value" :usual="pictures.usual.value" />
          <BringPicture
            again
            :doing="pictures.doing.value"
            @stop="pictures.stop"
            @brought="pictures.bring($event, stage)"
            @take="pictures.take(stage)"
          />
        </template>
        <template v-else>
          <h3>{{ stage === 'rinsed' ? 'Rinse it, then picture it' : 'Scrub it, then picture it' }}</h3>
          <p class="quiet small">
            {{
              stage === 'rinsed'
                ? 'Plain water, a soft cloth, dry.'
                : 'The abrasive side of a pad, 40 strokes, the same for every coupon; dry.'
            }}
            Lay it on the <RouterLink to="/card">reference card</RouterLink>, in even light, and photograph it from
            straight above.
          </p>
          <BringPicture
            first
            :doing="pictures.doing.value"
            @stop="pictures.stop"
            @brought="pictures.bring($event, stage)"
            @take="pictures.take(stage)"
          />
          <EyePanel
            v-model:brush="brush"
            :stage="stage"
            :step="eye.steps.value.get(selected) ?? null"
            @rest="rest"
            @step="eye.step(selected, $event)"
          />
        </template>
        <CodeAsked
          v-if="codeAsked"
          v-model="pictures.codeSure.value"
          :read="open!.entries!.code"
          :code="coupon.design.code"
        />
        <div class="foot">
          <Button
            v-if="readsPicture && (pending.length || !open?.keptAs)"
            :label="
              stage === 'rinsed'
                ? `Keep ${pending.length} readings, scrub next`
                : `Accept ${pending.length} readings${coupon.ticketId ? ', go to the window' : ''}`
            "
            :disabled="reasonsMissing > 0 || (codeAsked && !pictures.codeSure.value)"
            data-test-id="keep-readings"
            @click="keepReadings"
          />
          <Button
            v-else-if="!readsPicture && eye.changed.value.length"
            :label="`Keep ${eye.changed.value.length} outcome${eye.changed.value.length > 1 ? 's' : ''}`"
            data-test-id="keep-outcomes"
            @click="keepByEye"
          />
          <Button
            v-else-if="coupon.stage === 'scrubbed'"
            label="Go to the window"
            data-test-id="to-window"
            @click="toWindow"
          />
        </div>
        <p v-if="reasonsMissing" class="quiet small">
          {{ reasonsMissing }} taken against the picture: say why, it is kept with them.
        </p>
      </template>
    </aside>
  </div>
</template>

<style scoped>
.said {
  padding: 0.6rem 1.5rem;
  background: var(--unto-danger-tint);
}

.coupon {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 400px;
  grid-template-rows: minmax(0, 1fr);
  min-height: 0;
}

.left {
  display: flex;
  flex-direction: column;
  gap: 0.5rem;
  padding: 0.7rem 1.2rem 0.8rem 1.5rem;
  min-width: 0;
  min-height: 0;
}

.left p {
  margin: 0;
}

.bar {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.4rem 1rem;
}

.right {
  display: flex;
  flex-direction: column;
  gap: 0.55rem;
  padding: 0.8rem 1.3rem 0;
  background: var(--unto-surface);
  border-left: 1px solid var(--unto-rule);
  overflow-y: auto;
}

.key {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
}

.plain {
  border: 0;
  background: none;
  color: var(--unto-action);
  font-weight: 700;
  cursor: pointer;
}

.foot {
  position: sticky;
  bottom: 0;
  margin-top: auto;
  display: flex;
  padding: 0.4rem 0 0.9rem;
  background: var(--unto-surface);
}

.foot :deep(.p-button) {
  flex: 1;
}

@media (max-width: 900px) {
  .coupon {
    grid-template-columns: minmax(0, 1fr);
  }

  .right {
    border-left: 0;
  }
}
</style>
