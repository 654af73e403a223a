<script setup lang="ts">
import type { CoatFault } from '@unto/core';
import Button from 'primevue/button';
import { RouterLink } from 'vue-router';
import { computed } from 'vue';
import { useShop } from '../stores/shop';
import { formatMoment, formatNumber } from '../ui/format';
import BringPicture from '../pictures/BringPicture.vue';
import NumberField from '../ui/NumberField.vue';
import { useTicket } from '../stores/ticket';
import type { CoatPictureState } from './usePicture';
import { useUnits } from '../ui/useUnits';
import TickField from '../ui/TickField.vue';

/** The last free moment: a picture of the dry coat, what is wrong with it and where, and what that would cost the mark. */
const props = defineProps<{ picture: CoatPictureState }>();
const units = useUnits();
const { size, opened, uses, map, judgement, fault, doing, stop, busy, bring, take, keep } = props.picture;
const shop = useShop();
const ticket = useTicket();
const FAULT_WORDS: Record<CoatFault, string> = {
  'thin spot': 'Thin spot',
  touched: 'Touched',
  run: 'Run',
  lump: 'Lump',
};
const ADVICE = {
  accept: { word: 'Good to fire.', text: 'Nothing that would be seen in the mark.' },
  'touch up': { word: 'Touch it up.', text: 'A light pass over the places named, let it dry, look again.' },
  'rinse off': { word: 'Rinse it off.', text: 'Coat anew: now it costs compound, after firing the piece.' },
} as const;
const percent = (share: number) => `${formatNumber(Number((100 * share).toPrecision(2)))} %`;
const costs = computed(() => {
  const found = judgement.value;
  if (!found) return '';
  const parts = [
    found.paleShare > 0 ? `${percent(found.paleShare)} of the artwork would come out pale` : '',
    found.lostShare > 0 ? `${percent(found.lostShare)} might wash off` : '',
    found.brush ? `stripes of ± ${percent(found.brush.swing)} film would show all over` : '',
  ].filter(Boolean);
  return parts.length ? `${parts.join('; ')}.` : '';
});
const history = computed(() => [...(ticket.page?.coatPictures ?? [])].reverse().slice(0, 4));
</script>

<template>
  <h2>Look before you fire</h2>
  <p class="quiet small">
    Photograph the dry coat on white paper from straight above, a bare twin beside it. Put the corner marks on the
    corners of the coat, the bare mark on bare ground.
  </p>
  <BringPicture :doing="doing" :first="!opened" @brought="bring" @take="take" @stop="stop" />
  <p v-if="fault" class="fault" role="alert" data-test-id="picture-fault">{{ fault }}</p>
  <template v-if="opened">
    <div class="form-grid">
      <NumberField v-model="size.widthMm" label="Coat width" quantity="length" test-id="picture-width" />
      <NumberField v-model="size.heightMm" label="Coat height" quantity="length" test-id="picture-height" />
    </div>
    <div class="line">
      <TickField v-model="uses.bare" test-id="use-bare">bare mark</TickField>
      <TickField v-model="uses.good" test-id="use-good">well-coated mark</TickField>
    </div>
    <div class="panel-foot">
      <section
        v-if="judgement && map"
        class="verdict"
        :class="judgement.advice.replace(' ', '-')"
        data-test-id="picture-verdict"
      >
        <p>
          <strong>{{ ADVICE[judgement.advice].word }}</strong> {{ costs || ADVICE[judgement.advice].text }}
        </p>
        <ol v-if="judgement.places.some(({ ofArtwork }) => ofArtwork > 0)" class="places" data-test-id="picture-places">
          <li v-for="(place, i) in judgement.places.filter(({ ofArtwork }) => ofArtwork > 0).slice(0, 6)" :key="i">
            <strong>{{ FAULT_WORDS[place.fault] }}</strong>,
            <span class="mono">{{ units.size(place.widthMm, place.heightMm, 1) }}</span> at
            <span class="mono">{{ units.size(place.xMm, place.yMm, 1, ', ') }}</span>: about
            {{ Math.round(100 * place.film) }} % of a good film, {{ percent(place.ofArtwork) }} of the artwork
          </li>
        </ol>
        <p v-if="judgement.brush">Brush marks along the {{ judgement.brush.along === 'x' ? 'width' : 'height' }}.</p>
        <p class="quiet small">
          Measured from the picture{{ map.bareRead ? '' : '; the bare ground was not read but taken as usual'
          }}{{
            map.lightFrom === 'surround'
              ? ''
              : '; without even paper about it, what changes slowly over the whole part cannot be told from the light'
          }}.
        </p>
      </section>
      <div class="line">
        <Button
          label="Accept"
          :outlined="judgement?.advice !== 'accept'"
          :disabled="!map"
          :loading="busy"
          data-test-id="picture-accept"
          @click="keep('accepted')"
        />
        <Button
          label="Touch up"
          :outlined="judgement?.advice !== 'touch up'"
          :disabled="!map || busy"
          data-test-id="picture-touch-up"
          @click="keep('touch up')"
        />
        <Button
          label="Rinse off"
          :outlined="judgement?.advice !== 'rinse off'"
          severity="secondary"
          :disabled="!map || busy"
          data-test-id="picture-rinse"
          @click="keep('rinsed off')"
        />
      </div>
    </div>
  </template>
  <section v-if="history.length" data-test-id="picture-history">
    <h3>Pictures on this ticket</h3>
    <p v-for="one in history" :key="one.id" class="small">
      <a :href="`/api/files/${one.entries.fileHash}`">{{ formatMoment(one.at) }}</a>: {{ one.decision }},
      {{ one.judgement.places.length ? `${one.judgement.places.length} places named` : 'nothing found' }}
      <span class="quiet">{{ shop.personOf(one.by) }}</span>
      <RouterLink v-if="one.judgement.places.length" :to="`/faults/coat/${one.id}`"> Find the fault</RouterLink>
    </p>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.7rem;
}

.verdict {
  padding: 0.55rem 0.75rem;
  border: 1px solid var(--unto-rule);
  border-left: 4px solid var(--unto-bonded);
}

.touch-up {
  border-left-color: var(--unto-coat-line);
}

.rinse-off {
  border-left-color: var(--unto-danger);
}

.places {
  margin: 0.3rem 0;
  padding-left: 1.3rem;
}
</style>
