<script setup lang="ts">
import { restWords } from '@unto/core';
import type { CouponWindowCell } from '@unto/domain';
import { formatNumber } from '../ui/format';
import { useUnits } from '../ui/useUnits';

/** Every scrubbed cell of the window as a row. */
defineProps<{ cells: readonly CouponWindowCell[] }>();
const units = useUnits();
const OUTCOMES = { under: 'too little', holds: 'holds', over: 'too much' } as const;
</script>

<template>
  <div class="scroll">
    <table class="plain">
      <thead>
        <tr>
          <th class="number">Power, {{ units.unit('power') }}</th>
          <th class="number">At the part, W</th>
          <th class="number">Speed, {{ units.unit('speed') }}</th>
          <th class="number">Interval, {{ units.unit('interval') }}</th>
          <th>Besides</th>
          <th>After the scrub</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(cell, i) in cells" :key="i">
          <td class="number">{{ formatNumber(units.read('power', cell.powerPercent).value) }}</td>
          <td class="number">{{ formatNumber(cell.powerW) }}</td>
          <td class="number">{{ formatNumber(units.read('speed', cell.speedMmPerS).value) }}</td>
          <td class="number">{{ formatNumber(units.read('interval', cell.intervalMm).value) }}</td>
          <td>{{ restWords({ ...cell, coats: cell.coats ?? undefined }, units.reading.value).join(', ') }}</td>
          <td>
            {{ OUTCOMES[cell.outcome] }}{{ cell.byEye ? ', by eye' : ''
            }}{{ cell.lookedAgain ? ', looked at again' : '' }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow: auto;
}
</style>
