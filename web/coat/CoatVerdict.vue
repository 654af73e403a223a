<script setup lang="ts">
import { computed } from 'vue';
import { useTicket } from '../stores/ticket';
import { formatFigure } from '../ui/format';
import GradeMark from '../evidence/GradeMark.vue';
import type { Coat } from './useCoat';
import { changeInWords, FINDINGS, LIKELY, VERDICTS } from './words';
import { useUnits } from '../ui/useUnits';

/** What is known of the newest coat, against its band, and what to do next time. */
const props = defineProps<{ coat: Coat }>();
const units = useUnits();
const { body, verdict, newest, containers } = props.coat;
const ticket = useTicket();
/** Verdicts that the reading does not rule out beside its own. */
const others = computed(() => {
  const { possible = [], verdict: own } = verdict.value?.judgement ?? {};
  return possible.filter((word) => word !== own).map((word) => (word === 'right' ? 'in the band' : `too ${word}`));
});
const uneven = computed(() => verdict.value?.findings.map((finding) => FINDINGS[finding]) ?? []);
/** As the shelf tells it: grams of the newest weighing at the mean rate of all weighings out of the container, in pieces of this ticket. */
const leftInCan = computed(() => {
  const container = containers.value.find(({ id }) => id === newest.value?.containerId);
  const pieces = ticket.page?.containersLeft.find(({ containerId }) => containerId === container?.id)?.pieces;
  return container && pieces
    ? {
        text: `${container.body.name}: ${formatFigure(pieces.value)} pieces like these left at the rate so far.`,
        pieces,
      }
    : null;
});
</script>

<template>
  <section
    v-if="verdict"
    class="verdict"
    :class="uneven.length ? 'uneven' : verdict.judgement.verdict"
    data-test-id="film-verdict"
  >
    <p>
      <strong>{{ (others.length ? LIKELY : VERDICTS)[verdict.judgement.verdict] }}</strong>
      {{ units.figure('film', verdict.film.value) }} dry<template v-if="newest"> on {{ newest.pieces }} pieces</template
      >, wanted {{ units.span('film', body.dryFilmMinUm, body.dryFilmMaxUm) }}.
      <template v-if="others.length && verdict.film.interval"
        >The reading ({{ units.span('film', verdict.film.interval.low, verdict.film.interval.high) }}) also allows
        {{ others.join(' and ') }}.</template
      >
      <GradeMark :figure="verdict.film" title="Dry film" />
    </p>
    <p v-if="uneven.length" data-test-id="coat-findings"><strong>But</strong> {{ uneven.join('; ') }}.</p>
    <p v-for="[one, other] in verdict.contradictions" :key="one + other" data-test-id="coat-contradiction">
      {{ one.charAt(0).toUpperCase() + one.slice(1) }} and {{ other }} cannot both be right: read one of them again.
    </p>
    <p v-if="verdict.change" data-test-id="coat-change">Next time: {{ changeInWords(verdict.change, units) }}</p>
    <p v-if="newest?.afterPotLife" class="fault">
      Its mix was past its time when this was laid: prove it on a coupon before it goes on pieces.
    </p>
    <p v-if="leftInCan" class="quiet small" data-test-id="left-in-can">
      {{ leftInCan.text }} <GradeMark :figure="leftInCan.pieces" title="Pieces left" />
    </p>
  </section>
</template>

<style scoped>
.verdict {
  padding: 0.55rem 0.75rem;
  border: 1px solid var(--unto-rule);
  border-left: 4px solid var(--unto-danger);
}

.verdict.right {
  border-left-color: var(--unto-bonded);
}
</style>
