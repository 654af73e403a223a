<script setup lang="ts">
import type { MethodView } from '@unto/contract';
import Dialog from 'primevue/dialog';
import GradeMark from '../evidence/GradeMark.vue';

/** Every method of the trade for this part and head, offered, doubtful or withheld, with its reasons. */
const open = defineModel<boolean>({ required: true });
defineProps<{ methods: readonly MethodView[] }>();
const WORDS = { offered: 'offered', warned: 'with doubts', blocked: 'withheld' } as const;
const SHAPES = { offered: '●', warned: '△', blocked: '✕' } as const;
</script>

<template>
  <Dialog
    v-model:visible="open"
    modal
    header="Every method, for this part under this head"
    :style="{ width: '62rem' }"
    data-test-id="methods"
  >
    <table class="plain">
      <thead>
        <tr>
          <th>Method</th>
          <th>Here</th>
          <th>Why</th>
          <th>On the shelf</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="entry in methods" :key="entry.method" :data-test-id="`method-${entry.method}`">
          <td>
            <strong>{{ entry.method }}</strong><br /><span class="quiet small">{{ entry.about }}</span>
          </td>
          <td :class="entry.judgement.verdict" class="word">
            {{ SHAPES[entry.judgement.verdict] }} {{ WORDS[entry.judgement.verdict] }}
          </td>
          <td class="small">
            <span v-for="found in entry.judgement.reasons" :key="found.code" class="reason"
              >{{ found.text }} <GradeMark :grade="found.grade"
            /></span>
            <span v-if="entry.elsewhere.length" class="reason quiet"
              >Possible under {{ entry.elsewhere.join(', ') }}.</span
            >
          </td>
          <td class="small">{{ entry.compounds.join(', ') || '–' }}</td>
        </tr>
      </tbody>
    </table>
  </Dialog>
</template>

<style scoped>
.word {
  white-space: nowrap;
  font-weight: 700;
}

.offered {
  color: var(--unto-bonded);
}

.warned {
  color: var(--unto-coat);
}

.blocked {
  color: var(--unto-danger);
}

.reason {
  display: block;
}
</style>
