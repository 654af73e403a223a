import { useQuery } from '@pinia/colada';
import { computed } from 'vue';
import type { Remark } from '@unto/contract';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useNotices } from '../stores/notices';
import { useAct } from '../stores/useAct';

/** Notes and pictures beside a ticket and its runs; those of one run where one is meant. */
export function useRemarks(ticketId: () => string | null, runId: () => string | null = () => null) {
  const notices = useNotices();
  const { act } = useAct();
  const { data } = useQuery({
    key: () => KEYS.remarks(ticketId() ?? ''),
    query: () => api.call('listRemarks', { query: { ticketId: ticketId()! } }),
    enabled: () => ticketId() !== null,
  });
  const remarks = computed(() => {
    const run = runId();
    return (data.value ?? []).filter((remark) => run === null || remark.runId === run);
  });

  /** Takes one out of sight, with the way back. */
  async function retire(remark: Remark, retired = true): Promise<void> {
    const call = { params: { id: remark.id }, body: { retired } };
    if (!(await act('retireRemark', call, retired ? 'a note taken away' : 'a note put back'))) return;
    if (retired) notices.say('The note is out of sight.', 'plain', () => void retire(remark, false));
  }

  return { remarks, retire };
}
