<script setup lang="ts">
import { createTicket, type CreateTicket, type Ticket } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import { useShop } from '../stores/shop';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import FormNote from '../ui/FormNote.vue';
import PageHead from '../ui/PageHead.vue';
import { useForm } from '../ui/useForm';
import { useStillHere } from '../ui/useStillHere';
import { ticketFieldsOf } from './ticket-fields';
import TicketFields from './TicketFields.vue';

/** A new ticket; made like another where the address names one, with its compound where a run is repeated. */
const shop = useShop();
const outbox = useOutbox();
const notices = useNotices();
const route = useRoute();
const router = useRouter();
const NOTHING = '';
const like = ref<Ticket | null>(null);
const compoundId = ref<string | null>(null);

const form = useForm<CreateTicket>(
  createTicket,
  () => ({
    id: uuid(),
    title: '',
    pieces: 1,
    markWidthMm: Number.NaN,
    markHeightMm: Number.NaN,
    coatMarginMm: 3,
    substrateId: shop.onlyOne('substrate'),
    headId: shop.onlyOne('head'),
    lensId: NOTHING,
    aim: { tone: 'dark on light', strength: 'clear', work: 'fill' },
    foodUse: false,
    wantedOn: null,
    note: '',
  }),
  { draft: () => `new-ticket${String(route.query['like'] ?? '')}` },
);
const { busy } = form;
const stillHere = useStillHere();

onMounted(async () => {
  const { like: id, compound } = route.query;
  if (typeof id !== 'string') return;
  like.value = (await api.call('ticket', { params: { id } })).ticket;
  compoundId.value = compound === undefined ? null : like.value.compoundId;
  form.values.value = { id: uuid(), ...ticketFieldsOf(like.value), wantedOn: null };
});

async function keep(): Promise<void> {
  await form.submit(async (values) => {
    const answer = await outbox.send('createTicket', { body: values }, `ticket “${values.title}”`);
    if (!answer) notices.say('The ticket waits to be sent.');
    const station = answer && (await asBefore(answer)) ? 'prepare' : 'choose';
    if (stillHere()) await router.push(answer ? `/tickets/${values.id}/${station}` : '/tickets');
    return answer;
  });
}

/** Takes the compound of the ticket that is repeated, where the part and the head are still the same. */
async function asBefore(made: Ticket): Promise<boolean> {
  const before = like.value;
  if (!before || !compoundId.value || made.substrateId !== before.substrateId) return false;
  const body = {
    version: made.version,
    ...ticketFieldsOf(made),
    state: made.state,
    compoundId: compoundId.value,
    choiceReason: `As ticket ${before.number}, ${before.title}.`,
  };
  return Boolean(await outbox.send('changeTicket', { params: { id: made.id }, body }, 'the compound as before'));
}
</script>

<template>
  <PageHead
    title="New ticket"
    :about="like ? `Like ticket ${like.number}, ${like.title}` : 'One job: a part, how many, what the mark should be'"
  />
  <form class="paper-form" novalidate @submit.prevent="keep">
    <FormNote />
    <p v-if="compoundId" class="quiet" data-test-id="as-before">
      With {{ shop.nameOf(compoundId) }} again; Prove offers the setting that was proved.
    </p>
    <TicketFields />
    <div class="foot"><Button type="submit" label="Open the ticket" :loading="busy" data-test-id="keep" /></div>
  </form>
</template>
