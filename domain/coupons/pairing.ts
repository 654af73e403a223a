import type { Pairing } from '@unto/contract';

/** What a row's window is of: compound (null: bare), substrate, head and lens. */
export const pairingOf = ({ substrateId, compoundId, headId, lensId }: Pairing): Pairing => ({
  ...{ substrateId, compoundId, headId, lensId },
});

/** Whether two are of the same. */
export const samePairing = (a: Pairing, b: Pairing): boolean =>
  a.substrateId === b.substrateId && a.compoundId === b.compoundId && a.headId === b.headId && a.lensId === b.lensId;
