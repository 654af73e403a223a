<script setup lang="ts">
import { coatRules } from '@unto/core';
import { storeCoat, type StoreCoat } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed } from 'vue';
import { useShop } from '../stores/shop';
import { useOutbox } from '../stores/outbox';
import { useTicket } from '../stores/ticket';
import { formatDay, formatMoment } from '../ui/format';
import NumberField from '../ui/NumberField.vue';
import FormNote from '../ui/FormNote.vue';
import TextField from '../ui/TextField.vue';
import { useForm } from '../ui/useForm';
import StoredRow from './StoredRow.vue';
import type { Coat } from './useCoat';

/** Coated, dry pieces laid on the shelf under their date and rule, and taken up again after a look at them. */
const props = defineProps<{ coat: Coat }>();
const { body, stored, drying, newest } = props.coat;
const ticket = useTicket();
const shop = useShop();
const outbox = useOutbox();
const ended = computed(() => ticket.page?.storedCoats.filter(({ endedAt }) => endedAt) ?? []);
const form = useForm<StoreCoat>(
  storeCoat,
  () => ({
    id: uuid(),
    pieces: newest.value?.pieces ?? ticket.ticket!.pieces,
    place: '',
    note: '',
  }),
  { draft: `stored-${ticket.ticket!.id}` },
);
const { busy } = form;

async function keep(): Promise<void> {
  const id = ticket.ticket!.id;
  await form.submit(async (entry) => {
    const answer = await outbox.send('storeCoat', { params: { id }, body: entry }, 'coated pieces on the shelf');
    form.reset();
    return answer;
  });
}
</script>

<template>
  <h2>Coated, to be fired another day</h2>
  <p class="quiet">
    {{ coatRules(body.handling).store }}
    {{
      body.shelfLifeDays === null
        ? 'Its maker names no shelf life: look again before firing.'
        : `A dry coat of ${body.name} keeps ${body.shelfLifeDays} days.`
    }}
  </p>
  <StoredRow v-for="one in stored" :key="one.id" :stored="one" />
  <form novalidate @submit.prevent="keep">
    <h3>Store a batch</h3>
    <FormNote />
    <p v-if="drying.length" class="fault">A coat still dries: a wet coat is not stored.</p>
    <div class="form-grid">
      <NumberField name="pieces" label="Pieces" test-id="store-pieces" />
      <TextField name="place" label="Where they lie" test-id="store-place" />
    </div>
    <Button type="submit" label="Store them" :loading="busy" :disabled="drying.length > 0" data-test-id="store-coat" />
  </form>
  <section v-if="ended.length">
    <h3>Earlier</h3>
    <p v-for="one in ended" :key="one.id" class="small">
      {{ one.pieces }} pieces, stored {{ formatDay(one.storedAt) }}, {{ one.outcome }}
      {{ formatMoment(one.endedAt!) }} by {{ shop.personOf(one.endedBy!)
      }}<template v-if="one.endReason">: {{ one.endReason }}</template>
    </p>
  </section>
</template>

<style scoped>
form {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  align-items: flex-start;
}

.form-grid {
  width: 100%;
}
</style>
