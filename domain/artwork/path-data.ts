import type { ArtworkShape } from '@unto/core';

/** Path data of a shape, to a hundredth of a mm, y turned down from a height. */
export function pathData({ rings, as }: Pick<ArtworkShape, 'rings' | 'as'>, heightMm: number): string {
  const fine = (mm: number) => String(Math.round(mm * 100) / 100);
  return rings
    .map((ring) => {
      let path = '';
      for (let i = 0; i < ring.length; i += 2)
        path += `${i ? 'L' : 'M'}${fine(ring[i]!)} ${fine(heightMm - ring[i + 1]!)}`;
      return as === 'line' ? path : `${path}Z`;
    })
    .join('');
}
