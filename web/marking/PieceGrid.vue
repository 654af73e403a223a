<script setup lang="ts">
import { computed } from 'vue';

/** A piece as it is drawn: its look by shape and tint, the word under it, where something lies on it. */
export interface DrawnPiece {
  readonly piece: number;
  /** What is on it; its number where nothing is. */
  readonly label?: string | undefined;
  readonly look: 'open' | 'good' | 'bad' | 'now' | 'drawn';
  readonly word: string;
  /** Who said so and when; shown when it is pointed at. */
  readonly title?: string | undefined;
  readonly spot?: { readonly x: number; readonly y: number } | null | undefined;
}

/** Pieces as they lie, each with its state by shape and word; one may be pressed. */
const props = defineProps<{
  pieces: readonly DrawnPiece[];
  /** Width over height of a piece. */
  ratio: number;
}>();
/** `spot`: where on it, as shares; null where a key pressed it. */
const emit = defineEmits<{ pick: [piece: number, spot: { x: number; y: number } | null] }>();
/** More than this many are drawn without words under each. */
const MANY = 60;
const SIGNS: Record<DrawnPiece['look'], string> = { open: '', good: '✓ ', bad: '✕ ', now: '▲ ', drawn: '○ ' };
const columns = computed(() => {
  const wanted = Math.sqrt(props.pieces.length / Math.max(0.3, props.ratio / 1.6)) * 1.35;
  return Math.max(3, Math.min(12, Math.round(wanted)));
});
function pressed(piece: number, event: MouseEvent): void {
  const box = (event.currentTarget as HTMLElement).querySelector('.blank')!.getBoundingClientRect();
  const share = (at: number, from: number, size: number) => Math.min(1, Math.max(0, size ? (at - from) / size : 0.5));
  const at = { x: share(event.clientX, box.left, box.width), y: share(event.clientY, box.top, box.height) };
  emit('pick', piece, event.detail === 0 ? null : at);
}
</script>

<template>
  <ol class="grid" :class="{ many: pieces.length > MANY }" :style="{ '--columns': columns, '--ratio': ratio }">
    <li v-for="one in pieces" :key="one.piece">
      <button
        type="button"
        :class="one.look"
        :title="one.title"
        :data-test-id="`piece-${one.piece}`"
        @click="pressed(one.piece, $event)"
      >
        <span class="blank"
          ><span class="mark mono" :class="{ long: String(one.label ?? '').length > 5 }"
            ><span class="visually-hidden">Piece </span>{{ one.label || one.piece }}</span
          ><span
            v-if="one.spot"
            class="spot"
            :style="{ left: `${100 * one.spot.x}%`, top: `${100 * one.spot.y}%` }"
          ></span
        ></span>
        <span class="word"
          ><span aria-hidden="true">{{ SIGNS[one.look] }}</span
          >{{ one.word }}</span
        >
      </button>
    </li>
  </ol>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(var(--columns), minmax(0, 1fr));
  gap: 0.35rem 0.5rem;
  margin: 0;
  padding: 0.6rem;
  list-style: none;
  background: var(--unto-surface);
  border: 1px solid var(--unto-rule);
}

button {
  display: block;
  width: 100%;
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}

.blank {
  position: relative;
  display: grid;
  place-items: center;
  aspect-ratio: var(--ratio);
  max-height: 4.6rem;
  min-height: 1.6rem;
  width: 100%;
  border: 1.5px dashed var(--unto-quiet);
  border-radius: 3px;
  overflow: hidden;
}

.good .blank {
  border: 1.5px solid var(--unto-bonded);
  background: var(--unto-bonded-tint);
}

.bad .blank {
  border: 2px dashed var(--unto-danger);
  background: var(--unto-danger-tint);
}

.drawn .blank {
  border: 2px dotted var(--unto-action);
}

.now .blank {
  border: 3px solid var(--unto-danger);
}

.spot {
  position: absolute;
  width: 0.9rem;
  height: 0.9rem;
  margin: -0.45rem 0 0 -0.45rem;
  border: 2px solid var(--unto-danger);
  border-radius: 50%;
}

.word {
  display: block;
  min-height: 1.3em;
  overflow: hidden;
  font-size: 0.8rem;
  white-space: nowrap;
  text-overflow: ellipsis;
}

.good .word {
  color: var(--unto-bonded);
}

.bad .word,
.now .word {
  color: var(--unto-danger);
  font-weight: 700;
}

.many .word {
  display: none;
}

@media (max-width: 600px) {
  .grid {
    --columns: 4 !important;
  }
}

.mark {
  white-space: nowrap;
}

.long {
  font-size: 0.82rem;
  letter-spacing: -0.02em;
}
</style>
