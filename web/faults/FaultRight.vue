<script setup lang="ts">
import { CAUSE_WORDS, FAULT_TESTS } from '@unto/core';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { useShop } from '../stores/shop';
import TextField from '../ui/TextField.vue';
import { formatMoment } from '../ui/format';
import RemedyList from './RemedyList.vue';
import TestCard from './TestCard.vue';
import WaysOut from './WaysOut.vue';
import type { FaultSearch } from './useFault';

/** The quick test, what to do with the pieces, and what is changed; then it is settled. */
const props = defineProps<{ search: FaultSearch }>();
const shop = useShop();
const {
  page,
  busy,
  finding,
  causes,
  offers,
  tests,
  surprises,
  was,
  taken,
  remedies,
  turn,
  way,
  ways,
  tested,
  settle,
  pieces,
} = props.search;
const note = ref('');
const again = ref(false);
const RESULTS = { 'cannot tell': 'nobody could tell', skipped: 'skipped' } as const;
const what = computed(() => {
  const { kind } = page.value!;
  if (kind !== 'run') return kind === 'coupon' ? 'the coupon' : 'the coat';
  return pieces.value.length ? `piece${pieces.value.length > 1 ? 's' : ''} ${pieces.value.join(', ')}` : 'the pieces';
});
const named = computed(() => was.value.map((cause) => CAUSE_WORDS[cause].toLowerCase()).join(', and '));
async function close(): Promise<void> {
  if (!(await settle(note.value))) return;
  note.value = '';
  again.value = false;
}
</script>

<template>
  <template v-if="page && causes.length">
    <section v-if="finding && !again" class="settled" data-test-id="settled">
      <h2>{{ finding.causes.length ? 'It was' : 'Not found out' }}</h2>
      <p v-for="cause in finding.causes" :key="cause">
        <strong>{{ CAUSE_WORDS[cause] }}</strong>
      </p>
      <p v-if="finding.way">
        What is done: <strong>{{ finding.way }}</strong>
      </p>
      <ul v-if="finding.remedies.length">
        <li v-for="(one, i) in finding.remedies" :key="i">{{ one.words }}</li>
      </ul>
      <p v-if="finding.note">{{ finding.note }}</p>
      <p class="quiet small">
        {{ shop.personOf(finding.by) }}, {{ formatMoment(finding.at) }}. The likelihoods learn from it.
      </p>
      <p v-if="page.kind === 'run'" class="small">
        <RouterLink :to="`/ledger/${page.subjectId}`">The run</RouterLink>
      </p>
      <Button outlined label="It was something else" data-test-id="settle-again" @click="again = true" />
      <slot name="after" />
    </section>
    <template v-else>
      <TestCard :offers="offers" :busy="busy" @result="(test, result, why) => tested(test, result, why)" />
      <p v-for="(one, i) in tests" :key="i" class="small made" :class="{ odd: surprises.includes(one) }">
        <strong>{{ FAULT_TESTS[one.test].title }}:</strong>
        {{
          one.result === 'found' || one.result === 'clear'
            ? FAULT_TESTS[one.test][one.result].toLowerCase()
            : RESULTS[one.result]
        }}
        <span class="quiet">{{ one.note }} {{ shop.personOf(one.by) }}, {{ formatMoment(one.at) }}</span>
        <template v-if="surprises.includes(one)"
          ><br />By all that is recorded this was hardly to be expected: look at the fault again, or at the
          record.</template
        >
      </p>
      <WaysOut v-if="ways.length" v-model="way" :ways="ways" :what="what" />
      <p v-else class="small quiet">
        {{
          page.kind === 'coat'
            ? 'A coat that was not fired is rinsed off and laid anew: only compound is lost.'
            : 'A coupon is made anew; its cells count as they were read.'
        }}
      </p>
      <RemedyList :remedies="remedies" :taken="taken" :page="page" @turn="turn" />
      <form id="settle-fault" novalidate @submit.prevent="close">
        <TextField v-model="note" label="Note" :lines="2" />
      </form>
      <p class="small" :class="{ quiet: !was.length }">
        {{
          was.length
            ? `It was: ${named}.`
            : 'Press on the left what it was, one cause or more; or settle it as not found out.'
        }}
      </p>
      <div class="foot">
        <Button
          type="submit"
          form="settle-fault"
          :label="was.length ? 'Settle it' : 'Not found out'"
          :outlined="!was.length"
          :loading="busy"
          data-test-id="settle-fault"
        />
      </div>
    </template>
  </template>
</template>

<style scoped>
.settled {
  padding: 0.6rem 0.8rem;
  border-left: 5px solid var(--unto-bonded);
  background: var(--unto-bonded-tint);
}

.settled p {
  margin: 0.25rem 0;
}

.made {
  margin: 0;
  padding: 0.3rem 0.6rem;
  border-left: 4px solid var(--unto-slate);
}

.odd {
  border-left-color: var(--unto-coat-line);
  background: var(--unto-coat-tint);
}

.foot {
  position: sticky;
  bottom: -1rem;
  z-index: 1;
  display: flex;
  padding: 0.4rem 0 1rem;
  margin-bottom: -1rem;
  background: var(--unto-surface);
}

.foot > * {
  flex: 1;
}
</style>
