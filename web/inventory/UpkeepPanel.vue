<script setup lang="ts">
import { UPKEEP, type CreateUpkeep } from '@unto/contract';
import { useQuery } from '@pinia/colada';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useAct } from '../stores/useAct';
import { useShop } from '../stores/shop';
import TextField from '../ui/TextField.vue';
import { formatMoment, withUnit } from '../ui/format';

/** What was done to keep a head or lens as it was, and the hours of beam since. */
const props = defineProps<{ itemId: string; kind: 'head' | 'lens' }>();
const shop = useShop();
const { act, busy } = useAct();
const { data } = useQuery({
  key: () => KEYS.upkeep(props.itemId),
  query: () => api.call('upkeep', { params: { id: props.itemId } }),
});
const note = ref('');
const WORDS: Record<CreateUpkeep['what'], string> = {
  cleaned: 'Cleaned now',
  'source renewed': 'Source renewed now',
  aligned: 'Aligned now',
};
const offered = computed(() => UPKEEP.filter((what) => props.kind === 'head' || what !== 'source renewed'));
const hours = (value: number) => withUnit(Number(value.toFixed(1)), 'h');
async function done(what: CreateUpkeep['what']): Promise<void> {
  const call = { params: { id: props.itemId }, body: { id: uuid(), what, note: note.value } };
  if (await act('createUpkeep', call, 'upkeep')) note.value = '';
}
</script>

<template>
  <section v-if="data" class="upkeep" data-test-id="upkeep">
    <h3>Upkeep</h3>
    <p>
      <template v-if="data.hoursSinceCleaned !== null"
        ><strong class="mono">{{ hours(data.hoursSinceCleaned) }}</strong> of beam since it was cleaned; </template
      ><strong class="mono">{{ hours(data.hours) }}</strong>
      {{
        data.done.some(({ what }) => what === 'source renewed')
          ? 'since its source was renewed'
          : 'of logged runs in all'
      }}.
    </p>
    <div class="row">
      <TextField v-model="note" label="Note" />
      <Button
        v-for="what in offered"
        :key="what"
        outlined
        :label="WORDS[what]"
        :loading="busy"
        :data-test-id="`upkeep-${what}`"
        @click="done(what)"
      />
    </div>
    <p v-for="one in data.done.slice(0, 6)" :key="one.id" class="small quiet">
      {{ one.what }}<template v-if="one.note">: {{ one.note }}</template
      >, {{ formatMoment(one.at) }}, {{ shop.personOf(one.by) }}
    </p>
  </section>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.6rem;
}
</style>
