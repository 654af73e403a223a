import { changeableFields } from '@unto/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import type { ChangeTicket, Ticket } from '@unto/contract';
import { ApiProblem } from '../api/client';
import { useNotices } from './notices';
import { useOutbox } from './outbox';
import { useTicket } from './ticket';

/** A change of ours that met somebody else's. */
export interface Conflict {
  readonly mine: Partial<ChangeTicket>;
  readonly before: Ticket;
  readonly theirs: Ticket;
  /** How ours is put over theirs, where that is more than changing fields. */
  readonly again?: (theirs: Ticket) => Promise<unknown>;
}

/** Changes to the open ticket: with its version, undo, and both versions offered when somebody was quicker. */
export const useTicketChange = defineStore('ticket-change', () => {
  const conflict = ref<Conflict | null>(null);
  const ticket = useTicket();
  const outbox = useOutbox();
  const notices = useNotices();

  async function change(
    patch: Partial<ChangeTicket>,
    said: string,
    onto: Ticket | null = ticket.ticket,
  ): Promise<boolean> {
    if (!onto) return false;
    try {
      const body = { ...changeableFields(onto), ...patch };
      const answer = await outbox.send('changeTicket', { params: { id: onto.id }, body }, said);
      if (answer) {
        const back = Object.fromEntries(Object.keys(patch).map((key) => [key, onto[key as keyof Ticket]]));
        notices.say(said, 'plain', () => void change(back, 'Taken back.', ticket.ticket));
      }
      return true;
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      if (error.problem.type === 'version-conflict')
        conflict.value = { mine: patch, before: onto, theirs: error.problem.current as Ticket };
      else notices.say(error.first, 'danger');
      return false;
    }
  }

  async function resolve(keep: 'mine' | 'theirs'): Promise<void> {
    const found = conflict.value;
    conflict.value = null;
    if (!found) return;
    if (keep === 'mine' && found.again) await found.again(found.theirs);
    else if (keep === 'mine') await change(found.mine, 'Your version stands.', found.theirs);
    else await ticket.open(found.theirs.id);
  }

  return { conflict, change, resolve };
});
