import { api, PATIENT_MS, type Answer, type CallOf } from '../api/client';
import type { WriteName } from '../api/keys';
import { useShop } from './shop';
import { useTouch } from './useTouch';

/** Files that are brought back: sent at once and never later, since their report is read by whoever brought them. */
export function useBringing() {
  const { touchedBy } = useTouch();
  const shop = useShop();

  async function bring<N extends Extract<WriteName, `import${string}`>>(name: N, call: CallOf<N>): Promise<Answer<N>> {
    const report = await api.call(name, call, { operator: shop.operatorId ?? '', withinMs: 10 * PATIENT_MS });
    await touchedBy(name, call);
    return report;
  }

  return { bring };
}
