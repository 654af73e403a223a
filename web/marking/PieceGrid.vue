<script setup lang="ts">
import type { MarkedPiece } from '@unto/contract';
import { computed } from 'vue';
import { useShop } from '../stores/shop';
import { formatTimeOfDay } from '../ui/format';

/** The pieces of a run as they lie, each with its state by shape and word; one may be pressed. */
const props = defineProps<{
  pieces: number;
  counted: readonly MarkedPiece[];
  /** Under the beam now. */
  next: number | null;
  /** Width over height of a piece. */
  ratio: number;
}>();
/** `spot`: where on it, as shares; null where a key pressed it. */
const emit = defineEmits<{ pick: [piece: number, spot: { x: number; y: number } | null] }>();
const shop = useShop();
/** More than this many are drawn without words under each. */
const MANY = 60;
const columns = computed(() => {
  const wanted = Math.sqrt(props.pieces / Math.max(0.3, props.ratio / 1.6)) * 1.35;
  return Math.max(3, Math.min(12, Math.round(wanted)));
});
const byPiece = computed(() => new Map(props.counted.map((one) => [one.piece, one])));
const drawn = computed(() =>
  Array.from({ length: props.pieces }, (_, i) => {
    const own = byPiece.value.get(i + 1);
    const state = own?.state ?? 'to go';
    const who = own && state !== 'to go' ? `${shop.personOf(own.by)}, ${formatTimeOfDay(own.at)}` : '';
    return { piece: i + 1, state, spot: own?.spot ?? null, word: own?.why ?? state, who };
  }),
);
function pressed(piece: number, event: MouseEvent): void {
  const box = (event.currentTarget as HTMLElement).querySelector('.blank')!.getBoundingClientRect();
  const share = (at: number, from: number, size: number) => Math.min(1, Math.max(0, size ? (at - from) / size : 0.5));
  const at = { x: share(event.clientX, box.left, box.width), y: share(event.clientY, box.top, box.height) };
  emit('pick', piece, event.detail === 0 ? null : at);
}
</script>

<template>
  <ol class="grid" :class="{ many: pieces > MANY }" :style="{ '--columns': columns, '--ratio': ratio }">
    <li v-for="one in drawn" :key="one.piece">
      <button
        type="button"
        :class="[one.state.replace(' ', '-'), { now: one.piece === next }]"
        :aria-label="`Piece ${one.piece}, ${one.piece === next ? 'under the beam' : one.word}${one.who ? `, ${one.who}` : ''}`"
        :title="one.who"
        :data-test-id="`piece-${one.piece}`"
        @click="pressed(one.piece, $event)"
      >
        <span class="blank"
          ><span class="mark mono">{{ one.piece }}</span
          ><span
            v-if="one.spot"
            class="spot"
            :style="{ left: `${100 * one.spot.x}%`, top: `${100 * one.spot.y}%` }"
          ></span
        ></span>
        <span class="word"
          ><template v-if="one.piece === next">▲ now</template
          ><template v-else-if="one.state === 'done'">✓ done</template
          ><template v-else-if="one.state === 'set aside'">✕ {{ one.word }}</template
          ><template v-else>&nbsp;</template></span
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

.done .blank {
  border: 1.5px solid var(--unto-bonded);
  background: var(--unto-bonded-tint);
}

.set-aside .blank {
  border: 2px dashed var(--unto-danger);
  background: var(--unto-danger-tint);
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
  overflow: hidden;
  font-size: 0.8rem;
  white-space: nowrap;
  text-overflow: ellipsis;
}

.done .word {
  color: var(--unto-bonded);
}

.set-aside .word,
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
</style>
