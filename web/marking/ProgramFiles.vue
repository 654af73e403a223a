<script setup lang="ts">
import { numbersText, pieceName } from '@unto/domain';
import { computed, ref } from 'vue';
import NumberField from '../ui/NumberField.vue';
import { useLaidPlaces } from '../stores/useLaidPlaces';
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
/** Only a part of each piece, to be run again: mm from its lower left corner. */
const part = ref({ xMm: Number.NaN, yMm: Number.NaN, widthMm: Number.NaN, heightMm: Number.NaN });
const region = computed(() => {
  const { xMm, yMm, widthMm, heightMm } = part.value;
  return widthMm > 0 && heightMm > 0 && Number.isFinite(xMm) && Number.isFinite(yMm)
    ? [xMm, yMm, widthMm, heightMm].map((mm) => Number(mm.toFixed(3))).join(',')
    : '';
});
const query = computed(() => {
  const asked = new URLSearchParams({
    ...(props.numbers ? { pieces: numbersText(props.numbers) } : {}),
    ...(region.value ? { region: region.value } : {}),
  }).toString();
  return asked && `?${asked}`;
});
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
    <span v-if="!jig" class="quiet small"
      >no jig laid out at Prepare, no picture at Place: it stops before each piece</span
    >
  </p>
  <details class="part" data-test-id="program-part">
    <summary>Only a part of them{{ region ? `: ${part.widthMm} × ${part.heightMm} mm` : ', run again' }}</summary>
    <div class="form-grid four">
      <NumberField v-model="part.xMm" optional label="From the left" quantity="length" test-id="part-x" />
      <NumberField v-model="part.yMm" optional label="From below" quantity="length" test-id="part-y" />
      <NumberField v-model="part.widthMm" optional label="Width" quantity="length" test-id="part-width" />
      <NumberField v-model="part.heightMm" optional label="Height" quantity="length" test-id="part-height" />
    </div>
    <p class="quiet small">
      Refocus there first. Fills are cut off at its sides; their outlines are not followed. Which pieces: in the run
      beside.
    </p>
  </details>
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
