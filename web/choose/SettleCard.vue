<script setup lang="ts">
import type { ChoiceOptionView, Ticket } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { ApiProblem } from '../api/client';
import GradeMark from '../evidence/GradeMark.vue';
import CautionStrip from '../station/CautionStrip.vue';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import { useShop } from '../stores/shop';
import { useTicket } from '../stores/ticket';
import { useTicketChange } from '../stores/ticket-change';
import { formatMoment } from '../ui/format';
import TextField from '../ui/TextField.vue';
import { useStillHere } from '../ui/useStillHere';
import { useUnits } from '../ui/useUnits';
import type { SupplyRow } from './supply';
import type { useChoice } from './useChoice';

/** What stands against the option in hand, why it is taken, and taking it. */
const props = defineProps<{
  choice: ReturnType<typeof useChoice>;
  picked: string | null;
  /** The option that stands on the ticket. */
  taken: string | null;
  supply: readonly SupplyRow[];
}>();
const ticket = useTicket();
const shop = useShop();
const units = useUnits();
const change = useTicketChange();
const notices = useNotices();
const router = useRouter();
const outbox = useOutbox();
const busy = ref(false);
const { weights, ranked, page } = props.choice;
const reason = ref(ticket.ticket?.choiceReason ?? '');
const missingReason = ref('');
const chosen = computed(() => (page.value && props.picked ? (props.choice.view(props.picked) ?? null) : null));
const first = computed(() => ranked.value[0]?.option.id ?? null);
/** How the choice on the ticket was taken, from the record. */
const record = computed(() => {
  const last = page.value?.choices[0];
  if (!last || last.optionId !== props.taken) return '';
  const scored = last.scores.find(({ optionId }) => optionId === last.optionId);
  const among = scored ? `${Math.round(scored.score)} points, place ${scored.rank} of ${last.scores.length}` : '';
  const under = last.profileId ? `under ${shop.nameOf(last.profileId)}` : 'under weights of their own';
  const flag = last.offLabel ? ', off its label' : '';
  return `Taken by ${shop.personOf(last.by)}, ${formatMoment(last.at)}: ${among} ${under}${flag}.`;
});
const doubts = computed(() => chosen.value?.judgement.reasons.filter(({ favourable }) => !favourable) ?? []);
const unproved = computed(() => chosen.value !== null && chosen.value.coupons === 0);
const shortBy = computed(() => props.supply.find(({ compound }) => compound.id === props.picked)?.job.missingG ?? 0);

const stillHere = useStillHere();

async function take(): Promise<void> {
  const option = chosen.value;
  const before = ticket.ticket;
  if (!option || !before) return;
  if (option.id !== first.value && reason.value.trim() === '') {
    missingReason.value = `Say why ${option.name} and not ${props.choice.view(first.value!).name}; it is kept on the ticket.`;
    return;
  }
  missingReason.value = '';
  await send(option, before);
}

/** Sends the choice onto a version of the ticket; when somebody was quicker both are offered. */
async function send(option: ChoiceOptionView, onto: Ticket): Promise<void> {
  const why = reason.value.trim();
  const body = {
    id: uuid(),
    version: onto.version,
    optionId: option.id,
    profileId: props.choice.own.value ? null : props.choice.profileId.value,
    weights: { ...weights.value },
    reason: why,
  };
  busy.value = true;
  try {
    const answer = await outbox.send('createChoice', { params: { id: onto.id }, body }, `Taken: ${option.name}.`);
    if (!answer) return;
    const back = { compoundId: onto.compoundId, choiceReason: onto.choiceReason };
    notices.say(`Taken: ${option.name}.`, 'plain', () => void change.change(back, 'Taken back.'));
    if (!stillHere()) return;
    await router.push(`/tickets/${onto.id}/${option.judgement.verdict === 'warned' ? 'prove' : 'prepare'}`);
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    if (error.problem.type === 'version-conflict') {
      change.conflict = {
        mine: { compoundId: option.compoundId, choiceReason: why },
        before: onto,
        theirs: error.problem.current as Ticket,
        again: (theirs) => send(option, theirs),
      };
    } else notices.say(error.first, 'danger');
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <section class="card">
    <h2>Before it is settled</h2>
    <p v-if="record" class="quiet small" data-test-id="record">{{ record }}</p>
    <ul v-if="chosen" class="todo" data-test-id="todo">
      <li v-for="entry in doubts" :key="entry.code">{{ entry.text }} <GradeMark :grade="entry.grade" /></li>
      <li v-if="unproved">
        <strong>Prove it first:</strong> no scrubbed coupon of {{ chosen.name }} on this substrate under this lens.
      </li>
      <li v-if="shortBy > 0">
        {{ units.rounded('mass', Math.ceil(shortBy), 0.1) }} more than the shelf holds are needed for
        {{ ticket.ticket!.pieces }} pieces.
      </li>
      <li v-if="!doubts.length && !unproved && shortBy <= 0" class="quiet">
        Nothing: proved on this substrate, and the shelf holds enough.
      </li>
    </ul>
    <TextField
      v-model="reason"
      :label="picked === first ? 'Why (kept on the ticket)' : 'Why not the first (kept on the ticket)'"
      test-id="reason"
      :fault="missingReason || undefined"
    />
    <CautionStrip station="choose" />
    <div class="foot">
      <Button
        :label="chosen ? `${picked === taken ? 'Keep' : 'Take'} ${chosen.name}` : 'Take'"
        :disabled="!chosen || !ranked.length"
        :loading="busy"
        data-test-id="take"
        @click="take"
      />
    </div>
  </section>
</template>

<style scoped>
.card {
  display: flex;
  flex-direction: column;
  gap: 0.45rem;
  padding: 0.7rem 0.9rem;
  background: var(--unto-surface);
  border: 1px solid var(--unto-rule);
  border-radius: 4px;
}

.todo {
  display: flex;
  flex-direction: column;
  gap: 0.2rem;
  margin: 0;
  padding-left: 1.1rem;
  max-height: 7.5rem;
  overflow-y: auto;
  font-size: 0.9rem;
}

.foot {
  display: flex;
  margin-top: auto;
}

.foot > * {
  flex: 1;
}
</style>
