<script setup lang="ts">
import { computed, useTemplateRef } from 'vue';
import { useHandles } from '../ui/useHandles';
import { formatNumber } from '../ui/format';
import { useUnits } from '../ui/useUnits';
import ArtworkPaths from './ArtworkPaths.vue';
import JigPlaces from './JigPlaces.vue';
import { onPiece } from './on-piece';
import type { ArtworkState } from './useArtwork';

/** A piece at its proportions with what is marked on it. The artwork is dragged, or moved by the arrow keys; a fifth of a mm a step. */
const props = defineProps<{ state: ArtworkState }>();
const { typed, piece, drawing, preview, artwork, warnings, shown, pieces } = props.state;
const units = useUnits();
const stage = useTemplateRef<SVGSVGElement>('stage');
const ROOM = 3;
const STEP_MM = 0.2;
/** Handles move in whole steps: keys step by one. */
const { dragged, stepped, grab } = useHandles<'artwork' | number>(
  stage,
  (which) => {
    const at = which === 'artwork' ? typed.value : typed.value.fields[which]!;
    return { x: at.xMm / STEP_MM, y: (piece.heightMm - at.yMm) / STEP_MM };
  },
  () => ({ width: piece.widthMm / STEP_MM, height: piece.heightMm / STEP_MM }),
  (which, { x, y }) => {
    const to = { xMm: fine(x * STEP_MM), yMm: fine(piece.heightMm - y * STEP_MM) };
    if (which === 'artwork') Object.assign(typed.value, to);
    else typed.value.fields = typed.value.fields.map((field, i) => (i === which ? { ...field, ...to } : field));
  },
);
const fine = (mm: number) => Math.round(mm * 100) / 100;
const place = computed(() => `translate(0 ${piece.heightMm}) ${onPiece(typed.value, drawing.value)}`);
const handles = computed(() => [
  ...(artwork.value
    ? [{ key: 'artwork' as const, name: 'artwork', x: typed.value.xMm || 0, y: typed.value.yMm || 0 }]
    : []),
  ...typed.value.fields.map(({ xMm, yMm, says }, key) => ({ key, name: `text ${says}`, x: xMm || 0, y: yMm || 0 })),
]);
const marks = computed(() => warnings.value.flatMap(({ at, words }) => (at ? [{ ...at, words }] : [])));
const measure = computed(() => artwork.value?.measure ?? null);
const near = computed(() => Math.min(piece.widthMm, piece.heightMm));
</script>

<template>
  <h2>
    Piece {{ shown }} of {{ pieces }}<span v-if="preview?.names[shown - 1]">: {{ preview.names[shown - 1] }}</span>
  </h2>
  <svg
    ref="stage"
    :viewBox="`${-ROOM / STEP_MM} ${-ROOM / STEP_MM} ${(piece.widthMm + 2 * ROOM) / STEP_MM} ${(piece.heightMm + 2 * ROOM) / STEP_MM}`"
    role="group"
    :aria-label="`A piece of ${units.size(piece.widthMm, piece.heightMm)} with what is marked on it`"
    data-test-id="artwork-stage"
  >
    <g :transform="`scale(${1 / STEP_MM})`">
      <rect :width="piece.widthMm" :height="piece.heightMm" rx="0.6" class="piece" vector-effect="non-scaling-stroke" />
      <g v-if="artwork && drawing" :transform="place">
        <ArtworkPaths :paths="drawing.paths" />
        <circle
          v-for="(mark, i) in marks"
          :key="`w${i}`"
          :cx="mark.xMm"
          :cy="drawing.heightMm - mark.yMm"
          :r="near / 22"
          class="look"
          vector-effect="non-scaling-stroke"
        >
          <title>{{ mark.words }}</title>
        </circle>
      </g>
      <ArtworkPaths :paths="preview?.paths ?? []" />
      <rect
        v-for="handle in handles"
        :key="handle.key"
        :x="handle.x - near / 40"
        :y="piece.heightMm - handle.y - near / 40"
        :width="near / 20"
        :height="near / 20"
        class="handle"
        role="slider"
        tabindex="0"
        :aria-label="`Lower left corner of the ${handle.name}`"
        :aria-valuetext="units.size(handle.x, handle.y, 0.01, ', ')"
        :aria-valuenow="handle.x"
        :data-test-id="`handle-${handle.key}`"
        @pointerdown="grab"
        @pointermove="dragged(handle.key, $event)"
        @keydown="stepped(handle.key, $event)"
      />
    </g>
  </svg>
  <p class="quiet small key">
    {{ units.size(piece.widthMm, piece.heightMm) }} blank · drag the corner marks, or move them with the arrow keys ({{
      units.rounded('length', STEP_MM, 0.1)
    }}
    a step)<template v-if="marks.length"> · ringed: looks critical</template>
  </p>
  <JigPlaces :state="state" />
  <template v-if="artwork && measure">
    <dl class="facts" data-test-id="artwork-facts">
      <div>
        <dt>real size</dt>
        <dd>{{ units.size(measure.widthMm, measure.heightMm, 0.01) }}</dd>
      </div>
      <div>
        <dt>marked</dt>
        <dd>
          {{ formatNumber(Number((measure.filledMm2 / 100).toPrecision(3))) }} cm²,
          {{ Math.round(100 * measure.filledShare) }} % of its box
        </dd>
      </div>
      <div v-if="measure.lines">
        <dt>lines</dt>
        <dd>{{ units.rounded('length', measure.linesMm, 1) }} in {{ measure.lines }}</dd>
      </div>
      <div v-if="measure.smallestStroke">
        <dt>narrowest stroke</dt>
        <dd>{{ units.rounded('length', measure.smallestStroke.mm, 0.01) }}</dd>
      </div>
      <div v-if="measure.smallestGap">
        <dt>narrowest gap</dt>
        <dd>{{ units.rounded('length', measure.smallestGap.mm, 0.01) }}</dd>
      </div>
    </dl>
    <ul v-if="warnings.length || artwork.said.length" class="warnings" data-test-id="artwork-warnings">
      <li v-for="warning in warnings" :key="warning.words">{{ warning.words }}</li>
      <li v-for="words in artwork.said" :key="words">{{ words }}</li>
    </ul>
  </template>
</template>

<style scoped>
svg {
  --artwork-bare: var(--unto-coat-tint);

  width: 100%;
  max-height: 24rem;
  background: var(--unto-surface);
  border: 1px solid var(--unto-rule);
  color: var(--unto-ink);
}

.piece {
  fill: var(--unto-coat-tint);
  stroke: var(--unto-coat-line);
}

.look {
  fill: none;
  stroke: var(--unto-danger);
  stroke-width: 2px;
}

.handle {
  fill: var(--unto-action);
  cursor: move;
}

.facts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.4rem;
}

dt {
  color: var(--unto-quiet);
  font-size: 0.85rem;
}

dd {
  margin: 0;
  font-family: var(--unto-mono);
}

.warnings {
  margin: 0;
  padding: 0.45rem 0.7rem 0.45rem 1.6rem;
  border-left: 4px solid var(--unto-coat-line);
  background: var(--unto-coat-tint);
}

.key {
  margin-top: 0.3rem;
}
</style>
