<script setup lang="ts">
import type { PairingWindow } from '@unto/contract';
import type { SeenEffect } from '@unto/core';
import type { CouponWindowCell } from '@unto/domain';
import { useShop } from '../stores/shop';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { formatDay } from '../ui/format';

/** The coupons and judged runs that a window is fitted to, with what became of their cells and how much each counts. */
const props = defineProps<{
  coupons: PairingWindow['coupons'];
  runs: PairingWindow['runs'];
  cells: readonly CouponWindowCell[];
  /** What lots and people seen in it ask for. */
  effects: readonly SeenEffect[];
  /** What windows elsewhere taught of it, in words. */
  lessons: readonly string[];
}>();
const shop = useShop();
const percent = (share: number) => `${share > 0 ? '+' : share < 0 ? '−' : ''}${Math.abs(Math.round(share * 100))}`;
/** What each asks for, in words; nothing sure where its interval takes in none. */
const asked = computed(() =>
  props.effects.map(({ factor, level, more, low, high }) => {
    const name = factor === 'lot' ? `lot ${level}` : `sprayed by ${shop.personOf(level)}`;
    const sure = low > 0 || high < 0;
    return `${name}: ${percent(more)} % power (${percent(low)} to ${percent(high)})${sure ? '' : ', nothing sure'}`;
  }),
);
/** Coupons that count whole though they are old. */
const atFull = defineModel<ReadonlySet<string>>('atFull', { required: true });

function counted(own: readonly CouponWindowCell[]) {
  const of = (outcome: CouponWindowCell['outcome']) => own.filter((cell) => cell.outcome === outcome).length;
  return { count: own.length, under: of('under'), holds: of('holds'), over: of('over') };
}
const seen = computed(() =>
  props.coupons.map(({ id, code, burntAt, sameRevisions, weight, why, lot }) => {
    const own = props.cells.filter(({ couponId }) => couponId === id);
    const byEye = own.filter((cell) => cell.byEye).length;
    const again = own.filter((cell) => cell.lookedAgain).length;
    return {
      ...{ id, code, burntAt, weight, why },
      ...counted(own),
      about: [
        ...(lot ? [`lot ${lot}`] : []),
        ...(byEye ? [`${byEye === own.length ? 'all' : byEye} judged by eye: counted as more often misread`] : []),
        ...(again ? [`${again} looked at again: hardly misread`] : []),
        ...(sameRevisions ? [] : ['fired on other revisions']),
      ].join('; '),
    };
  }),
);
const ran = computed(() => counted(props.cells.filter(({ runId }) => runId !== null)));

function turn(id: string): void {
  const now = new Set(atFull.value);
  if (!now.delete(id)) now.add(id);
  atFull.value = now;
}
</script>

<template>
  <table class="coupons small">
    <thead>
      <tr>
        <th>Coupon</th>
        <th>Fired</th>
        <th class="n">Cells</th>
        <th>After the scrub</th>
        <th>Counts</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="coupon in seen" :key="coupon.id">
        <td>
          <RouterLink :to="`/coupons/${coupon.id}`">{{ coupon.code }}</RouterLink>
        </td>
        <td>{{ coupon.burntAt ? formatDay(coupon.burntAt) : '' }}</td>
        <td class="n mono">{{ coupon.count }}</td>
        <td class="mono outcomes">○ {{ coupon.under }} ● {{ coupon.holds }} ✕ {{ coupon.over }}</td>
        <td>
          <template v-if="coupon.weight < 1">
            <span class="mono">{{ atFull.has(coupon.id) ? 'whole' : coupon.weight.toFixed(2) }}</span> {{ coupon.why }}
            <button
              type="button"
              class="link"
              :aria-pressed="atFull.has(coupon.id)"
              :data-test-id="`weight-${coupon.code}`"
              @click="turn(coupon.id)"
            >
              {{ atFull.has(coupon.id) ? 'count it less' : 'count it whole' }}
            </button>
          </template>
          <template v-else>whole</template>
        </td>
        <td>{{ coupon.about }}</td>
      </tr>
      <tr v-if="runs.length" data-test-id="window-runs">
        <td>
          {{ runs.length === 1 ? 'a judged run' : `${runs.length} judged runs` }}
        </td>
        <td>{{ formatDay(runs[0]!.at) }}</td>
        <td class="n mono">{{ ran.count }}</td>
        <td class="mono outcomes">○ {{ ran.under }} ● {{ ran.holds }} ✕ {{ ran.over }}</td>
        <td>whole</td>
        <td>
          {{ runs.reduce((sum, { pieces }) => sum + pieces, 0) }} pieces,
          {{ runs.reduce((sum, { lost }) => sum + lost, 0) }} lost; by eye
        </td>
      </tr>
    </tbody>
  </table>
  <p v-if="asked.length" class="quiet small asked" data-test-id="seen-effects">
    Asked for, against the middle of all: {{ asked.join('; ') }}.
  </p>
  <p v-if="lessons.length" class="quiet small asked" data-test-id="lessons">
    Learnt from this compound elsewhere. {{ lessons.join(' ') }}
  </p>
</template>

<style scoped>
.coupons {
  border-collapse: collapse;
  border-top: 1px solid var(--unto-rule);
}

th,
td {
  padding: 0.25rem 0.5rem;
  border-bottom: 1px solid var(--unto-rule);
  text-align: left;
}

.n {
  text-align: right;
}

.asked {
  padding: 0.3rem 0.5rem;
}

.outcomes {
  white-space: nowrap;
}

.link {
  padding: 0.2rem 0.3rem;
  border: 0;
  background: none;
  color: var(--unto-action);
  font: inherit;
  text-decoration: underline;
  cursor: pointer;
}
</style>
