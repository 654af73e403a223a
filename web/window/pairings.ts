import type { CouponSummary, Ticket } from '@unto/contract';

/** Scrubbed coupons of one compound, substrate, head and lens. */
export interface Pairing {
  readonly id: string;
  readonly first: CouponSummary;
  /** A ticket of the pairing, under which its window opens; null while there is none. */
  readonly ticketId: string | null;
  readonly codes: string;
  readonly cells: number;
  readonly holds: number;
}

type Paired = Pick<CouponSummary, 'substrateId' | 'compoundId' | 'headId' | 'lensId'>;
const nameOf = ({ substrateId, compoundId, headId, lensId }: Paired) =>
  [substrateId, compoundId, headId, lensId].join('|');

/** Scrubbed coupons gathered by their pairing, in the order they come. */
export function pairingsOf(coupons: readonly CouponSummary[], tickets: readonly Ticket[]): Pairing[] {
  const groups = new Map<string, CouponSummary[]>();
  for (const coupon of coupons) groups.set(nameOf(coupon), [...(groups.get(nameOf(coupon)) ?? []), coupon]);
  return [...groups].map(([id, group]) => {
    const sum = (pick: (coupon: CouponSummary) => number) => group.reduce((total, coupon) => total + pick(coupon), 0);
    return {
      id,
      first: group[0]!,
      ticketId: tickets.find((ticket) => nameOf(ticket) === id)?.id ?? null,
      codes: group.map(({ code }) => code).join(', '),
      cells: sum(({ scrubbedCells }) => scrubbedCells),
      holds: sum(({ holds }) => holds),
    };
  });
}
