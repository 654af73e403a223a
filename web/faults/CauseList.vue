<script setup lang="ts">
import { CAUSE_WORDS, type Cause } from '@unto/core';
import { computed, ref } from 'vue';
import Button from 'primevue/button';
import GradeMark from '../evidence/GradeMark.vue';
import type { ShownCause } from './useFault';

/** Causes, the likeliest first: usual with this look against what this record says, and how much each fact weighs. Press those it was. */
const was = defineModel<Cause[]>({ required: true });
const props = defineProps<{
  causes: readonly ShownCause[];
  pair: { readonly causes: readonly [Cause, Cause]; readonly chance: number } | null;
  /** Settled cases of the shop that counted. */
  cases: number;
}>();
const FIRST = 5;
const LEAST = 0.01;
const all = ref(false);
const shown = computed(() =>
  all.value ? props.causes : props.causes.filter(({ chance }, i) => i < FIRST && (chance >= LEAST || i < 3)),
);
const of100 = (share: number) => Math.round(100 * share);
const sign = (weight: number) => (weight > 1 ? '▲' : '▼');
function turn(cause: Cause): void {
  was.value = was.value.includes(cause) ? was.value.filter((one) => one !== cause) : [...was.value, cause];
}
</script>

<template>
  <section data-test-id="causes">
    <div class="lead">
      <h2>What it may be</h2>
      <span class="quiet small"
        >dashed: usual with this look · bar: by this record<template v-if="cases">
          and {{ cases }} case{{ cases > 1 ? 's' : '' }} of this shop</template
        >
        · × what a fact weighs <GradeMark grade="usual"
      /></span>
    </div>
    <ol>
      <li v-for="one in shown" :key="one.cause">
        <button
          type="button"
          role="checkbox"
          :aria-checked="was.includes(one.cause)"
          :data-test-id="`cause-${one.cause}`"
          @click="turn(one.cause)"
        >
          <span class="name"
            ><span class="box" aria-hidden="true">{{ was.includes(one.cause) ? '✓' : '' }}</span
            ><strong>{{ CAUSE_WORDS[one.cause] }}</strong></span
          >
          <span class="bar" aria-hidden="true"
            ><span class="chance" :style="{ width: `${100 * one.chance}%` }"></span
            ><span class="usual" :style="{ left: `${100 * one.usual}%` }"></span
          ></span>
          <span
            class="value"
            :title="`Tables as good as the usual ones put it between ${of100(one.low)} and ${of100(one.high)}`"
            ><span class="mono big">{{ of100(one.chance) }}</span> <span class="mono small quiet">of 100</span></span
          >
        </button>
        <p v-if="one.facts.length || one.cases" class="facts">
          <span v-for="(fact, i) in one.facts.slice(0, 4)" :key="i" :class="fact.weight > 1 ? 'for' : 'against'"
            ><span aria-hidden="true">{{ sign(fact.weight) }}</span> {{ fact.words }}
            <span class="mono">× {{ fact.weight.toPrecision(2) }}</span></span
          >
          <span v-if="one.cases" class="for">here in {{ one.cases }} such case{{ one.cases > 1 ? 's' : '' }}</span>
        </p>
        <p v-if="all" class="facts against">
          between {{ of100(one.low) }} and {{ of100(one.high) }} by other tables as good
        </p>
      </li>
    </ol>
    <p v-if="pair" class="small">
      <strong>Perhaps both at once:</strong> {{ CAUSE_WORDS[pair.causes[0]] }} and {{ CAUSE_WORDS[pair.causes[1]] }},
      {{ of100(pair.chance) }} of 100.
    </p>
    <Button
      v-if="causes.length > shown.length || all"
      text
      size="small"
      :label="all ? 'Only the likeliest' : `All ${causes.length} causes`"
      @click="all = !all"
    />
  </section>
</template>

<style scoped>
.lead {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 0.2rem 1rem;
}

ol {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  border-top: 1px solid var(--unto-rule);
  padding: 0.15rem 0 0.35rem;
}

button[role='checkbox'] {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) minmax(5rem, 1fr) 5.6rem;
  gap: 0.8rem;
  align-items: center;
  width: 100%;
  min-height: 36px;
  padding: 0;
  font: inherit;
  color: inherit;
  text-align: left;
  background: none;
  border: 0;
  cursor: pointer;
}

.name {
  display: flex;
  gap: 0.5rem;
  align-items: center;
}

.box {
  flex: none;
  width: 18px;
  height: 18px;
  line-height: 16px;
  text-align: center;
  border: 2px solid var(--unto-quiet);
  border-radius: 3px;
}

[aria-checked='true'] .box {
  color: var(--unto-on-action);
  background: var(--unto-action);
  border-color: var(--unto-action);
}

.bar {
  position: relative;
  height: 14px;
  background: var(--unto-surface);
  border: 1px solid var(--unto-rule);
}

.chance {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--unto-slate);
}

li:first-child .chance {
  background: var(--unto-action);
}

.usual {
  position: absolute;
  top: -4px;
  bottom: -4px;
  border-left: 2px dashed var(--unto-ink);
}

.value {
  text-align: right;
  white-space: nowrap;
}

.big {
  font-size: 1.1rem;
  font-weight: 700;
}

.facts {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1rem;
  margin: 0 0 0 1.65rem;
  font-size: 0.84rem;
}

.against {
  color: var(--unto-quiet);
}
</style>
