import type { Fitting } from '@unto/contract';

/**
 * Whether something ticked or acknowledged still holds under what is fitted now: focus, alignment and eyewear are asked again after
 * every change of head or lens.
 */
export function holdsUnder(
  check: { readonly station: string; readonly kind: string; readonly code: string; readonly sequence: number },
  fitting: Pick<Fitting, 'sequence'> | null,
): boolean {
  const bound = check.kind === 'check' ? check.station === 'place' : check.code.startsWith('eyewear');
  return !fitting || !bound || check.sequence > fitting.sequence;
}

/** Whether another head or lens stands on the machine than was planned. */
export function isOther(
  fitting: Pick<Fitting, 'headId' | 'lensId'> | null,
  planned: { readonly headId: string; readonly lensId: string },
): boolean {
  return fitting !== null && (fitting.headId !== planned.headId || fitting.lensId !== planned.lensId);
}
