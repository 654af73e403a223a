<script setup lang="ts">
import type { TrayPieceRead, TrayReadingRecord } from '@unto/contract';
import { computed } from 'vue';
import { formatNumber } from '../ui/format';

/** The photograph of a tray with its pieces as they were found: each by its number and contrast, and where something lies on it. */
const props = defineProps<{ reading: TrayReadingRecord; nameOf: (piece: number) => string }>();
const path = ({ corners }: TrayPieceRead) => `${corners.map(({ x, y }, i) => `${i ? 'L' : 'M'}${x} ${y}`).join('')}Z`;
/** A place of a piece, by shares from its upper left. */
function placeOf({ corners: [a, b, c, d] }: TrayPieceRead, { x, y }: { x: number; y: number }) {
  const between = (p: { x: number; y: number }, q: { x: number; y: number }, t: number) => ({
    x: p.x + (q.x - p.x) * t,
    y: p.y + (q.y - p.y) * t,
  });
  return between(between(d!, c!, x), between(a!, b!, x), y);
}
const size = computed(() => props.reading.widthPx / 90);
const look = (piece: TrayPieceRead) => (piece.unreadable ? 'unread' : piece.findings.length ? 'bad' : 'good');
const caption = (piece: TrayPieceRead) =>
  piece.contrast === null
    ? `${piece.piece} ?`
    : `${piece.findings.length ? '✕' : '✓'} ${piece.piece}: ${formatNumber(Math.abs(piece.contrast), 0)}`;
/** The corner that lies furthest up and to the left. */
const top = ({ corners }: TrayPieceRead) =>
  corners.reduce((best, one) => (one.x + one.y < best.x + best.y ? one : best));
const spots = computed(() =>
  props.reading.pieces.flatMap((piece) =>
    piece.findings.flatMap(({ spot }) => (spot ? [{ key: piece.piece, ...placeOf(piece, spot) }] : [])),
  ),
);
</script>

<template>
  <svg
    :viewBox="`0 0 ${reading.widthPx} ${reading.heightPx}`"
    :style="{ aspectRatio: `${reading.widthPx} / ${reading.heightPx}` }"
    role="img"
    :aria-label="`Photograph of ${reading.pieces.length} pieces with the contrast of each in L*`"
    data-test-id="tray-picture"
  >
    <image :href="`/api/files/${reading.fileHash}`" :width="reading.widthPx" :height="reading.heightPx" />
    <g v-for="piece in reading.pieces" :key="piece.piece" :class="look(piece)">
      <title>{{ nameOf(piece.piece) }}</title>
      <path :d="path(piece)" :stroke-width="size / 4" />
      <text :x="top(piece).x" :y="top(piece).y - size / 2" :font-size="1.5 * size">{{ caption(piece) }}</text>
    </g>
    <circle
      v-for="spot in spots"
      :key="spot.key"
      class="spot"
      :cx="spot.x"
      :cy="spot.y"
      :r="size"
      :stroke-width="size / 3"
    />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  flex: none;
  width: 100%;
  border: 1px solid var(--unto-rule);
}

path,
.spot {
  fill: none;
}

.good path {
  stroke: #7fd1a8;
}

.bad path,
.spot {
  stroke: #ff6a3d;
}

.unread path {
  stroke: #f0d060;
  stroke-dasharray: 24 16;
}

text {
  fill: #fff;
  stroke: #1b1b1b;
  stroke-width: 0.18em;
  paint-order: stroke;
  font-weight: 700;
}
</style>
