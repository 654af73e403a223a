import { lastingWeight, contrastLeft, type ProtocolCode, type ReadBy, type Retention } from '@unto/core';
import type { DurabilityTest } from '@unto/contract';

/** What a look at a mark counts as where nobody read its contrast. */
export const STOOD = { 'no change': 1, 'slightly paler': 0.5, lost: 0 } as const;

/** A test with its looks, as far as it decides whether it is over. */
interface Looked {
  readonly dose: number;
  readonly looks: readonly { readonly doseDone: number; readonly result: keyof typeof STOOD }[];
}

/** A test is over once its dose is done, or its mark is lost. */
export function isOver({ dose, looks }: Looked): boolean {
  const last = looks.at(-1);
  return last !== undefined && (last.doseDone >= dose || last.result === 'lost');
}

/** Contrast left after the newest look; null where it was not read before and after. */
export function retentionOf({
  beforeContrast,
  readBy,
  looks,
}: Pick<DurabilityTest, 'beforeContrast' | 'readBy' | 'looks'>) {
  const after = looks.at(-1)?.afterContrast ?? null;
  return beforeContrast === null || after === null ? null : contrastLeft(beforeContrast, after, readBy ?? 'eye');
}

/** The newest look of a test, as far as it says how long a mark lasts. */
export interface Stood {
  readonly protocol: ProtocolCode;
  readonly result: keyof typeof STOOD;
  readonly beforeContrast: number | null;
  readonly afterContrast: number | null;
  readonly readBy: ReadBy | null;
}

/** Share left by the reading where there is one, else by what was seen. */
function shareLeft({ result, beforeContrast, afterContrast, readBy }: Stood): number {
  const read: Retention | null =
    beforeContrast === null || afterContrast === null
      ? null
      : contrastLeft(beforeContrast, afterContrast, readBy ?? 'eye');
  return Math.min(1, read?.share ?? STOOD[result]);
}

/** How well marks lasted, 0 to 1, weighed by what a part will meet; null where nothing that counts was tested. */
export function lastingShare(stood: readonly Stood[], part: { readonly foodUse: boolean }): number | null {
  const weighed = stood.map((one) => ({ weight: lastingWeight(one.protocol, part), share: shareLeft(one) }));
  const total = weighed.reduce((sum, { weight }) => sum + weight, 0);
  return total > 0 ? weighed.reduce((sum, { weight, share }) => sum + weight * share, 0) / total : null;
}
