<script setup lang="ts">
import { crossesGcode } from '@unto/core';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { useTicket } from '../stores/ticket';
import FigureTile from '../evidence/FigureTile.vue';
import BringPicture from '../pictures/BringPicture.vue';
import { formatMoment } from '../ui/format';
import NumberField from '../ui/NumberField.vue';
import { orFault } from '../ui/or-fault';
import { saveFile } from '../ui/save-file';
import TileStrip from '../ui/TileStrip.vue';
import { useUnits } from '../ui/useUnits';
import type { BedState } from './useBed';

/** Placing by a picture: the card's place in the machine learnt by two crosses, then the pieces found and put right one by one. */
const props = defineProps<{ state: BedState }>();
const { doing, fault, stop, bring, size, learns, learning, cardZero, stale, burnt, zero, keepZero, bed, pieces } =
  props.state;
const { laid, turn, add, remove, seen } = props.state;
const missed = computed(() => seen.value.flatMap(({ cross }, i) => (cross ? [] : [i + 1])));
const { result: zeroAt, fault: zeroFault, busy: zeroBusy } = zero;
const { fault: laidFault, keep: keepLaid, busy: laidBusy } = laid;
const ticket = useTicket();
const units = useUnits();
/** Crosses further off than this are two others, or the card lies bent, mm. */
const OFF_MM = 0.5;
/** Places told worse than this want another picture, mm: common practice, no source. */
const FAR_MM = 1;
const power = ref(Number.NaN);
const speed = ref(Number.NaN);
const wrong = computed(() => zeroAt.value !== null && Math.abs(zeroAt.value.longer.value) > OFF_MM);
const program = computed(() =>
  orFault(() =>
    crossesGcode(
      burnt.value,
      { powerPercent: power.value, speedMmPerS: speed.value },
      ticket.fitted!.machine.fullScaleS,
    ),
  ),
);
const chosen = defineModel<number | null>('chosen', { required: true });
</script>

<template>
  <h2>Placed by a picture</h2>
  <template v-if="learns">
    <p class="quiet small">
      Learnt once: where the card lies in this machine. Fix the card where it can always be laid again, at the height of
      the parts’ upper side. Burn two crosses on scrap, far apart, and photograph both with the card from above.
    </p>
    <div v-for="(point, i) in burnt" :key="i" class="form-grid">
      <NumberField v-model="point.xMm" :label="`Cross ${i + 1} at x`" quantity="length" :test-id="`cross-${i}-x`" />
      <NumberField v-model="point.yMm" label="and y" quantity="length" :test-id="`cross-${i}-y`" />
    </div>
    <div class="form-grid">
      <NumberField v-model="power" label="Power on scrap, %" test-id="cross-power" />
      <NumberField v-model="speed" label="Speed, mm/s" test-id="cross-speed" />
    </div>
    <Button
      outlined
      size="small"
      label="G-code of the crosses"
      :disabled="!program.result"
      data-test-id="cross-program"
      @click="saveFile('crosses.gcode', 'text/x-gcode', program.result!)"
    />
    <p class="quiet small">Firing on scrap is a firing: enclosure shut, eyewear on.</p>
    <BringPicture :doing="doing" no-camera :again="size !== null" @brought="bring" @stop="stop" />
    <template v-if="size">
      <p>
        Move the two marks onto the crosses, 1 and 2 as above; the middle of each is found within 5 mm.
        <span v-if="missed.length" class="quiet" data-test-id="cross-missed"
          >No cross shows at mark {{ missed.join(' and ') }} yet.</span
        >
      </p>
      <TileStrip v-if="zeroAt">
        <FigureTile label="the card is turned" :figure="zeroAt.turn" :digits="4" test-id="zero-turn" />
        <FigureTile label="its corner at x" :figure="zeroAt.zeroX" :digits="5" test-id="zero-x" />
        <FigureTile label="and y" :figure="zeroAt.zeroY" :digits="5" test-id="zero-y" />
      </TileStrip>
      <p v-if="zeroAt" :class="wrong ? 'fault' : 'quiet small'" data-test-id="zero-longer">
        The crosses lie {{ units.rounded('length', Math.abs(zeroAt.longer.value), 0.01) }}
        {{ zeroAt.longer.value >= 0 ? 'further apart' : 'nearer' }} in the picture than they were burnt{{
          wrong ? ': put the marks right, or the card lies bent or at another height' : ': so far a piece may lie off'
        }}.
      </p>
      <p v-else class="quiet small">{{ zeroFault }}</p>
    </template>
    <p v-if="fault" class="fault" role="alert" data-test-id="bed-fault">{{ fault }}</p>
    <Button
      label="So lies the card"
      :disabled="!size || !zeroAt || wrong"
      :loading="zeroBusy"
      data-test-id="keep-zero"
      @click="keepZero"
    />
    <Button v-if="learning" text label="Leave it as it was" @click="learning = false" />
  </template>
  <template v-else>
    <p class="quiet small">
      The card’s place was learnt {{ formatMoment(cardZero!.at) }}, good to
      {{ units.rounded('length', Math.abs(cardZero!.result.longer.value), 0.01) }}.
      <button type="button" class="link" data-test-id="learn-again" @click="learning = true">Learn it again</button>
    </p>
    <p v-if="stale" class="fault" role="status" data-test-id="zero-stale">
      The head was changed since. Burn a cross at a place that this picture tells, and look whether it falls there; else
      learn it again.
    </p>
    <p>Lay the pieces apart on the bed, the card in its place, and photograph all of it from above.</p>
    <BringPicture :doing="doing" no-camera first :again="bed !== null" @brought="bring" @stop="stop" />
    <p v-if="fault" class="fault" role="alert" data-test-id="bed-fault">{{ fault }}</p>
    <template v-if="bed">
      <p data-test-id="bed-found">
        <strong>{{ pieces.length }} {{ pieces.length === 1 ? 'piece' : 'pieces' }}</strong
        ><template v-if="bed.others">; {{ bed.others }} other things lie there</template>. Drag each where it is not
        right, or move it by the arrow keys; the artwork goes with it.
      </p>
      <p v-if="pieces.length" :class="bed.spreadMm > FAR_MM ? 'fault' : 'quiet small'" data-test-id="bed-spread">
        By the card their places are told to {{ units.rounded('length', bed.spreadMm, 0.1) }}, nine of ten{{
          bed.spreadMm > FAR_MM
            ? ': lay the card among them, take the larger one, or a sharper picture; else see by a trial outline'
            : '; what the crosses were off comes on top'
        }}.
      </p>
      <div v-if="chosen !== null && pieces[chosen]" class="line" data-test-id="bed-chosen">
        <strong>Piece {{ chosen + 1 }}</strong>
        <Button outlined size="small" label="Turn ½" data-test-id="turn-half" @click="turn(chosen, 180)" />
        <Button outlined size="small" label="−0.5°" @click="turn(chosen, -0.5)" />
        <Button outlined size="small" label="+0.5°" @click="turn(chosen, 0.5)" />
        <Button
          outlined
          size="small"
          severity="danger"
          label="Not there"
          data-test-id="bed-remove"
          @click="remove(chosen)"
        />
      </div>
      <Button text size="small" label="Another piece lies there" data-test-id="bed-add" @click="add" />
      <p v-if="laidFault" class="quiet small">{{ laidFault }}</p>
      <Button
        :label="`Mark them where they lie (${pieces.length})`"
        :disabled="laidFault !== ''"
        :loading="laidBusy"
        data-test-id="keep-laid"
        @click="keepLaid('taken')"
      />
    </template>
  </template>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem;
}

.link {
  padding: 0;
  border: 0;
  background: none;
  color: var(--unto-action);
  font: inherit;
  font-weight: 700;
  cursor: pointer;
}
</style>
