<script setup lang="ts">
import { CONTRAST_STEPS, type LedgerRecord } from '@unto/contract';
import { restWords } from '@unto/core';
import { useQuery } from '@pinia/colada';
import { computed } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import { api } from '../api/client';
import { useShop } from '../stores/shop';
import PageHead from '../ui/PageHead.vue';
import { formatDuration, formatFigure, formatMoment, GRADE_WORDS, withUnit } from '../ui/format';
import { useUnits } from '../ui/useUnits';

/** Runs held against one another: every part of their record in a row, what differs set off. */
const MOST = 5;
const route = useRoute();
const shop = useShop();
const units = useUnits();
const ids = computed(() =>
  String(route.query['runs'] ?? '')
    .split(',')
    .filter(Boolean)
    .slice(0, MOST),
);
const { data, error } = useQuery({
  key: () => ['run', 'several', ...ids.value],
  query: () => Promise.all(ids.value.map((id) => api.call('run', { params: { id } }))),
  enabled: () => ids.value.length > 0,
});
const runs = computed(() => data.value ?? []);

type Said = (run: LedgerRecord) => string;
const PARTS: readonly (readonly [label: string, said: Said])[] = [
  ['Ticket', (run) => run.ticketTitle],
  ['Substrate', (run) => run.substrateName],
  ['Compound', (run) => run.compoundName ?? 'none'],
  ['Head and lens', (run) => `${run.headName}, ${run.lensName}`],
  ['Power', (run) => withUnit(run.power.value, run.power.unit)],
  ['At the part', (run) => (run.powerW === null ? 'unknown' : withUnit(run.powerW, 'W'))],
  ['Speed', (run) => withUnit(run.speed.value, run.speed.unit)],
  ['Interval', (run) => withUnit(run.interval.value, run.interval.unit)],
  ['The rest of it', (run) => restWords(run, units.reading.value).join(', ') || '–'],
  ['Air', (run) => run.air ?? 'not said'],
  ['Dose', (run) => (run.dose ? `${formatFigure(run.dose.value)} J/mm²` : '–')],
  ['Film', (run) => (run.bench?.coat ? units.figure('film', run.bench.coat.film.value) : '–')],
  ['Can', (run) => [run.bench?.coat?.container, run.bench?.coat?.lot].filter(Boolean).join(', lot ') || '–'],
  ['Dried', (run) => (run.bench?.coat?.driedS ? formatDuration(run.bench.coat.driedS) : 'not clocked')],
  ['Blank', (run) => [run.bench?.blank?.name, run.bench?.blank?.lot].filter(Boolean).join(', lot ') || '–'],
  ['Rests on', (run) => GRADE_WORDS[run.grade].word],
  ['Pieces', (run) => String(run.pieces)],
  ['Good', (run) => (run.judgement ? `${run.judgement.piecesGood} of ${run.pieces}` : 'not judged')],
  ['Contrast', (run) => (run.judgement ? CONTRAST_STEPS[run.judgement.contrastStep - 1]!.word : '–')],
  ['Evenness', (run) => run.judgement?.evenness ?? '–'],
  ['Faults', (run) => run.judgement?.faults.join(', ') || 'none seen'],
  ['Cleaning', (run) => (run.cleaning ? `${run.cleaning.method}, residue ${run.cleaning.residue}` : 'not yet')],
  ['Minutes a piece', (run) => withUnit(run.minutes / run.pieces, 'min', 3)],
  ['By', (run) => shop.personOf(run.by)],
];
const rows = computed(() =>
  PARTS.map(([label, said]) => {
    const cells = runs.value.map(said);
    return { label, cells, differs: new Set(cells).size > 1 };
  }),
);
</script>

<template>
  <PageHead title="Side by side" :about="`${runs.length} runs; what differs is set off`"
    ><RouterLink to="/ledger">Ledger</RouterLink></PageHead
  >
  <p v-if="error" class="missing fault" role="alert">{{ error.message }}</p>
  <div class="body">
    <table v-if="runs.length" class="plain" data-test-id="side-by-side-table">
      <thead>
        <tr>
          <th></th>
          <th v-for="run in runs" :key="run.id">
            <RouterLink :to="`/ledger/${run.id}`">{{ formatMoment(run.at) }}</RouterLink>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.label" :class="{ differs: row.differs }">
          <th scope="row">{{ row.label }}</th>
          <td v-for="(cell, i) in row.cells" :key="i">{{ cell }}</td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="!ids.length" class="quiet">Press + beside two runs or more in the ledger, then “side by side”.</p>
  </div>
</template>

<style scoped>
.missing {
  padding: 2rem;
}

.body {
  padding: 0.8rem 1.5rem 1.5rem;
  overflow-x: auto;
}

tbody th {
  text-align: left;
  font-weight: 400;
  color: var(--unto-quiet);
}

.differs td {
  font-weight: 700;
}

.differs th {
  border-left: 4px solid var(--unto-coat-line);
  padding-left: 0.5rem;
}
</style>
