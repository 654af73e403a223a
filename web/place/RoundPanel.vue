<script setup lang="ts">
import { ROUND_SHAPES, type PlaceEntriesOf } from '@unto/contract';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { useTicket } from '../stores/ticket';
import { formatFigure, withUnit } from '../ui/format';
import ChoiceField from '../ui/ChoiceField.vue';
import { choicesOf } from '../ui/choices';
import FigureTile from '../evidence/FigureTile.vue';
import NumberField from '../ui/NumberField.vue';
import TileStrip from '../ui/TileStrip.vue';
import { newestReading, usePlaceEntry } from './usePlaceEntry';
import { useUnits } from '../ui/useUnits';

/** A round part: turned under the beam, or marked lying still in strips of focus. */
const ticket = useTicket();
const units = useUnits();
const before = newestReading('round');
const diameter = ticket.substrate?.body.diameterMm ?? Number.NaN;
const shape = ref<NonNullable<PlaceEntriesOf['round']['shape']>>(before?.shape ?? 'cylinder or cone');
const sphere = computed(() => shape.value === 'sphere');
const nearMm = ref<number>(before?.nearMm ?? diameter);
const farMm = ref<number>(before?.farMm ?? diameter);
const alongMm = ref<number>(before?.alongMm ?? 50);
const entries = computed(() => ({
  shape: shape.value,
  nearMm: nearMm.value,
  farMm: sphere.value ? nearMm.value : farMm.value,
  alongMm: alongMm.value,
}));
const { result, fault, keep, busy } = usePlaceEntry('round', entries);
const width = computed(() => ticket.ticket!.markWidthMm);
const widest = computed(() => (sphere.value ? nearMm.value : Math.min(nearMm.value, farMm.value)));
defineExpose({ result, widest, sphere });
</script>

<template>
  <div class="form-grid">
    <ChoiceField v-model="shape" class="wide" label="Shape" :options="choicesOf(ROUND_SHAPES)" test-id="round-shape" />
    <NumberField
      v-model="nearMm"
      :label="sphere ? 'Diameter' : 'Diameter, wider end'"
      quantity="length"
      test-id="near-mm"
    />
    <NumberField v-if="!sphere" v-model="farMm" label="Diameter, narrower end" quantity="length" test-id="far-mm" />
    <NumberField v-if="!sphere" v-model="alongMm" label="Length between them" quantity="length" test-id="along-mm" />
  </div>
  <template v-if="result">
    <TileStrip v-if="!sphere">
      <FigureTile label="a degree turns" :figure="result.mmPerDegree" :digits="4" test-id="mm-per-degree" />
      <FigureTile
        :label="`${units.text('length', width)} of artwork`"
        :figure="result.degrees"
        :digits="4"
        test-id="degrees"
      />
      <FigureTile label="left round at the seam" :figure="result.seam" :digits="4" test-id="seam" />
    </TileStrip>
    <p v-if="!sphere && result.seam.value < 0" class="fault" role="alert">
      The artwork runs over its own beginning: make it narrower.
    </p>
    <p v-if="result.tiltDegrees > 0" data-test-id="taper">
      Tapered: tilt the part by
      <span class="mono">{{ withUnit(Number(formatFigure(result.tiltDegrees, 3)), '°') }}</span> for a level line; the
      wider end comes out {{ Math.round(100 * result.stretch) }} % wider.
    </p>
    <p data-test-id="lying-still">
      Lying still, <span class="mono">{{ units.text('length', result.chord.value, 3) }}</span> across are in focus at
      one height<template v-if="result.strips.length > 1"
        >; the {{ sphere ? 'artwork takes' : `${units.text('length', width)} take` }}
        {{ result.strips.length }} heights, in
        {{ sphere ? `${result.strips.length} rings` : `${2 * result.strips.length - 1} strips` }}:</template
      ><template v-else>{{ result.strips.length ? '.' : '; the artwork is wider than the part.' }}</template>
    </p>
    <ol v-if="result.strips.length > 1" class="strips" data-test-id="strips">
      <li v-for="(strip, i) in result.strips" :key="i">
        <span class="mono">{{ units.size(strip.fromMm, strip.toMm, 0.1, '–') }}</span> out, focus
        <span class="mono">{{ units.rounded('length', strip.focusBelowMm, 0.01) }}</span> below the crown
      </li>
    </ol>
    <p v-if="!sphere && nearMm !== farMm && result.strips.length" class="quiet small">
      Reckoned at the narrower end, where it falls away most.
    </p>
  </template>
  <p v-else class="quiet small" data-test-id="round-fault">{{ fault }}</p>
  <div class="panel-foot">
    <Button
      label="Keep this part"
      :disabled="!result"
      :loading="busy"
      data-test-id="keep-round"
      @click="keep('taken')"
    />
  </div>
</template>

<style scoped>
.strips {
  margin: 0;
  padding-left: 1.4rem;
}
</style>
