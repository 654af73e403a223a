/** From the artwork's own upper left (y down, mm) to where it lies from a piece's lower left corner. A number that is being typed is none for a moment. */
export function onPiece(
  { xMm, yMm, turnDeg }: { readonly xMm: number; readonly yMm: number; readonly turnDeg: number },
  drawing: { readonly heightMm: number } | null | undefined,
): string {
  return `translate(${xMm || 0} ${-(yMm || 0)}) rotate(${-(turnDeg || 0)}) translate(0 ${-(drawing?.heightMm ?? 0)})`;
}
