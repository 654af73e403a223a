<script setup lang="ts">
import { useQuery } from '@pinia/colada';
import { MOST_PICTURED, type LedgerRecord, type RunPicture } from '@unto/contract';
import Button from 'primevue/button';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import GradeMark from '../evidence/GradeMark.vue';
import { formatDay } from '../ui/format';
import { judgedWords } from './judged-words';

/** Runs by their pictures: washed pieces, pictures put beside them, the dry coat, the coupon behind the setting. */
const props = defineProps<{ records: readonly LedgerRecord[]; more: boolean }>();
const emit = defineEmits<{ older: [] }>();
const PICTURED: Record<RunPicture['of'], string> = {
  tray: 'washed pieces',
  note: 'beside the run',
  coat: 'dry coat',
  coupon: 'coupon',
};
const parts = computed(() =>
  Array.from({ length: Math.ceil(props.records.length / MOST_PICTURED) }, (_, i) =>
    props.records
      .slice(i * MOST_PICTURED, (i + 1) * MOST_PICTURED)
      .map(({ id }) => id)
      .join(','),
  ),
);
const { data } = useQuery({
  key: () => KEYS.ledger('pictures', ...parts.value),
  query: async () =>
    (await Promise.all(parts.value.map((runs) => api.call('runPictures', { query: { runs } })))).flat(),
});
const pictured = computed(() =>
  props.records
    .map((run) => ({ run, pictures: (data.value ?? []).filter(({ runId }) => runId === run.id) }))
    .filter(({ pictures }) => pictures.length > 0),
);
const captionOf = ({ of, words }: RunPicture) => [PICTURED[of], words].filter(Boolean).join(': ');
</script>

<template>
  <section data-test-id="ledger-pictures">
    <p v-if="data" class="quiet">
      {{ pictured.length }} of the {{ records.length }} runs shown have pictures<template v-if="more"
        >; older runs may have more</template
      >.
    </p>
    <ul class="runs">
      <li v-for="{ run, pictures } in pictured" :key="run.id" data-test-id="pictured-run">
        <p class="head">
          <RouterLink :to="`/ledger/${run.id}`"
            ><strong>{{ run.ticketTitle }}</strong></RouterLink
          >
          <span class="quiet">{{ formatDay(run.at) }}</span>
        </p>
        <p class="small about">
          {{ run.substrateName }}, {{ run.compoundName ?? 'no compound' }} <GradeMark :grade="run.grade" />
          <span :class="run.judgement?.faults.length ? 'fault' : 'quiet'">{{ judgedWords(run) }}</span>
        </p>
        <div class="strip">
          <a
            v-for="(picture, i) in pictures"
            :key="i"
            :href="`/api/files/${picture.fileHash}`"
            target="_blank"
            rel="noopener"
          >
            <img
              :src="`/api/files/${picture.fileHash}/small`"
              :alt="`${captionOf(picture)}, ${run.ticketTitle}`"
              loading="lazy"
              width="150"
              height="112"
            />
            <span class="small">{{ captionOf(picture) }}</span>
          </a>
        </div>
      </li>
    </ul>
    <Button v-if="more" outlined label="Show older runs" @click="emit('older')" />
  </section>
</template>

<style scoped>
.runs {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(340px, 1fr));
  gap: 1px;
  margin: 0.4rem 0;
  padding: 1px;
  list-style: none;
  background: var(--unto-rule);
}

.runs li {
  padding: 0.7rem 0.8rem;
  background: var(--unto-surface);
}

.runs p {
  margin: 0 0 0.3rem;
}

.head {
  display: flex;
  justify-content: space-between;
  gap: 0.6rem;
}

.about > * {
  margin-left: 0.4rem;
}

.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}

.strip a {
  display: flex;
  flex-direction: column;
  width: 150px;
}

.strip img {
  object-fit: cover;
  background: var(--unto-ground);
}

@media (max-width: 900px) {
  .runs {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
