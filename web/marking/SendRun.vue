<script setup lang="ts">
import { madePieces } from '@unto/domain';
import Button from 'primevue/button';
import { computed } from 'vue';
import BurnRun from '../burns/BurnRun.vue';
import { useLaidPlaces } from '../stores/useLaidPlaces';
import { useCounting } from './useCounting';
import type { useRunBurn } from './useRunBurn';

/** Pieces of a counted run sent to the head a load at a time; counted as the controller tells of them. */
const props = defineProps<{ run: ReturnType<typeof useRunBurn>; firstAlone: boolean }>();
const { open, notSent, busy, fault, send, act, settle } = props.run;
const { marking, counted, nameOf } = useCounting();
/** Pieces that are to go, by their place in the run. */
const toGo = computed(() => {
  const made = new Set(madePieces(counted.value).map(({ piece }) => piece));
  return Array.from({ length: marking.value!.pieces }, (_, i) => i + 1).filter((piece) => !made.has(piece));
});
const { places } = useLaidPlaces();
const jig = computed(() => places.value?.length ?? null);
/** Those that lie under the head together. */
const load = computed(() => {
  if (props.firstAlone) return toGo.value.slice(0, 1);
  const { numbers } = marking.value!;
  const at = (piece: number) => (jig.value ? Math.floor((numbers[piece - 1]! - 1) / jig.value) : 0);
  return toGo.value.filter((piece) => at(piece) === at(toGo.value[0]!));
});
const label = computed(() => {
  const [first, last] = [load.value[0]!, load.value.at(-1)!];
  return load.value.length === 1
    ? `Send ${nameOf(first)} to the head`
    : `Send ${load.value.length} to the head: ${nameOf(first)} to ${nameOf(last)}`;
});
</script>

<template>
  <template v-if="open">
    <BurnRun
      :burn="open"
      noun="piece"
      :count="open.parts!.length"
      :busy="busy"
      :fault="fault"
      @act="act"
      @settle="settle"
    />
  </template>
  <div v-else-if="load.length" class="send">
    <Button :label="label" :loading="busy" data-test-id="send-run" @click="send" />
    <p class="quiet small">
      <template v-if="firstAlone">The first goes alone: it is rinsed and scrubbed before the others follow. </template
      ><template v-if="!jig">No jig is laid out: it stops before each piece. </template>The controller counts. Enclosure
      shut, eyewear on; stay with it.
    </p>
    <p v-if="fault || notSent" class="fault" role="alert" data-test-id="burn-fault">{{ fault || notSent }}</p>
  </div>
</template>

<style scoped>
.send {
  display: grid;
  gap: 0.3rem;
}

.send :deep(.p-button) {
  min-height: 56px;
  font-size: 1.15rem;
}
</style>
