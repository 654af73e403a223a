<script setup lang="ts">
import { numbersText, pieceName } from '@unto/domain';
import { computed } from 'vue';
import { useLaidPlaces } from '../place/useLaidPlaces';
import { useTicket } from '../stores/ticket';
import { orFault } from '../ui/or-fault';

/** The program of the pieces that come next: as G-code where the head is a gantry's, as a drawing for any other. */
const props = defineProps<{ numbers: readonly number[] | null }>();
const ticket = useTicket();
const FORMATS = { gcode: 'G-code', svg: 'SVG', dxf: 'DXF' } as const;
/** Without one pieces are laid in one by one: the program stops between them, and a drawing is of one. */
const { places } = useLaidPlaces();
const jig = computed(() => places.value !== null);
const formats = computed(() =>
  (['gcode', 'svg', 'dxf'] as const).filter((one) =>
    one === 'gcode' ? ticket.fitted?.machine.motion === 'gantry' : jig.value || props.numbers?.length === 1,
  ),
);
const query = computed(() => (props.numbers ? `?pieces=${numbersText(props.numbers)}` : ''));
const names = computed(() => {
  const { entered } = ticket.page!.layout!;
  const of = (number: number) => orFault(() => pieceName(entered, number)).result ?? '';
  const [first, last] = [props.numbers?.[0], props.numbers?.at(-1)];
  if (!first || !last || !of(first)) return '';
  return first === last ? of(first) : `${of(first)} to ${of(last)}`;
});
</script>

<template>
  <p class="files" data-test-id="program-files">
    <span>The program of these pieces{{ names ? ` (${names})` : '' }}:</span>
    <a
      v-for="format in formats"
      :key="format"
      class="file"
      :href="`/api/tickets/${ticket.ticket!.id}/program/${format}${query}`"
      :data-test-id="`program-${format}`"
      download
      >{{ FORMATS[format] }}</a
    >
    <span v-if="!jig" class="quiet small">no jig laid out at Prepare, no picture at Place: it stops before each piece</span>
  </p>
</template>

<style scoped>
.files {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem 0.9rem;
}

.file {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  font-weight: 700;
}
</style>
