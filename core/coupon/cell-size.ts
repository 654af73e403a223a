import type { CouponDesign } from './design.js';

/** Rows that a cell needs before its middle is like a large area: common practice, no source. */
const LEAST_ROWS = 20;
/** Width that a cell needs, in spots, before its ends no longer count: common practice, no source. */
const LEAST_SPOTS = 15;
/** A cell this large tells no more than a smaller one and spends compound, mm². Common practice, no source. */
const AMPLE_MM2 = 60;

/**
 * What is to be said about the size of filled cells under a spot and their widest interval; empty where it is right.
 * @example cellSizeAdvice({ fill: 'filled', cell: { widthMm: 5, heightMm: 1 } }, { spotMm: 0.16, widestIntervalMm: 0.1 })
 */
export function cellSizeAdvice(
  { fill, cell }: Pick<CouponDesign, 'fill' | 'cell'>,
  { spotMm, widestIntervalMm }: { readonly spotMm: number; readonly widestIntervalMm: number },
): string {
  if (fill !== 'filled') return '';
  const rows = Math.round(cell.heightMm / widestIntervalMm);
  if (rows < LEAST_ROWS)
    return `Cells of ${rows} rows tell little of a larger mark: make them ${(LEAST_ROWS * widestIntervalMm).toFixed(1)} mm high at least.`;
  if (cell.widthMm < LEAST_SPOTS * spotMm)
    return `Cells ${cell.widthMm} mm wide are mostly ends of rows under a spot of ${spotMm.toFixed(2)} mm: make them ${(LEAST_SPOTS * spotMm).toFixed(1)} mm wide at least.`;
  const area = cell.widthMm * cell.heightMm;
  return area > AMPLE_MM2
    ? `Cells of ${area.toFixed(0)} mm² tell no more than smaller ones and spend compound: 5 × 4 mm is ample.`
    : '';
}
