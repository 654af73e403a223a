<script setup lang="ts">
import { computed } from 'vue';
import { useLaidPlaces } from '../stores/useLaidPlaces';
import { useUnits } from '../ui/useUnits';
import ArtworkPaths from './ArtworkPaths.vue';
import { onPiece } from './on-piece';
import type { ArtworkState } from './useArtwork';

/** The places that pieces lie in under the head, each with the artwork on it: in the jig, or where a picture showed them. */
const props = defineProps<{ state: ArtworkState }>();
const { typed, drawing } = props.state;
const { places, pictured } = useLaidPlaces();
const units = useUnits();
/** Beyond this many only boxes are drawn. */
const MANY = 60;
const ROOM_MM = 4;
const box = computed(() => {
  const all = places.value ?? [];
  const reach = all.flatMap(({ xMm, yMm, widthMm, heightMm }) => [
    { x: xMm, y: yMm },
    { x: xMm + Math.max(widthMm, heightMm), y: yMm + Math.max(widthMm, heightMm) },
  ]);
  const [xs, ys] = [reach.map(({ x }) => x), reach.map(({ y }) => y)];
  const [x0, y0] = [Math.min(...xs) - ROOM_MM, Math.min(...ys) - ROOM_MM];
  return { x0, y0, width: Math.max(...xs) + ROOM_MM - x0, height: Math.max(...ys) + ROOM_MM - y0 };
});
const top = computed(() => box.value.y0 + box.value.height);
const artworkAt = computed(() => onPiece(typed.value, drawing.value));
</script>

<template>
  <figure v-if="places?.length" data-test-id="jig-places">
    <svg :viewBox="`0 0 ${box.width} ${box.height}`" role="img" :aria-label="`${places.length} pieces where they lie`">
      <g
        v-for="(place, i) in places"
        :key="i"
        :transform="`translate(${place.xMm - box.x0} ${top - place.yMm}) rotate(${-(place.turnDeg ?? 0)})`"
      >
        <rect
          :y="-place.heightMm"
          :width="place.widthMm"
          :height="place.heightMm"
          class="place"
          vector-effect="non-scaling-stroke"
        />
        <g v-if="drawing && places.length <= MANY" class="artwork" :transform="artworkAt">
          <ArtworkPaths :paths="drawing.paths" />
        </g>
        <text x="1" y="-1" :font-size="place.heightMm / 5">{{ i + 1 }}</text>
      </g>
    </svg>
    <figcaption class="quiet small">
      {{ places.length }} at a time on {{ units.size(box.width - 2 * ROOM_MM, box.height - 2 * ROOM_MM) }},
      {{ pictured ? 'where a picture showed them' : 'in the jig of Prepare' }}.
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0.8rem 0 0;
}

svg {
  display: block;
  width: 100%;
  max-height: 15rem;
  background: var(--unto-surface);
  border: 1px solid var(--unto-rule);
}

.place {
  fill: none;
  stroke: var(--unto-quiet);
}

.artwork {
  color: var(--unto-ink);
}

text {
  fill: var(--unto-quiet);
}
</style>
