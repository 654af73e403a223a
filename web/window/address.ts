import type { Pairing } from '@unto/contract';

/** In an address in place of a compound, where metal was left bare. */
const BARE = 'bare';

/** Parameters of a window’s address. */
export interface WindowParams {
  readonly substrateId: string;
  readonly headId: string;
  readonly lensId: string;
  /** A compound, or the word for none. */
  readonly compoundId: string;
}

/** Where the window of a pairing opens; with a ticket, for its job. */
export function windowAddress(
  { substrateId, headId, lensId, compoundId }: Pairing,
  ticketId: string | null = null,
): string {
  const path = `/windows/${substrateId}/${headId}/${lensId}/${compoundId ?? BARE}`;
  return ticketId ? `${path}?ticket=${ticketId}` : path;
}

export const pairingIn = ({ compoundId, ...rest }: WindowParams): Pairing => ({
  ...rest,
  compoundId: compoundId === BARE ? null : compoundId,
});

/** What is asked of the server for the window of a pairing. */
export function windowQueryOf({ compoundId, ...rest }: Pairing) {
  return { ...rest, compoundId: compoundId ?? undefined };
}
