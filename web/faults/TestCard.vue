<script setup lang="ts">
import { CAUSE_WORDS, FAULT_TESTS, type FaultTestKey, type FaultTestResult, type TestOffer } from '@unto/core';
import Button from 'primevue/button';
import { computed, ref, watch } from 'vue';
import TextField from '../ui/TextField.vue';

/** The quickest test that tells the best two apart: what it takes, what each result would do; and how it came out. */
const props = defineProps<{ offers: readonly TestOffer[]; busy: boolean }>();
const emit = defineEmits<{ result: [test: FaultTestKey, result: FaultTestResult, note: string] }>();
const chosen = ref<FaultTestKey | null>(null);
const started = ref(false);
const skipping = ref(false);
const why = ref('');
watch(
  () => props.offers[0]?.key,
  () => {
    chosen.value = null;
    started.value = skipping.value = false;
    why.value = '';
  },
);
const offer = computed(() => props.offers.find(({ key }) => key === chosen.value) ?? props.offers[0] ?? null);
const test = computed(() => offer.value && FAULT_TESTS[offer.value.key]);
const others = computed(() => props.offers.filter(({ key }) => key !== offer.value?.key).slice(0, 3));
const of100 = (share: number) => Math.round(100 * share);
const takes = (key: FaultTestKey) => {
  const { minutes, blanks } = FAULT_TESTS[key];
  return `${minutes} min, ${blanks ? `${blanks} scrap` : 'no blank'}`;
};
const say = (result: FaultTestResult) => emit('result', offer.value!.key, result, why.value);
</script>

<template>
  <section v-if="offer && test" data-test-id="fault-test">
    <div class="lead">
      <h2>{{ test.title }}</h2>
      <span class="mono small">{{ takes(offer.key) }}</span>
    </div>
    <p class="small quiet">Tells “{{ CAUSE_WORDS[offer.apart[0]] }}” from “{{ CAUSE_WORDS[offer.apart[1]] }}”.</p>
    <p>{{ test.how }}</p>
    <table class="plain outcomes">
      <tbody>
        <tr v-for="one in offer.outcomes" :key="one.result">
          <td>
            <Button
              v-if="started"
              outlined
              :label="test[one.result]"
              :loading="busy"
              :data-test-id="`test-${one.result}`"
              @click="say(one.result)"
            />
            <template v-else>{{ test[one.result] }}</template>
          </td>
          <td>{{ CAUSE_WORDS[one.cause] }}</td>
          <td class="number mono">
            {{ of100(one.from) }} → <strong>{{ of100(one.to) }}</strong>
          </td>
        </tr>
      </tbody>
    </table>
    <div v-if="started || skipping" class="row">
      <Button v-if="started" text label="Nobody can tell" :loading="busy" @click="say('cannot tell')" />
      <template v-else>
        <TextField v-model="why" label="Why it is skipped" test-id="skip-why" />
        <Button
          outlined
          label="Skip it"
          :disabled="!why.trim()"
          :loading="busy"
          data-test-id="skip-test"
          @click="say('skipped')"
        />
      </template>
    </div>
    <div v-else class="row">
      <Button :label="`Start the test`" data-test-id="start-test" @click="started = true" />
      <Button outlined label="Skip it, say why" @click="skipping = true" />
    </div>
    <p v-if="others.length" class="small quiet others">
      Or:
      <Button
        v-for="{ key } in others"
        :key="key"
        text
        size="small"
        :label="`${FAULT_TESTS[key].title.toLowerCase()} (${takes(key)})`"
        :data-test-id="`other-test-${key}`"
        @click="((chosen = key), (started = false))"
      />
    </p>
  </section>
  <p v-else class="quiet">No quick test tells the likeliest two apart any more. Say below what it was.</p>
</template>

<style scoped>
.lead {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 1rem;
}

p {
  margin: 0.2rem 0;
}

.outcomes .number {
  white-space: nowrap;
}

.outcomes td {
  padding: 0.3rem 0.4rem 0.3rem 0;
  font-size: 0.9rem;
}

.row {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.6rem;
  margin-top: 0.5rem;
}

.others :deep(.p-button) {
  padding: 0.1rem 0.3rem;
  min-height: 32px;
}
</style>
