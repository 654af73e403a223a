<script setup lang="ts">
import type { Point2 } from '@unto/core';
import { computed, ref, useTemplateRef, watch } from 'vue';
import PictureHandle from '../ui/PictureHandle.vue';
import { useHandles } from '../ui/useHandles';

/** A photograph with four handles on the coupon’s corner marks; the coupon is read again once a handle rests. */
const props = defineProps<{
  photo: { readonly url: string; readonly width: number; readonly height: number };
  corners: readonly Point2[];
}>();
const emit = defineEmits<{ placed: [readonly Point2[]] }>();
const NAMES = ['lower left', 'lower right', 'upper right', 'upper left'] as const;
const stage = useTemplateRef<SVGSVGElement>('stage');
const own = ref<Point2[]>([]);
watch(
  () => props.corners,
  (corners) => (own.value = corners.map(({ x, y }) => ({ x, y }))),
  { immediate: true },
);
const { dragged, stepped, grab } = useHandles<number>(
  stage,
  (i) => own.value[i]!,
  () => props.photo,
  (i, to) => (own.value = own.value.map((corner, k) => (k === i ? to : corner))),
);
const outline = computed(() => own.value.map(({ x, y }) => `${x},${y}`).join(' '));
const scale = computed(() => props.photo.width / 760);
</script>

<template>
  <svg
    ref="stage"
    :viewBox="`0 0 ${photo.width} ${photo.height}`"
    role="group"
    aria-label="Photograph with handles for the coupon’s corner marks"
    data-test-id="handle-stage"
  >
    <image :href="photo.url" :width="photo.width" :height="photo.height" />
    <polygon :points="outline" class="edge" />
    <PictureHandle
      v-for="(corner, i) in own"
      :key="i"
      :x="corner.x"
      :y="corner.y"
      :scale="scale"
      :name="`${NAMES[i]} corner`"
      :caption="NAMES[i]"
      :test-id="`handle-${i}`"
      @pointerdown="grab"
      @pointermove="dragged(i, $event)"
      @pointerup="emit('placed', own)"
      @keydown="stepped(i, $event)"
      @keyup="emit('placed', own)"
    />
  </svg>
</template>

<style scoped>
svg {
  flex: 1;
  width: 100%;
  min-height: 0;
  touch-action: none;
}

.edge {
  fill: none;
  stroke: var(--unto-action);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
</style>
