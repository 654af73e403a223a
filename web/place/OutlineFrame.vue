<script setup lang="ts">
import { outlineGcode, outlineSvg, type TrialOutline } from '@unto/core';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { useTicket } from '../stores/ticket';
import ChoiceField from '../ui/ChoiceField.vue';
import { choicesOf } from '../ui/choices';
import NumberField from '../ui/NumberField.vue';
import { orFault } from '../ui/or-fault';
import { saveFile } from '../ui/save-file';

/** An outline burnt into cardboard or tape first; the piece is laid into it. */
const SHAPES = ['rectangle', 'circle'] as const;
const ticket = useTicket();
const own = ticket.ticket!;
const machine = computed(() => ticket.fitted!.machine);
const round = ticket.substrate?.body.diameterMm ?? null;
const outline = ref<
  TrialOutline & {
    widthMm: number;
    heightMm: number;
    atXMm: number;
    atYMm: number;
    roomMm: number;
    powerPercent: number;
    speedMmPerS: number;
    shape: TrialOutline['shape'];
  }
>({
  shape: 'rectangle',
  widthMm: round ?? own.markWidthMm,
  heightMm: own.markHeightMm,
  atXMm: 10,
  atYMm: 10,
  roomMm: 0.2,
  powerPercent: 12,
  speedMmPerS: Math.min(50, machine.value.topSpeedMmPerS),
});
const program = computed(() => orFault(() => outlineGcode(outline.value, machine.value.fullScaleS)));

function take(kind: 'gcode' | 'svg'): void {
  const name = `outline-${own.number}`;
  if (kind === 'svg') saveFile(`${name}.svg`, 'image/svg+xml', outlineSvg(outline.value));
  else saveFile(`${name}.gcode`, 'text/x-gcode', program.value.result!);
}
</script>

<template>
  <details>
    <summary>Trial outline on cardboard or tape</summary>
    <div class="form-grid">
      <ChoiceField v-model="outline.shape" label="Shape" :options="choicesOf(SHAPES)" test-id="outline-shape" />
      <NumberField v-model="outline.roomMm" label="Room round the piece" quantity="length" test-id="outline-room" />
      <NumberField
        v-model="outline.widthMm"
        :label="outline.shape === 'circle' ? 'Diameter' : 'Width'"
        quantity="length"
        test-id="outline-width"
      />
      <NumberField
        v-if="outline.shape === 'rectangle'"
        v-model="outline.heightMm"
        label="Height"
        quantity="length"
        test-id="outline-height"
      />
      <NumberField v-model="outline.atXMm" label="Lower left x" quantity="length" />
      <NumberField v-model="outline.atYMm" label="Lower left y" quantity="length" />
      <NumberField v-model="outline.powerPercent" label="Power" quantity="power" test-id="outline-power" />
      <NumberField v-model="outline.speedMmPerS" label="Speed" quantity="speed" />
    </div>
    <p class="quiet small">
      Power and speed are a first try for cardboard, common practice: it should score it, not cut it. Stay with it,
      extinguisher at hand.
    </p>
    <p v-if="program.fault" class="fault" data-test-id="outline-fault">{{ program.fault }}</p>
    <div class="files">
      <Button
        v-if="machine.motion === 'gantry'"
        outlined
        label="G-code"
        :disabled="!program.result"
        data-test-id="outline-gcode"
        @click="take('gcode')"
      />
      <Button outlined label="SVG" :disabled="!program.result" data-test-id="outline-svg" @click="take('svg')" />
    </div>
  </details>
</template>

<style scoped>
summary {
  min-height: 44px;
  cursor: pointer;
  font-weight: 700;
}

details[open] {
  display: flex;
  flex-direction: column;
}

.files {
  display: flex;
  gap: 0.6rem;
  margin-top: 0.5rem;
}
</style>
