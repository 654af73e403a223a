<script setup lang="ts">
import { PARAMETER_QUANTITIES, PARAMETER_UNITS } from '@unto/core';
import { computed, ref } from 'vue';
import { useShop } from '../stores/shop';
import FileLabel from '../ui/FileLabel.vue';
import ChoiceField from '../ui/ChoiceField.vue';
import NumberField from '../ui/NumberField.vue';
import { fixedParameters, varies, type DesignDraft } from './design-form';
import { readArtwork } from './read-artwork';
import TickField from '../ui/TickField.vue';

/** Everything of a coupon but its axes: what all cells share, their shape and order, labels, the blank. */
const draft = defineModel<DesignDraft>({ required: true });
const shop = useShop();
const fault = ref('');
const fixed = computed(() => fixedParameters(draft.value));
const NAMES = {
  power: 'Power',
  speed: 'Speed',
  interval: 'Line interval',
  frequency: 'Frequency',
  pulse: 'Pulse length',
} as const;
const FIXED_KEYS = {
  power: 'powerPercent',
  speed: 'speedMmPerS',
  interval: 'intervalMm',
  frequency: 'frequencyKHz',
  pulse: 'pulseNs',
} as const;
const FILLS = [
  { value: 'filled', label: 'filled' },
  { value: 'lines', label: 'separate lines' },
  { value: 'artwork', label: 'a piece of the artwork' },
] as const;
const DIRECTIONS = [
  { value: 'two-way', label: 'both ways' },
  { value: 'one-way', label: 'one way' },
] as const;
const LABELS = [
  { value: 'each', label: 'at every cell' },
  { value: 'edges', label: 'rows and columns' },
] as const;
const compounds = computed(() => shop.inUse('compound').map(({ id, body }) => ({ value: id, label: body.name })));
const blockCount = computed(() => draft.value.block.list.split(/[;,\s]+/).filter(Boolean).length);

async function bringArtwork(file: File): Promise<void> {
  try {
    draft.value.artwork = readArtwork(file.name, await file.text());
    fault.value = '';
  } catch (error) {
    fault.value = (error as Error).message;
  }
}
</script>

<template>
  <fieldset v-if="varies(draft, 'compound')">
    <legend>Compounds of the blocks</legend>
    <ChoiceField
      v-for="number in blockCount"
      :key="number"
      v-model="draft.compoundIds[number - 1]!"
      :label="`Block ${String.fromCharCode(64 + number)}`"
      :options="compounds"
      :test-id="`block-compound-${number}`"
    />
  </fieldset>
  <div class="grid">
    <NumberField
      v-for="parameter in fixed"
      :key="parameter"
      v-model="draft[FIXED_KEYS[parameter]]"
      :label="`${NAMES[parameter]}, all cells`"
      :unit="PARAMETER_UNITS[parameter]"
      :quantity="PARAMETER_QUANTITIES[parameter]"
      :test-id="`fixed-${parameter}`"
    />
    <NumberField v-if="!varies(draft, 'passes')" v-model="draft.passes" label="Passes" />
    <NumberField v-if="!varies(draft, 'focus')" v-model="draft.focusOffsetMm" label="Focus offset" quantity="length" />
    <NumberField v-model="draft.blankWidthMm" label="Blank width" quantity="length" test-id="blank-width" />
    <NumberField v-model="draft.blankHeightMm" label="Blank height" quantity="length" test-id="blank-height" />
    <NumberField v-model="draft.marginMm" label="Margin" quantity="length" test-id="margin" />
    <NumberField v-model="draft.cellWidthMm" label="Cell width" quantity="length" test-id="cell-width" />
    <NumberField v-model="draft.cellHeightMm" label="Cell height" quantity="length" test-id="cell-height" />
    <NumberField v-model="draft.gapMm" label="Gap" quantity="length" test-id="gap" />
    <ChoiceField v-model="draft.fill" label="Cells" :options="FILLS" test-id="fill" />
    <NumberField v-if="draft.fill === 'lines'" v-model="draft.lineSpacingMm" label="Line spacing" quantity="interval" />
    <FileLabel
      v-if="draft.fill === 'artwork'"
      :label="draft.artwork ? draft.artwork.name : 'Bring its SVG'"
      accept=".svg,image/svg+xml"
      look="outlined"
      test-id="artwork-file"
      @brought="bringArtwork"
    />
    <NumberField
      v-if="draft.fill !== 'artwork' && !varies(draft, 'angle')"
      v-model="draft.hatchAngleDeg"
      label="Hatch angle"
      unit="°"
      test-id="angle"
    />
    <ChoiceField v-model="draft.directions" label="Rows run" :options="DIRECTIONS" />
    <ChoiceField v-model="draft.labelsAt" label="Labels" :options="LABELS" test-id="labels" />
    <NumberField v-model="draft.labelHeightMm" label="Letter height" quantity="length" />
    <NumberField v-model="draft.labelPowerPercent" label="Label power" quantity="power" test-id="label-power" />
    <NumberField v-model="draft.labelSpeedMmPerS" label="Label speed" quantity="speed" test-id="label-speed" />
  </div>
  <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  <div class="ticks">
    <TickField v-if="!varies(draft, 'hatches')" v-model="draft.crossed" test-id="crossed"
      >hatch every cell again at a right angle</TickField
    >
    <TickField v-model="draft.anchors" test-id="anchors"
      >the middle setting again in corners and centre, to show drift</TickField
    >
    <TickField v-model="draft.bareStrip" test-id="bare-strip">a strip left uncoated beside the grid</TickField>
    <TickField v-model="draft.shuffled" test-id="shuffled"
      >burn in shuffled order, so that heat follows no axis</TickField
    >
  </div>
</template>

<style scoped>
fieldset {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0.4rem;
  margin: 0;
  padding: 0 0.5rem 0.5rem;
  border: 1px solid var(--unto-rule);
}

legend {
  font-size: 0.88rem;
  font-weight: 700;
  padding: 0 0.3rem;
}

.grid {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0.45rem 0.7rem;
  align-items: end;
}

.ticks input {
  flex: none;
  width: 1.1rem;
  height: 1.1rem;
  accent-color: var(--unto-action);
}
</style>
