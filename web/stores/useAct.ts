import { ref } from 'vue';
import { ApiProblem } from '../api/client';
import { useNotices } from './notices';
import { useOutbox, type Waiting } from './outbox';
import { useTicket } from './ticket';

/** A press that writes and then shows the open ticket afresh. A refusal without a field is said as a notice. */
export function useAct() {
  const busy = ref(false);
  const outbox = useOutbox();
  const ticket = useTicket();
  const notices = useNotices();

  async function act<T>(method: Waiting['method'], path: string, body: unknown, label: string): Promise<T | null> {
    busy.value = true;
    try {
      const answer = await outbox.send<T>(method, path, body, label);
      if (answer !== null && ticket.ticket) await ticket.load(ticket.ticket.id);
      return answer;
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      notices.say(error.problem.detail, 'danger');
      return null;
    } finally {
      busy.value = false;
    }
  }

  return { act, busy };
}
