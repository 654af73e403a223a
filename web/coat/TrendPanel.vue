<script setup lang="ts">
import { filmChange, filmTrend, ROOM_SAMPLES, roomEffect } from '@unto/core';
import type { CoatSample } from '@unto/contract';
import { bandOf, techniqueOf } from '@unto/domain';
import { useQuery } from '@pinia/colada';
import { computed } from 'vue';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useShop } from '../stores/shop';
import { formatDay, formatFigure } from '../ui/format';
import type { Coat } from './useCoat';
import { changeInWords } from './words';
import { useUnits } from '../ui/useUnits';

/** How each hand has laid this compound: mean, drift, and what would bring it into the band. */
const props = defineProps<{ coat: Coat }>();
const units = useUnits();
const { body, compound } = props.coat;
const shop = useShop();
const { data, error } = useQuery({
  key: () => KEYS.coatTrend(compound.value.id),
  query: () => api.all('coatTrend', { compoundId: compound.value.id }),
});
/** Oldest first, as a trend is read. */
const samples = computed<readonly CoatSample[] | null>(() => (data.value ? [...data.value].reverse() : null));
const fault = computed(() => (error.value ? `${error.value.message} The trend shows as soon as it does.` : ''));
const DAY_MS = 86_400_000;
const band = computed(() => bandOf(body.value));
const DRIFTS = { steady: 'steady', rising: 'getting thicker', falling: 'getting thinner' } as const;

const points = computed(() =>
  (samples.value ?? []).map(({ at, film, by, ticketTitle }) => ({
    atMs: Date.parse(at),
    filmUm: film.value,
    lowUm: film.interval?.low ?? film.value,
    highUm: film.interval?.high ?? film.value,
    who: shop.personOf(by),
    ticket: ticketTitle,
  })),
);
const people = computed(() =>
  [...new Set(points.value.map(({ who }) => who))].map((who) => {
    const own = points.value.filter((point) => point.who === who);
    const trend = filmTrend(
      own.map(({ atMs, filmUm }) => ({ day: atMs / DAY_MS, filmUm })),
      band.value,
    );
    const counted = (samples.value ?? []).filter(({ by, strokes }) => strokes !== null && shop.personOf(by) === who);
    const strokes = counted.length ? counted.at(-1)!.strokes : null;
    return { who, trend, change: filmChange(trend.meanUm, band.value, techniqueOf(body.value, strokes)) };
  }),
);
/** What the room did to the share that reaches the part, one thing of it at a time. */
const rooms = computed(() =>
  ROOM.map(({ key, name, unit }) => {
    const noted = (samples.value ?? []).flatMap((sample) =>
      sample.transferValue !== null && sample[key] !== null
        ? [{ transfer: sample.transferValue, room: sample[key] }]
        : [],
    );
    return { name, unit, count: noted.length, effect: roomEffect(noted) };
  }).filter(({ count }) => count > 0),
);
const ROOM = [
  { key: 'roomC', name: 'temperature', unit: '°C' },
  { key: 'roomHumidity', name: 'humidity', unit: '% humidity' },
] as const;
const percent = (fraction: number) => `${fraction < 0 ? '−' : '+'}${formatFigure(Math.abs(fraction) * 100, 2)} %`;
defineExpose({ points, band });
</script>

<template>
  <h2>How {{ body.name }} was laid</h2>
  <p v-if="fault" class="fault">{{ fault }}</p>
  <p v-else-if="samples && !samples.length" class="quiet">
    No coat of it was weighed yet. Weigh the can before and after at “Lay”.
  </p>
  <section v-for="{ who, trend, change } in people" :key="who" class="person" data-test-id="trend-person">
    <h3>{{ who }}</h3>
    <p>
      <span class="mono">{{ units.figure('film', trend.meanUm) }}</span> on average of {{ trend.count }},
      {{ trend.inBand }} in the band; {{ DRIFTS[trend.verdict]
      }}<template v-if="trend.drift && trend.verdict !== 'steady'"
        >, {{ units.figure('film', Math.abs(trend.drift.perMonthUm), 2) }} a month</template
      >.
      <template v-if="trend.next"
        >The next falls between
        <span class="mono"
          >{{ formatFigure(units.read('film', trend.next.lowUm).value, 2) }} and
          {{ units.text('film', trend.next.highUm, 2) }}</span
        >
        nine times in ten.</template
      >
    </p>
    <p v-if="change" data-test-id="trend-change">
      <strong>To come into the band:</strong> {{ changeInWords(change, units) }}
    </p>
  </section>
  <p v-for="{ name, unit, count, effect } in rooms" :key="name" data-test-id="room-effect">
    <strong>Room {{ name }}:</strong>
    <template v-if="effect">
      {{ percent(effect.perUnit) }} of the solids on the part for every {{ unit }} more ({{ percent(effect.low) }} to
      {{ percent(effect.high) }}, of {{ effect.count }} coats);
      {{ effect.seen ? 'seen, not explained: what else changed with the room is in it.' : 'none is seen.' }}
    </template>
    <template v-else
      >nothing can be said of {{ count }} coats; {{ ROOM_SAMPLES }} with parts weighed, in rooms that differ, would
      show.</template
    >
  </p>
  <details v-if="samples?.length">
    <summary>As a table</summary>
    <table class="plain" data-test-id="trend-table">
      <thead>
        <tr>
          <th scope="col">Day</th>
          <th scope="col">Who</th>
          <th scope="col">Ticket</th>
          <th scope="col" class="number">{{ units.unit('film') }}</th>
          <th scope="col" class="number">{{ units.unit('mass') }} a piece</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="sample in [...samples].reverse()" :key="sample.id">
          <td>{{ formatDay(sample.at) }}</td>
          <td>{{ shop.personOf(sample.by) }}</td>
          <td>{{ sample.ticketTitle }}</td>
          <td class="number">{{ formatFigure(units.read('film', sample.film.value).value) }}</td>
          <td class="number">{{ formatFigure(units.read('mass', sample.massAppliedG / sample.pieces).value) }}</td>
        </tr>
      </tbody>
    </table>
  </details>
</template>

<style scoped>
.person {
  padding-bottom: 0.5rem;
  border-bottom: 1px solid var(--unto-rule);
}

summary {
  min-height: 44px;
  cursor: pointer;
}
</style>
