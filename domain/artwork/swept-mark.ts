/** A mark as far as its time goes by it. */
export interface TimedMark {
  readonly markWidthMm: number;
  readonly markHeightMm: number;
  readonly sweptWidthMm?: number | null | undefined;
  readonly sweptHeightMm?: number | null | undefined;
}

/** The rectangle whose filling takes as long as that of the mark: of its artwork's rows where it has artwork, else the mark itself. */
export function sweptMark({ markWidthMm, markHeightMm, sweptWidthMm, sweptHeightMm }: TimedMark): {
  readonly widthMm: number;
  readonly heightMm: number;
} {
  return { widthMm: sweptWidthMm ?? markWidthMm, heightMm: sweptHeightMm ?? markHeightMm };
}
