import type { InventoryBodyOf, Ticket } from '@unto/contract';

/** Size of a piece: its blank's, else its mark with the margin of its coat around. */
export function pieceSize(
  ticket: Pick<Ticket, 'markWidthMm' | 'markHeightMm' | 'coatMarginMm'>,
  blank: Pick<InventoryBodyOf['blank'], 'widthMm' | 'heightMm'> | null,
): { readonly widthMm: number; readonly heightMm: number } {
  const { markWidthMm, markHeightMm, coatMarginMm } = ticket;
  return {
    widthMm: blank?.widthMm ?? markWidthMm + 2 * coatMarginMm,
    heightMm: blank?.heightMm ?? markHeightMm + 2 * coatMarginMm,
  };
}
