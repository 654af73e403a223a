import type { ArtworkShape } from './shapes.js';

const hundredth = (mm: number) => String(Math.round(mm * 100) / 100);

/** Path data of a shape, mm, y turned down from a height. @param said how a place is written; to a hundredth of a mm where left out */
export function pathData(
  { rings, as }: Pick<ArtworkShape, 'rings' | 'as'>,
  heightMm: number,
  said: (mm: number) => string = hundredth,
): string {
  return rings
    .map((ring) => {
      let path = '';
      for (let i = 0; i < ring.length; i += 2)
        path += `${i ? 'L' : 'M'}${said(ring[i]!)} ${said(heightMm - ring[i + 1]!)}`;
      return as === 'line' ? path : `${path}Z`;
    })
    .join('');
}
