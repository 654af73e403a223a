<script setup lang="ts">
import { CAUSE_WORDS, restWords, stoodWords } from '@unto/core';
import { CONTRAST_STEPS } from '@unto/contract';
import { runCost, type RunCost } from '@unto/domain';
import { useQuery } from '@pinia/colada';
import { computed, ref } from 'vue';
import Button from 'primevue/button';
import { RouterLink } from 'vue-router';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useShop } from '../stores/shop';
import { formatDuration, formatMoment, formatMoney, withUnit } from '../ui/format';
import FigureTile from '../evidence/FigureTile.vue';
import GradeMark from '../evidence/GradeMark.vue';
import PageHead from '../ui/PageHead.vue';
import RemarkForm from '../remarks/RemarkForm.vue';
import RemarkList from '../remarks/RemarkList.vue';
import { useRemarks } from '../remarks/useRemarks';
import TileStrip from '../ui/TileStrip.vue';
import { useUnits } from '../ui/useUnits';

const props = defineProps<{ id: string }>();
const units = useUnits();
const shop = useShop();
const { data, error } = useQuery({
  key: () => KEYS.run(props.id),
  query: () => api.call('run', { params: { id: props.id } }),
});
const run = computed(() => data.value ?? null);
const rest = computed(() => (run.value ? restWords(run.value, units.reading.value) : []));
/** What lay under the beam, as far as it was kept. */
const benchRows = computed<[string, string][]>(() => {
  const { coat, focus, blank } = run.value?.bench ?? {};
  const dried = coat?.driedS ? `, dried ${formatDuration(coat.driedS)}` : ', drying not clocked';
  const film = coat && units.figure('film', coat.film.value);
  return [
    ...(coat
      ? [
          ['Coat', `${units.figure('mass', coat.laidG)} on ${coat.pieces} pieces, ${film} dry${dried}`] as [
            string,
            string,
          ],
        ]
      : []),
    ...(coat ? [['Container', coat.container] as [string, string]] : []),
    ...(focus?.foundMm || focus?.setBy
      ? [
          [
            'Focus',
            [
              focus.foundMm ? `found at ${units.text('length', focus.foundMm)}` : '',
              focus.setBy ? `set by ${focus.setBy}` : '',
            ]
              .filter(Boolean)
              .join(', '),
          ] as [string, string],
        ]
      : []),
    ...(blank
      ? [
          [
            'Blank',
            [blank.name, blank.supplier, blank.grade, blank.lot && `lot ${blank.lot}`].filter(Boolean).join(', '),
          ] as [string, string],
        ]
      : []),
  ];
});
const { data: followed } = useQuery({
  key: () => ['faults', 'story', props.id],
  query: () => api.call('runStory', { params: { id: props.id } }),
});
const story = computed(() => followed.value ?? null);
const stood = computed(() => (story.value?.stood ?? []).map(stoodWords));
const NOT_READ: Record<RunCost['notRead'][number], string> = {
  compound: 'the compound was not weighed and counts nothing',
  'laser minutes': 'laser minutes as planned',
  cleaning: 'cleaning as usual',
};
const money = (minor: number) => formatMoney(minor, shop.workshop!.currency);
/** What its pieces came to, and of what. */
const cost = computed(() => {
  const { work, reworkOf } = story.value ?? {};
  if (!run.value || !work || !shop.workshop) return null;
  const { totalMinor, goodMinor, parts, notRead } = runCost(run.value, work, reworkOf !== null);
  return {
    whole: money(totalMinor) + (goodMinor === null ? '' : `, ${money(goodMinor)} a good piece`),
    parts: parts.map(({ what, minor }) => `${what} ${money(minor)}`).join(', '),
    notRead: notRead.map((one) => NOT_READ[one]).join('; '),
  };
});
const found = computed(() =>
  (story.value?.cases ?? []).map((one) => {
    const finding = one.findings.at(-1);
    const causes = finding?.causes.map((cause) => CAUSE_WORDS[cause].toLowerCase()).join(' and ');
    const looks = one.looks.at(-1)!.faults.join(', ');
    const what = !finding ? 'looked for, not settled' : causes || 'not found out';
    return {
      id: one.id,
      words: `${looks}: ${what}`,
      changed: finding?.remedies.map(({ words }) => words) ?? [],
      corrected: one.findings.length > 1,
    };
  }),
);
const { remarks, retire } = useRemarks(
  () => run.value?.ticketId ?? null,
  () => props.id,
);
const noting = ref(false);
const missing = computed(() => error.value?.message ?? '');
</script>

<template>
  <p v-if="missing" class="missing fault">{{ missing }} <RouterLink to="/ledger">Back to the ledger</RouterLink></p>
  <template v-if="run">
    <PageHead
      :title="`Run of ${formatMoment(run.at)}`"
      :about="`${run.ticketTitle} · ${run.pieces} pieces · ${run.substrateName}`"
      ><RouterLink :to="`/tickets/new?like=${run.ticketId}&compound`" data-test-id="repeat-run">Repeat this</RouterLink
      ><RouterLink to="/ledger">Ledger</RouterLink></PageHead
    >
    <div class="run">
      <p v-if="run.correctedById" class="fault">
        This run was corrected: <RouterLink :to="`/ledger/${run.correctedById}`">see the correction</RouterLink>.
      </p>
      <TileStrip>
        <FigureTile label="dose" :figure="run.dose" />
        <div class="plain-tile">
          <p class="quiet small">setting as entered</p>
          <p class="mono">
            {{ withUnit(run.power.value, run.power.unit) }} · {{ withUnit(run.speed.value, run.speed.unit) }} ·
            {{ withUnit(run.interval.value, run.interval.unit) }}
          </p>
          <p v-if="rest.length" class="mono small">{{ rest.join(', ') }}</p>
          <GradeMark :grade="run.grade" />
        </div>
        <div class="plain-tile">
          <p class="quiet small">at the part</p>
          <p class="mono">
            {{ run.powerW === null ? 'unknown' : withUnit(run.powerW, 'W') }} ·
            {{ run.speedMmPerS === null ? 'unknown' : units.text('speed', run.speedMmPerS) }}
          </p>
        </div>
      </TileStrip>
      <table class="plain">
        <tbody>
          <tr>
            <td>Ticket</td>
            <td>
              <RouterLink :to="`/tickets/${run.ticketId}`">{{ run.ticketNumber }} {{ run.ticketTitle }}</RouterLink>
            </td>
          </tr>
          <tr>
            <td>Substrate</td>
            <td>
              {{ run.substrateName }}
              <RouterLink :to="`/substrates/${run.substrateId}`" class="link">what works on it</RouterLink>
            </td>
          </tr>
          <tr>
            <td>Compound</td>
            <td>{{ run.compoundName ?? 'none' }}</td>
          </tr>
          <tr>
            <td>Head and lens</td>
            <td>{{ run.headName }}, {{ run.lensName }}</td>
          </tr>
          <tr v-if="run.because.length">
            <td>Why no better grade</td>
            <td data-test-id="run-because">{{ run.because.join('; ') }}</td>
          </tr>
          <tr v-if="run.reason">
            <td>Run all the same</td>
            <td>{{ run.reason }}</td>
          </tr>
          <tr v-for="[name, value] in benchRows" :key="name">
            <td>{{ name }}</td>
            <td>{{ value }}</td>
          </tr>
          <tr v-if="run.bench?.coupons.length">
            <td>Proved on</td>
            <td>
              <RouterLink
                v-for="coupon in run.bench.coupons"
                :key="coupon.id"
                :to="`/coupons/${coupon.id}`"
                class="link"
                >{{ coupon.code }}</RouterLink
              >
            </td>
          </tr>
          <tr>
            <td>Time</td>
            <td>{{ withUnit(run.minutes, 'min') }}, {{ shop.personOf(run.by) }}</td>
          </tr>
          <tr v-if="run.note">
            <td>Note</td>
            <td>{{ run.note }}</td>
          </tr>
          <tr>
            <td>Cleaning</td>
            <td v-if="run.cleaning">
              {{ run.cleaning.method }}, {{ withUnit(run.cleaning.minutes, 'min') }}, residue {{ run.cleaning.residue }}
            </td>
            <td v-else class="quiet">not yet</td>
          </tr>
          <tr>
            <td>Judgement</td>
            <td v-if="run.judgement">
              contrast {{ run.judgement.contrastStep }}, {{ CONTRAST_STEPS[run.judgement.contrastStep - 1]?.word }} ({{
                CONTRAST_STEPS[run.judgement.contrastStep - 1]?.text
              }}); {{ run.judgement.evenness }}; {{ run.judgement.piecesGood }} of {{ run.pieces }} good
            </td>
            <td v-else class="quiet">not yet</td>
          </tr>
          <tr v-if="run.judgement">
            <td>Tests</td>
            <td>{{ run.judgement.tests.map(({ test, result }) => `${test}: ${result}`).join('; ') || 'none' }}</td>
          </tr>
          <tr v-for="(words, i) in stood" :key="i">
            <td>{{ i ? '' : 'What it stood' }}</td>
            <td data-test-id="run-stood">{{ words }}</td>
          </tr>
          <tr v-if="run.judgement">
            <td>Faults</td>
            <td>
              {{ run.judgement.faults.join(', ') || 'none seen' }}
              <RouterLink :to="`/faults/run/${run.id}`" class="link" data-test-id="find-fault"
                >Find the fault</RouterLink
              >
            </td>
          </tr>
          <tr v-for="one in found" :key="one.id">
            <td>Traced to</td>
            <td data-test-id="run-fault">
              <RouterLink :to="`/faults/run/${run.id}`">{{ one.words }}</RouterLink><template v-if="one.changed.length"
                >; {{ one.changed.join('; ') }}</template
              ><span v-if="one.corrected" class="quiet">; the finding was corrected</span>
            </td>
          </tr>
          <tr v-if="story?.reworkOf">
            <td>Makes anew</td>
            <td>
              piece{{ story.reworkOf.pieces.length > 1 ? 's' : '' }} {{ story.reworkOf.pieces.join(', ') }} of
              <RouterLink :to="`/ledger/${story.reworkOf.runId}`">this run</RouterLink>: {{ story.reworkOf.way }}
            </td>
          </tr>
          <tr v-for="one in story?.reworks ?? []" :key="one.id">
            <td>Made anew</td>
            <td>
              piece{{ one.pieces.length > 1 ? 's' : '' }} {{ one.pieces.join(', ') }}: {{ one.way
              }}<template v-if="one.doneRunId"
                >, <RouterLink :to="`/ledger/${one.doneRunId}`">in this run</RouterLink></template
              ><span v-else class="quiet">, not done yet</span>
            </td>
          </tr>
          <tr v-if="cost">
            <td>Cost</td>
            <td data-test-id="run-cost">
              <strong>{{ cost.whole }}</strong> <span class="quiet">({{ cost.parts }})</span
              ><span v-if="cost.notRead" class="quiet">; {{ cost.notRead }}</span>
            </td>
          </tr>
          <tr v-if="run.correctsId">
            <td>Corrects</td>
            <td><RouterLink :to="`/ledger/${run.correctsId}`">an earlier entry</RouterLink></td>
          </tr>
          <tr v-if="run.judgement?.note">
            <td>Said with it</td>
            <td>{{ run.judgement.note }}</td>
          </tr>
        </tbody>
      </table>
      <section class="notes" :class="{ 'no-print': !remarks.length }" data-test-id="run-remarks">
        <h2>Notes and pictures</h2>
        <RemarkList :remarks="remarks" removable @retire="retire" />
        <RemarkForm v-if="noting" :ticket-id="run.ticketId" :run-id="run.id" />
        <Button v-else outlined label="Put a note or a picture here" data-test-id="add-remark" @click="noting = true" />
      </section>
    </div>
  </template>
</template>

<style scoped>
.run {
  padding: 1rem 1.5rem;
  display: flex;
  flex-direction: column;
  gap: 1rem;
  max-width: 60rem;
}

.plain-tile {
  padding: 0.6rem 0.75rem;
}

.link {
  margin-right: 0.8rem;
}

.notes > form {
  width: 26rem;
  max-width: 100%;
}

.notes {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 0.7rem;
}

td:first-child {
  width: 14rem;
  color: var(--unto-quiet);
}

@media (max-width: 600px) {
  td:first-child {
    width: 7rem;
  }
}

.missing {
  padding: 2rem;
}
</style>
