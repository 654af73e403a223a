<script setup lang="ts">
import type { CellPrediction, CouponLayout, Outcome } from '@unto/core';
import { labelStrokes, moduleRects, settingWords } from '@unto/core';
import { computed, ref } from 'vue';
import { useUnits } from '../ui/useUnits';

/**
 * A coupon drawn at its proportions. Outcomes by shape: ring too little, filled dot holds, cross too much. Arrow keys move between
 * cells, T H M mark them; a pointer marks with the outcome in hand, also while it is dragged.
 */
const props = defineProps<{
  layout: CouponLayout;
  predictions: readonly CellPrediction[];
  outcomes?: ReadonlyMap<number, Outcome>;
  editable?: boolean;
  /** A press marks with the outcome in hand; else it only takes the cell up. */
  paints?: boolean;
  /** The coupon straight from above; the drawing stands in without it. */
  picture?: string | undefined;
  /** Cells burnt so far, while it is being burnt. */
  done?: readonly number[] | undefined;
  /** Cells that a picture cannot be read at. */
  unreadable?: ReadonlyMap<number, string> | undefined;
}>();
const selected = defineModel<number>('selected', { default: 0 });
const units = useUnits();
const emit = defineEmits<{ mark: [cell: number, outcome: Outcome | null]; paint: [cell: number] }>();
const painting = ref(false);

const blank = computed(() => props.layout.design.blank);
const size = computed(() => props.layout.design.cell);
const radius = computed(() => Math.min(size.value.widthMm, size.value.heightMm) * (props.picture ? 0.13 : 0.2));
const hottest = computed(() => Math.max(...props.predictions.map(({ heatIndexK }) => heatIndexK ?? 0), 1e-9));
const labels = computed(() =>
  [...props.layout.labels.flatMap((label) => labelStrokes(label)), ...props.layout.frameStrokes]
    .map((stroke) =>
      stroke.map(([x, y], i) => `${i ? 'L' : 'M'}${x.toFixed(2)} ${(blank.value.heightMm - y).toFixed(2)}`).join(''),
    )
    .join(''),
);

function top(yMm: number): number {
  return blank.value.heightMm - yMm - size.value.heightMm;
}

type Cell = CouponLayout['cells'][number];

/** On a picture the outcome stands in the cell's corner, where it hides least. */
function markX({ xMm }: Cell): number {
  return xMm + (props.picture ? size.value.widthMm - 2 * radius.value : size.value.widthMm / 2);
}

function markY({ yMm }: Cell): number {
  return top(yMm) + (props.picture ? size.value.heightMm - 2 * radius.value : size.value.heightMm / 2);
}

function opacity({ index, reachable }: Cell): number {
  return props.picture || !reachable ? 0 : shade(index);
}

function shade(index: number): number {
  return 0.08 + 0.62 * Math.sqrt((props.predictions[index]?.heatIndexK ?? 0) / hottest.value);
}

const KEYS: Record<string, Outcome> = { t: 'under', h: 'holds', m: 'over' };

function key(event: KeyboardEvent): void {
  const here = props.layout.cells[selected.value];
  if (!here) return;
  const letter = KEYS[event.key.toLowerCase()];
  const moves: Record<string, [number, number]> = {
    ArrowLeft: [0, -1],
    ArrowRight: [0, 1],
    ArrowUp: [-1, 0],
    ArrowDown: [1, 0],
  };
  const move = moves[event.key];
  if (letter && props.editable) {
    emit('mark', selected.value, letter);
    selected.value = Math.min(props.layout.cells.length - 1, selected.value + 1);
  } else if ((event.key === 'Delete' || event.key === 'Backspace') && props.editable)
    emit('mark', selected.value, null);
  else if (move) step(here, move);
  else return;
  event.preventDefault();
}

/** To the neighbour; over the edge of a block into the next one. */
function step(here: CouponLayout['cells'][number], [dr, dc]: [number, number]): void {
  const { cells } = props.layout;
  const at = (block: number, row: number, column: number) =>
    cells.find((cell) => cell.role !== 'anchor' && cell.block === block && cell.row === row && cell.column === column);
  const columns = Math.max(...cells.map(({ column }) => column)) + 1;
  const next =
    at(here.block, here.row + dr, here.column + dc) ??
    (dc > 0 ? at(here.block + 1, here.row, 0) : dc < 0 ? at(here.block - 1, here.row, columns - 1) : undefined);
  if (next) selected.value = next.index;
}

function press(index: number): void {
  selected.value = index;
  if (!props.editable || !props.paints) return;
  painting.value = true;
  emit('paint', index);
}

function over(index: number): void {
  if (painting.value && props.editable) emit('paint', index);
}

const WORDS: Record<Outcome, string> = { under: 'too little', holds: 'holds', over: 'too much' };
const spoken = computed(() => {
  const cell = props.layout.cells[selected.value];
  if (!cell) return '';
  const outcome = props.outcomes?.get(cell.index);
  return `Cell ${cell.index + 1}${cell.role === 'grid' ? '' : `, ${cell.role === 'anchor' ? 'anchor' : 'uncoated'}`}, ${settingWords(cell, units.reading.value)}: ${outcome ? WORDS[outcome] : 'not marked'}`;
});
</script>

<template>
  <div class="grid-box">
    <svg
      :viewBox="`-1 -1 ${blank.widthMm + 2} ${blank.heightMm + 2}`"
      tabindex="0"
      role="application"
      :aria-label="`Coupon ${layout.design.code}. ${spoken}`"
      data-test-id="coupon-grid"
      @keydown="key"
      @pointerup="painting = false"
      @pointerleave="painting = false"
    >
      <rect x="0" y="0" :width="blank.widthMm" :height="blank.heightMm" class="blank" />
      <image
        v-if="picture"
        :href="picture"
        x="0"
        y="0"
        :width="blank.widthMm"
        :height="blank.heightMm"
        preserveAspectRatio="none"
      />
      <path v-else :d="labels" class="labels" />
      <rect
        v-for="(box, i) in layout.qr && !picture ? moduleRects(layout.qr) : []"
        :key="`qr-${i}`"
        :x="box.xMm"
        :y="blank.heightMm - box.yMm - box.heightMm"
        :width="box.widthMm"
        :height="box.heightMm"
        class="qr"
      />
      <g
        v-for="cell in layout.cells"
        :key="cell.index"
        :data-test-id="`cell-${cell.index + 1}`"
        @pointerdown.prevent="(press(cell.index), ($event.currentTarget as SVGElement).closest('svg')?.focus())"
        @pointerenter="over(cell.index)"
      >
        <rect
          :x="cell.xMm"
          :y="top(cell.yMm)"
          :width="size.widthMm"
          :height="size.heightMm"
          class="cell"
          :class="[cell.role, { done: done?.includes(cell.index) }]"
          :fill-opacity="opacity(cell)"
        />
        <path
          v-if="!cell.reachable"
          :d="`M${cell.xMm} ${top(cell.yMm)} l${size.widthMm} ${size.heightMm} m0 ${-size.heightMm} l${-size.widthMm} ${size.heightMm}`"
          class="unreachable"
        />
        <text
          v-if="unreadable?.get(cell.index) && !outcomes?.get(cell.index)"
          :x="cell.xMm + size.widthMm / 2"
          :y="top(cell.yMm) + size.heightMm / 2"
          class="unread"
          :font-size="radius * 2.4"
        >
          ?
        </text>
        <template v-if="outcomes?.get(cell.index)">
          <rect
            :x="markX(cell) - radius * 1.6"
            :y="markY(cell) - radius * 1.6"
            :width="radius * 3.2"
            :height="radius * 3.2"
            :rx="radius"
            class="plate"
          />
          <circle
            v-if="outcomes.get(cell.index) === 'holds'"
            :cx="markX(cell)"
            :cy="markY(cell)"
            :r="radius"
            class="holds"
          />
          <circle
            v-else-if="outcomes.get(cell.index) === 'under'"
            :cx="markX(cell)"
            :cy="markY(cell)"
            :r="radius"
            class="under"
            :stroke-width="radius * 0.4"
          />
          <path
            v-else
            :d="`M${markX(cell) - radius} ${markY(cell) - radius} l${2 * radius} ${2 * radius} m0 ${-2 * radius} l${-2 * radius} ${2 * radius}`"
            class="over"
            :stroke-width="radius * 0.5"
          />
        </template>
        <rect
          v-if="cell.index === selected"
          :x="cell.xMm - 0.3"
          :y="top(cell.yMm) - 0.3"
          :width="size.widthMm + 0.6"
          :height="size.heightMm + 0.6"
          class="selected"
        />
      </g>
    </svg>
    <p class="visually-hidden" aria-live="polite">{{ spoken }}</p>
  </div>
</template>

<style scoped>
.grid-box {
  flex: 1;
  min-height: 0;
  display: flex;
}

svg {
  width: 100%;
  min-height: 240px;
  touch-action: pan-y;
  user-select: none;
}

.blank {
  fill: var(--unto-metal);
  stroke: var(--unto-metal-line);
  stroke-width: 0.2;
}

.labels {
  fill: none;
  stroke: var(--unto-ink);
  stroke-width: 0.18;
  stroke-linecap: round;
}

.cell {
  fill: #1f262b;
  cursor: pointer;
}

.qr {
  fill: var(--unto-ink);
}

.bare {
  stroke: var(--unto-ink);
  stroke-width: 0.15;
  stroke-dasharray: 0.8 0.6;
}

.unread {
  fill: #1f262b;
  stroke: #fffdf8;
  stroke-width: 0.5px;
  paint-order: stroke;
  text-anchor: middle;
  dominant-baseline: central;
  font-weight: 700;
}

.done {
  stroke: var(--unto-bonded);
  stroke-width: 0.5;
}

.anchor {
  stroke: var(--unto-action);
  stroke-width: 0.35;
}

.unreachable {
  stroke: var(--unto-danger);
  stroke-width: 0.2;
  fill: none;
}

.plate {
  fill: var(--unto-surface);
}

.holds {
  fill: var(--unto-bonded);
}

.under {
  fill: none;
  stroke: var(--unto-ink);
}

.over {
  fill: none;
  stroke: var(--unto-danger);
}

.selected {
  fill: none;
  stroke: var(--unto-action);
  stroke-width: 0.45;
}
</style>
