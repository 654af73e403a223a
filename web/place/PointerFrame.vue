<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import GradeMark from '../evidence/GradeMark.vue';
import NumberRows from './NumberRows.vue';
import { emptyRow, wholeRows, type NumberColumn, type NumberRow } from './rows';
import { usePlaceEntry } from './usePlaceEntry';
import type { PlaceEntriesOf } from '@unto/contract';
import { useUnits } from '../ui/useUnits';

/** Where the pointer stood and where the beam marked, a few times: their offset, measured once a head and applied from then on. */
const COLUMNS: readonly NumberColumn[] = [
  { key: 'pointerXMm', label: 'Pointer x', unit: 'mm' },
  { key: 'pointerYMm', label: 'Pointer y', unit: 'mm' },
  { key: 'markXMm', label: 'Dot x', unit: 'mm' },
  { key: 'markYMm', label: 'Dot y', unit: 'mm' },
];
const rows = ref<NumberRow[]>([emptyRow(COLUMNS)]);
const units = useUnits();
const entries = computed(() => ({
  pairs: wholeRows(COLUMNS, rows.value) as unknown as PlaceEntriesOf['pointer']['pairs'],
}));
const { result, fault, keep, busy } = usePlaceEntry('pointer', entries);
</script>

<template>
  <details>
    <summary>Offset from pointer to beam</summary>
    <p class="quiet small">
      Put the pointer on a cross on scrap, mark a dot, read both; three times make an interval. Firing is a firing:
      enclosure shut, eyewear on.
    </p>
    <NumberRows v-model="rows" :columns="COLUMNS" name="pointer dot" test-id="pointer" />
    <p v-if="result" data-test-id="pointer-offset">
      Offset <span class="mono">{{ units.figures('length', result.x.value, result.y.value, 3, ', ') }}</span>
      <template v-if="result.x.interval"
        >, ±
        {{
          units.figures(
            'length',
            result.x.interval.high - result.x.value,
            result.y.interval!.high - result.y.value,
            2,
            ' and ± ',
          )
        }}</template
      >
      <GradeMark :figure="result.x" title="Offset from pointer to beam" />
    </p>
    <p v-else class="quiet small">{{ fault }}</p>
    <Button
      outlined
      label="Keep this offset"
      :disabled="!result"
      :loading="busy"
      data-test-id="keep-pointer"
      @click="keep('taken')"
    />
  </details>
</template>

<style scoped>
summary {
  min-height: 44px;
  cursor: pointer;
  font-weight: 700;
}
</style>
