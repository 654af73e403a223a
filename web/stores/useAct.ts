import { ref } from 'vue';
import { ApiProblem, type Answer, type CallOf } from '../api/client';
import type { WriteName } from '../api/keys';
import { useNotices } from './notices';
import { useOutbox } from './outbox';

/** A press that writes. A refusal without a field is said as a notice; one that waits says so. */
export function useAct() {
  const busy = ref(false);
  const outbox = useOutbox();
  const notices = useNotices();

  async function act<N extends WriteName>(name: N, call: CallOf<N>, label: string): Promise<Answer<N> | null> {
    busy.value = true;
    try {
      return await outbox.send(name, call, label);
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
