<script setup lang="ts">
import { fitHomography, project, THICK_FILM, THIN_FILM } from '@unto/core';
import { computed, useTemplateRef } from 'vue';
import { orFault } from '../ui/or-fault';
import { useTicket } from '../stores/ticket';
import PictureHandle from '../ui/PictureHandle.vue';
import { useHandles } from '../ui/useHandles';
import { HANDLES, type CoatPictureState, type Handle } from './usePicture';

/** The picture with its handles (drag, or arrow keys once focused), the artwork’s outline, and the cells that are not as they should be. */
const props = defineProps<{ picture: CoatPictureState }>();
const { opened, handles, uses, map, size } = props.picture;
const ticket = useTicket();
const stage = useTemplateRef<SVGSVGElement>('stage');
const shown = computed<Handle[]>(() =>
  HANDLES.filter((name) => (name === 'bare' ? uses.value.bare : name === 'well coated' ? uses.value.good : true)),
);
const corners = computed(() => HANDLES.slice(0, 4).map((name) => handles.value![name]));

const onPicture = computed(() => {
  const { widthMm: w, heightMm: h } = size.value;
  const from = [
    { x: 0, y: 0 },
    { x: w, y: 0 },
    { x: w, y: h },
    { x: 0, y: h },
  ];
  return orFault(() => fitHomography(from, corners.value)).result;
});
function box(x: number, y: number, w: number, h: number): string {
  const matrix = onPicture.value;
  if (!matrix) return '';
  return [
    { x, y },
    { x: x + w, y },
    { x: x + w, y: y + h },
    { x, y: y + h },
  ]
    .map((point) => project(matrix, point))
    .map((point) => `${point.x.toFixed(1)},${point.y.toFixed(1)}`)
    .join(' ');
}
const artwork = computed(() => {
  const { markWidthMm: w, markHeightMm: h } = ticket.ticket!;
  return box((size.value.widthMm - w) / 2, (size.value.heightMm - h) / 2, w, h);
});
const cells = computed(() => {
  const read = map.value;
  if (!read || !onPicture.value) return [];
  return read.film.flatMap((film, i) => {
    if (film >= THIN_FILM && film <= THICK_FILM) return [];
    const [x, y] = [(i % read.columns) * read.cellMm, Math.floor(i / read.columns) * read.cellMm];
    return [{ points: box(x, y, read.cellMm, read.cellMm), thin: film < THIN_FILM }];
  });
});

const { dragged, stepped, grab } = useHandles<Handle>(
  stage,
  (name) => handles.value![name],
  () => opened.value!,
  (name, to) => (handles.value = { ...handles.value!, [name]: to }),
);
</script>

<template>
  <svg
    v-if="opened && handles"
    ref="stage"
    :viewBox="`0 0 ${opened.width} ${opened.height}`"
    role="group"
    aria-label="Picture of the coat with its marks"
    data-test-id="picture-stage"
  >
    <image :href="opened.url" :width="opened.width" :height="opened.height" />
    <polygon v-for="(cell, i) in cells" :key="i" :points="cell.points" :class="cell.thin ? 'thin' : 'thick'" />
    <polygon :points="corners.map(({ x, y }) => `${x},${y}`).join(' ')" class="edge" />
    <polygon :points="artwork" class="art" />
    <PictureHandle
      v-for="name in shown"
      :key="name"
      :x="handles[name].x"
      :y="handles[name].y"
      :scale="opened.width / 660"
      :name="name"
      :caption="name === 'bare' || name === 'well coated' ? name : undefined"
      :test-id="`handle-${name.replace(' ', '-')}`"
      @pointerdown="grab"
      @pointermove="dragged(name, $event)"
      @keydown="stepped(name, $event)"
    />
  </svg>
  <p v-if="opened" class="quiet small key">
    <span class="swatch thin" /> thin <span class="swatch thick" /> thick · dashed: the artwork · drag the marks, or
    move them with the arrow keys
  </p>
</template>

<style scoped>
svg {
  width: 100%;
  flex: 1;
  min-height: 0;
  max-height: 560px;
  touch-action: none;
}

.edge {
  fill: none;
  stroke: var(--unto-action);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}

.art {
  fill: none;
  stroke: #fffdf8;
  stroke-width: 2;
  stroke-dasharray: 7 5;
  vector-effect: non-scaling-stroke;
}

.thin {
  fill: #e8a93a;
  fill-opacity: 0.55;
  background: #e8a93a;
}

.thick {
  fill: #b23a12;
  fill-opacity: 0.6;
  background: #b23a12;
}

.key {
  display: flex;
  align-items: center;
  gap: 0.4rem;
}

.swatch {
  display: inline-block;
  width: 1rem;
  height: 1rem;
  border: 1px solid var(--unto-ink);
}
</style>
