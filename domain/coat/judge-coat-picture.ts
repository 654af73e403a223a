import { judgeCoatMap, type CoatMap, type CoatMapJudgement } from '@unto/core';
import type { Ticket } from '@unto/contract';

/** Judges a map over the artwork of a ticket, which lies in the middle of the coat. */
export function judgePicture(
  map: CoatMap,
  coat: { readonly widthMm: number; readonly heightMm: number },
  ticket: Pick<Ticket, 'markWidthMm' | 'markHeightMm'>,
): CoatMapJudgement {
  return judgeCoatMap(map, {
    xMm: (coat.widthMm - ticket.markWidthMm) / 2,
    yMm: (coat.heightMm - ticket.markHeightMm) / 2,
    widthMm: ticket.markWidthMm,
    heightMm: ticket.markHeightMm,
  });
}
