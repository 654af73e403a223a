<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { useTicket } from '../stores/ticket';
import { formatFigure, withUnit } from '../ui/format';
import FigureTile from '../ui/FigureTile.vue';
import NumberField from '../ui/NumberField.vue';
import TileStrip from '../ui/TileStrip.vue';
import { newestReading, usePlaceEntry } from './usePlaceEntry';

/** A round part: turned under the beam, or marked lying still in strips of focus. */
const ticket = useTicket();
const before = newestReading('round');
const diameter = ticket.substrate?.body.diameterMm ?? Number.NaN;
const nearMm = ref<number>(before?.nearMm ?? diameter);
const farMm = ref<number>(before?.farMm ?? diameter);
const alongMm = ref<number>(before?.alongMm ?? 50);
const entries = computed(() => ({ nearMm: nearMm.value, farMm: farMm.value, alongMm: alongMm.value }));
const { result, fault, keep, busy } = usePlaceEntry('round', entries);
const width = computed(() => ticket.ticket!.markWidthMm);
</script>

<template>
  <div class="form-grid">
    <NumberField v-model="nearMm" label="Diameter, wider end" unit="mm" test-id="near-mm" />
    <NumberField v-model="farMm" label="Diameter, narrower end" unit="mm" test-id="far-mm" />
    <NumberField v-model="alongMm" label="Length between them" unit="mm" test-id="along-mm" />
  </div>
  <template v-if="result">
    <TileStrip>
      <FigureTile label="a degree turns" :figure="result.mmPerDegree" :digits="4" test-id="mm-per-degree" />
      <FigureTile :label="`${width} mm of artwork`" :figure="result.degrees" :digits="4" test-id="degrees" />
      <FigureTile label="left round at the seam" :figure="result.seam" :digits="4" test-id="seam" />
    </TileStrip>
    <p v-if="result.seam.value < 0" class="fault" role="alert">
      The artwork runs over its own beginning: make it narrower.
    </p>
    <p v-if="result.tiltDegrees > 0" data-test-id="taper">
      Tapered: tilt the part by
      <span class="mono">{{ withUnit(Number(formatFigure(result.tiltDegrees, 3)), '°') }}</span> for a level line; the
      wider end comes out {{ Math.round(100 * result.stretch) }} % wider.
    </p>
    <p data-test-id="lying-still">
      Lying still, <span class="mono">{{ withUnit(Number(formatFigure(result.chord.value, 3)), 'mm') }}</span> across
      are in focus at one height<template v-if="width > result.chord.value && result.strips.length"
        >; {{ width }} mm take {{ 2 * result.strips.length - 1 }} strips:
        {{
          result.strips
            .map(
              (strip) =>
                `${strip.fromMm.toFixed(1)}–${strip.toMm.toFixed(1)} mm out, ${strip.focusBelowMm.toFixed(2)} mm below the crown`,
            )
            .join('; ')
        }}</template
      ><template v-else-if="!result.strips.length">; the artwork is wider than the part</template>.
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
