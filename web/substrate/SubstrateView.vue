<script setup lang="ts">
import { CAUSE_WORDS, PROTOCOLS, settingWords } from '@unto/core';
import type { SubstrateSheet } from '@unto/contract';
import { useQuery } from '@pinia/colada';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import GradeMark from '../evidence/GradeMark.vue';
import { useShop } from '../stores/shop';
import PageHead from '../ui/PageHead.vue';
import { formatMoney, withUnit } from '../ui/format';
import { useUnits } from '../ui/useUnits';
import { windowAddress } from '../window/address';

/** What works on a substrate here: proved settings with how they look and went, cleaning, what marks stood, faults, what was never tried. */
const props = defineProps<{ id: string }>();
const shop = useShop();
const units = useUnits();
const { data, error } = useQuery({
  key: () => KEYS.substrateSheet(props.id),
  query: () => api.call('substrateSheet', { params: { id: props.id } }),
});
const sheet = computed(() => (data.value?.id === props.id ? data.value : null));
const about = computed(() => {
  const { family, layer, runs } = sheet.value ?? {};
  return sheet.value ? `${family}, ${layer} · from ${runs} judged run${runs === 1 ? '' : 's'}` : '';
});
const printed = computed(
  () => `/api/substrates/${props.id}/sheet.pdf?at=${encodeURIComponent(window.location.origin)}`,
);
const protocol = (code: string) => PROTOCOLS.find((one) => one.code === code)?.words ?? code;
const went = ({ runs, pieces, good }: SubstrateSheet['settings'][number]) =>
  runs ? `${good} of ${pieces} good, ${runs} run${runs === 1 ? '' : 's'}` : 'not run yet';
const ways = computed(() => sheet.value?.reworks.filter(({ made }) => made > 0) ?? []);
</script>

<template>
  <PageHead :title="sheet ? `What works on ${sheet.name}` : 'What works'" :about="about">
    <a v-if="sheet" :href="printed" target="_blank" class="no-print" data-test-id="sheet-pdf">To hang on the wall</a>
    <RouterLink :to="`/ledger?substrateId=${id}`" class="no-print">Its runs</RouterLink>
    <RouterLink :to="`/stores/${id}`" class="no-print">In Stores</RouterLink>
  </PageHead>
  <p v-if="error" class="missing fault" role="alert">{{ error.message }}</p>
  <div v-if="sheet" class="sheet">
    <section data-test-id="sheet-settings">
      <h2>Settings</h2>
      <p v-if="!sheet.settings.length">
        No setting was taken on it yet. Open a ticket on it and prove one on a coupon, or carry one over from its
        window.
      </p>
      <ul v-else class="settings">
        <li v-for="one in sheet.settings" :key="one.recipe.id">
          <img
            v-if="one.swatch"
            :src="`/api/recipes/${one.recipe.id}/swatch.svg`"
            :alt="`How ${one.compoundName ?? 'bare metal'} marks under ${one.headName}`"
            loading="lazy"
            @error="($event.target as HTMLElement).style.visibility = 'hidden'"
          />
          <span v-else class="none quiet small">no picture</span>
          <div class="what">
            <p>
              <RouterLink :to="`/recipes/${one.recipe.id}`"
                ><strong>{{ one.compoundName ?? 'No compound' }}</strong></RouterLink
              >
              <span class="quiet"> · {{ one.headName }}, {{ one.lensName }}</span>
            </p>
            <p class="mono">
              {{ settingWords({ ...one.recipe, coats: one.recipe.valid?.coats ?? 1 }, units.reading.value) }}
            </p>
            <p class="small">
              v{{ one.recipe.number }} <GradeMark :grade="one.grade" />
              <strong v-if="one.recipe.state.state !== 'in use'" class="fault">{{ one.recipe.state.state }}</strong>
              · {{ went(one) }}
              <RouterLink :to="windowAddress(one.recipe)">window</RouterLink>
            </p>
          </div>
          <dl>
            <div>
              <dt class="quiet small">under the head</dt>
              <dd class="mono">{{ one.minutesPerPiece === null ? '–' : withUnit(one.minutesPerPiece, 'min', 3) }}</dd>
            </div>
            <div>
              <dt class="quiet small">compound</dt>
              <dd class="mono">{{ one.gramsPerPiece === null ? '–' : units.text('mass', one.gramsPerPiece, 3) }}</dd>
            </div>
            <div>
              <dt class="quiet small">both, a good piece</dt>
              <dd class="mono">
                {{ one.priceMinor === null ? '–' : formatMoney(one.priceMinor, shop.workshop!.currency) }}
              </dd>
            </div>
          </dl>
        </li>
      </ul>
    </section>
    <div class="columns">
      <section>
        <h2>Cleaning</h2>
        <p v-if="!sheet.cleaning.length" class="quiet">No run of it was cleaned yet.</p>
        <p v-for="(one, i) in sheet.cleaning" :key="i">
          <strong>{{ one.compoundName ?? 'No compound' }}:</strong> {{ one.method }},
          <span class="mono">{{ withUnit(one.minutesPerPiece, 'min', 2) }}</span> a piece; nothing left in
          {{ one.clean }} of
          {{ one.runs }}
        </p>
      </section>
      <section>
        <h2>What marks stood</h2>
        <p v-if="!sheet.lasting.length" class="quiet">Nothing was tested beyond the scrub.</p>
        <p v-for="one in sheet.lasting" :key="one.testId">
          <RouterLink :to="`/ledger/${one.runId}`">{{ one.compoundName ?? 'No compound' }}</RouterLink>:
          {{ protocol(one.protocol).toLowerCase() }}, <span class="mono">{{ one.doseDone }} of {{ one.dose }}</span
          >: {{ one.result }}
        </p>
      </section>
      <section>
        <h2>Faults, and what they were</h2>
        <p v-if="!sheet.faults.length" class="quiet">No fault was said of any run.</p>
        <p v-for="one in sheet.faults" :key="one.fault">
          <strong>{{ one.fault }}</strong>, in {{ one.runs }} run{{ one.runs === 1 ? '' : 's'
          }}<template v-if="one.causes.length"
            >:
            {{
              one.causes.map(({ cause, cases }) => `${CAUSE_WORDS[cause].toLowerCase()} (${cases})`).join(', ')
            }}</template
          ><span v-else class="quiet">; not traced yet</span>
        </p>
        <p v-for="one in ways" :key="one.way" class="quiet small">
          In this shop, {{ one.way }}: {{ one.good }} of {{ one.made }} came out.
        </p>
      </section>
      <section>
        <h2>Never tried</h2>
        <p v-if="!sheet.never.length" class="quiet">
          Every compound on the shelf that names it was tried under every head that suits.
        </p>
        <p v-for="one in sheet.never" :key="`${one.compoundId} ${one.headId}`">
          {{ one.compoundName }} under {{ one.headName }}
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.missing {
  padding: 2rem;
}

.sheet {
  display: flex;
  flex-direction: column;
  gap: 1.2rem;
  padding: 0.8rem 1.5rem 1.5rem;
}

.settings {
  list-style: none;
  margin: 0;
  padding: 0;
}

.settings li {
  display: grid;
  grid-template-columns: 72px minmax(0, 1fr) auto;
  gap: 1rem;
  align-items: center;
  padding: 0.5rem 0;
  border-top: 1px solid var(--unto-rule);
}

img,
.none {
  width: 72px;
  height: 60px;
  object-fit: cover;
  border: 1px solid var(--unto-rule);
}

.none {
  display: grid;
  place-items: center;
  text-align: center;
}

.what p {
  margin: 0.1rem 0;
}

dl {
  display: grid;
  grid-template-columns: repeat(3, 7.6rem);
  margin: 0;
  text-align: right;
}

dd {
  margin: 0;
}

.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(17rem, 1fr));
  gap: 1.2rem 2rem;
}

.columns p {
  margin: 0.25rem 0;
}

@media (max-width: 700px) {
  .settings li {
    grid-template-columns: 72px minmax(0, 1fr);
  }

  dl {
    grid-column: 1 / -1;
    grid-template-columns: repeat(3, 1fr);
    text-align: left;
  }
}
</style>
