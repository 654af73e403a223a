import type { Pairing } from '@unto/contract';

/** In an address in place of a compound, where metal was left bare. */
export const BARE = 'bare';

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

/** A window that is compared: a pairing, all its lots or one of them, and with how many coats where that is said. */
export interface Compared extends Pairing {
  readonly lot: string | null;
  readonly coats: number | null;
}

/** Between the parts of a compared window in an address. */
export const SPLIT = '|';

/** As it stands in an address. */
export function comparedText({ substrateId, headId, lensId, compoundId, lot, coats }: Compared): string {
  return [substrateId, headId, lensId, compoundId ?? BARE, lot ?? '', coats ?? '']
    .map((part) => encodeURIComponent(part))
    .join(SPLIT);
}
