<script setup lang="ts">
import { bedCorners } from '@unto/core';
import { computed, useTemplateRef } from 'vue';
import ArtworkPaths from '../artwork/ArtworkPaths.vue';
import { onPiece } from '../artwork/on-piece';
import type { ArtworkState } from '../artwork/useArtwork';
import PictureHandle from '../ui/PictureHandle.vue';
import { useHandles } from '../ui/useHandles';
import type { BedState } from './useBed';

/** The bed as it was photographed: crosses to be marked on it, or pieces as they were found, each with the artwork on it. */
const props = defineProps<{ state: BedState; artwork: ArtworkState }>();
const { learns, url, size, crosses, readCrosses, bed, bedUrl, pieces, piece } = props.state;
const { drawing, typed } = props.artwork;
const chosen = defineModel<number | null>('chosen', { required: true });
const photo = useTemplateRef<SVGSVGElement>('photo');
const above = useTemplateRef<SVGSVGElement>('above');
const cross = useHandles<number>(
  photo,
  (i) => crosses.value[i]!,
  () => size.value!,
  (i, to) => {
    crosses.value[i] = to;
    void readCrosses();
  },
);
/** Pieces move in steps of a fifth of a mm. */
const STEP_MM = 0.2;
const top = computed(() => (bed.value ? bed.value.yMm + bed.value.heightMm : 0));
const laid = useHandles<number>(
  above,
  (i) => ({
    x: (pieces.value[i]!.xMm - bed.value!.xMm) / STEP_MM,
    y: (top.value - pieces.value[i]!.yMm) / STEP_MM,
  }),
  () => ({ width: bed.value!.widthMm / STEP_MM, height: bed.value!.heightMm / STEP_MM }),
  (i, { x, y }) =>
    (pieces.value[i] = {
      ...pieces.value[i]!,
      ...{ xMm: bed.value!.xMm + x * STEP_MM, yMm: top.value - y * STEP_MM },
    }),
);
const outline = (i: number) =>
  bedCorners(pieces.value[i]!, piece)
    .map(({ xMm, yMm }, k) => `${k ? 'L' : 'M'}${xMm - bed.value!.xMm} ${top.value - yMm}`)
    .join('') + 'Z';
/** From the artwork's own upper left, mm, to where it comes to lie on a piece. */
const artworkAt = (i: number) => {
  const { xMm, yMm, turnDeg } = pieces.value[i]!;
  return `translate(${xMm - bed.value!.xMm} ${top.value - yMm}) rotate(${-turnDeg}) ${onPiece(typed.value, drawing.value)}`;
};
const scale = computed(() => (size.value ? size.value.width / 700 : 1));
</script>

<template>
  <svg
    v-if="learns && size && url"
    ref="photo"
    :viewBox="`0 0 ${size.width} ${size.height}`"
    role="group"
    aria-label="Photograph of the crosses with the card"
    data-test-id="cross-photo"
  >
    <image :href="url" :width="size.width" :height="size.height" />
    <PictureHandle
      v-for="(at, i) in crosses"
      :key="i"
      :x="at.x"
      :y="at.y"
      :scale="scale"
      :name="`cross ${i + 1}`"
      :caption="String(i + 1)"
      :test-id="`cross-${i}`"
      @pointerdown="cross.grab"
      @pointermove="cross.dragged(i, $event)"
      @keydown="cross.stepped(i, $event)"
    />
  </svg>
  <svg
    v-else-if="!learns && bed && bedUrl"
    ref="above"
    :viewBox="`0 0 ${bed.widthMm / STEP_MM} ${bed.heightMm / STEP_MM}`"
    role="group"
    aria-label="The bed from above with the pieces found on it"
    data-test-id="bed-stage"
  >
    <g :transform="`scale(${1 / STEP_MM})`">
      <image :href="bedUrl" :width="bed.widthMm" :height="bed.heightMm" preserveAspectRatio="none" />
      <g
        v-for="(_, i) in pieces"
        :key="i"
        class="piece"
        :class="{ chosen: chosen === i }"
        tabindex="0"
        role="button"
        :aria-label="`Piece ${i + 1}; arrow keys move it`"
        :data-test-id="`bed-piece-${i}`"
        @focus="chosen = i"
        @pointerdown="laid.grab"
        @pointermove="laid.dragged(i, $event)"
        @keydown="laid.stepped(i, $event)"
      >
        <path :d="outline(i)" class="rim" vector-effect="non-scaling-stroke" />
        <g v-if="drawing" class="artwork" :transform="artworkAt(i)">
          <ArtworkPaths :paths="drawing.paths" />
        </g>
        <text
          :x="pieces[i]!.xMm - bed.xMm + 1"
          :y="top - pieces[i]!.yMm - 1"
          :font-size="Math.max(4, bed.widthMm / 60)"
        >
          {{ i + 1 }}
        </text>
      </g>
    </g>
  </svg>
  <p v-else class="quiet">
    {{ learns ? 'The photograph of the crosses comes here.' : 'The bed from above comes here, with the pieces on it.' }}
  </p>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  border: 1px solid var(--unto-rule);
  touch-action: none;
}

.piece {
  cursor: grab;
}

.rim {
  fill: rgb(255 255 255 / 8%);
  stroke: #7fd1a8;
  stroke-width: 2;
}

.chosen .rim {
  stroke: #ffb02e;
  stroke-width: 3;
}

.artwork {
  --artwork-bare: transparent;

  color: rgb(200 40 20 / 80%);
}

text {
  fill: #fff;
  stroke: #1b1b1b;
  stroke-width: 0.16em;
  paint-order: stroke;
  font-weight: 700;
}
</style>
