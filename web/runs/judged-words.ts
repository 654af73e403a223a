import { CONTRAST_STEPS, type LedgerRecord } from '@unto/contract';

/** How a run was judged, in a few words. */
export function judgedWords({ correctedById, judgement }: LedgerRecord): string {
  if (correctedById) return 'corrected since';
  if (!judgement) return 'not yet judged';
  const step = CONTRAST_STEPS[judgement.contrastStep - 1]?.word ?? '';
  return [`${judgement.contrastStep} ${step}`, ...judgement.faults].join(', ');
}
