<script setup lang="ts">
import { PROTOCOLS, contrastLeft } from '@unto/core';
import type { LastingRow } from '@unto/contract';
import { STOOD } from '@unto/domain';
import { useQuery } from '@pinia/colada';
import { computed } from 'vue';
import { api } from '../api/client';
import { KEYS } from '../api/keys';

/** What marks kept of their contrast on a substrate, protocol by protocol, a line a test with its interval, compounds told apart by name. */
const props = defineProps<{ substrateId: string; ticketId: string }>();
const { data } = useQuery({
  key: () => KEYS.lasting(props.substrateId),
  query: () => api.call('lasting', { query: { substrateId: props.substrateId } }),
});
/** Lines that are drawn of a protocol: its newest. */
const MOST = 6;
const groups = computed(() =>
  PROTOCOLS.flatMap(({ code, words, unit }) => {
    const rows = (data.value ?? []).filter(({ protocol }) => protocol === code).slice(0, MOST);
    return rows.length ? [{ code, words, unit, rows: rows.map(drawn) }] : [];
  }),
);
function drawn(row: LastingRow) {
  const { beforeContrast: before, afterContrast: after, readBy } = row;
  const read = before !== null && after !== null ? contrastLeft(before, after, readBy ?? 'eye') : null;
  return {
    ...row,
    share: read ? Math.max(0, read.share) : STOOD[row.result],
    low: read?.low ?? null,
    high: read?.high ?? null,
    own: row.ticketId === props.ticketId,
  };
}
/** The scale ends a little above whole. */
const END = 1.15;
const at = (share: number) => `${(100 * Math.min(END, Math.max(0, share))) / END}%`;
</script>

<template>
  <section v-if="groups.length" data-test-id="lasting">
    <h3>What marks kept here, test by test</h3>
    <div v-for="group in groups" :key="group.code" class="group">
      <h4>{{ group.words }}</h4>
      <div v-for="row in group.rows" :key="row.testId" class="row" :class="{ own: row.own }">
        <span class="name">{{ row.compoundName ?? 'bare beam' }}, {{ row.doseDone }} {{ group.unit }}</span>
        <span class="bar">
          <span class="whole" :style="{ left: at(1) }"></span>
          <span
            v-if="row.low !== null"
            class="interval"
            :style="{ left: at(row.low), right: `calc(100% - ${at(row.high ?? END)})` }"
          ></span>
          <span class="dot" :class="row.result.replace(' ', '-')" :style="{ left: at(row.share) }"></span>
        </span>
        <span class="mono small">{{ row.low === null ? row.result : `${Math.round(100 * row.share)} %` }}</span>
      </div>
    </div>
    <p class="quiet small">
      Dot: contrast after ÷ before; line: 95 of 100 by the error of reading; hollow: only looked at. Bold: this ticket.
    </p>
  </section>
</template>

<style scoped>
h4 {
  margin: 0.5rem 0 0.1rem;
  font-size: 0.95rem;
}

.row {
  display: grid;
  grid-template-columns: minmax(8rem, 14rem) 1fr 6.5rem;
  align-items: center;
  gap: 0.7rem;
  min-height: 1.7rem;
}

.own .name {
  font-weight: 700;
}

.bar {
  position: relative;
  height: 1.2rem;
  border-left: 1px solid var(--unto-rule);
  background: var(--unto-surface);
}

.whole {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 1px dashed var(--unto-quiet);
}

.interval {
  position: absolute;
  top: 50%;
  border-top: 2px solid var(--unto-ink);
}

.dot {
  position: absolute;
  top: 50%;
  width: 0.75rem;
  height: 0.75rem;
  margin: -0.375rem 0 0 -0.375rem;
  border: 2px solid var(--unto-ink);
  border-radius: 50%;
  background: var(--unto-surface);
}

.interval + .dot {
  background: var(--unto-ink);
}

.lost {
  border-color: var(--unto-danger);
}
</style>
