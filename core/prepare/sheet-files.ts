import { dxfFile, dxfPolyline } from '../formats/dxf.js';
import type { SheetBox } from './sheet-layout.js';

/** Length of the ruler to lay a steel rule against, mm. */
const RULER_MM = 50;
/** Width the ruler and its words take, mm. */
const FOOT_MM = 140;

/** A layout to be drawn: rows of one size, or a nesting. */
export interface DrawnSheet {
  readonly sheet: { readonly widthMm: number; readonly heightMm: number };
  readonly keepOuts: readonly SheetBox[];
  readonly places: readonly SheetBox[];
  /** Which places are for test pieces. */
  readonly isTest: (index: number) => boolean;
}

/** The layout as SVG 1.1 at true scale in mm, with a ruler below the sheet to check a printout by. */
export function sheetSvg(drawn: DrawnSheet): string {
  const { widthMm, heightMm } = drawn.sheet;
  const box = ({ xMm, yMm, widthMm: w, heightMm: h }: SheetBox, style: string) =>
    `  <rect x="${round(xMm)}" y="${round(heightMm - yMm - h)}" width="${round(w)}" height="${round(h)}" ${style}/>`;
  const [across, down] = [round(Math.max(widthMm, FOOT_MM)), round(heightMm + 14)];
  const ticks = Array.from(
    { length: RULER_MM / 10 + 1 },
    (_, i) => `M${10 * i} ${round(heightMm + 4)}v${i % 5 ? 2 : 4}`,
  ).join('');
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" version="1.1" width="${across}mm" height="${down}mm" viewBox="0 0 ${across} ${down}">`,
    `  <rect width="${round(widthMm)}" height="${round(heightMm)}" fill="none" stroke="#000" stroke-width="0.3"/>`,
    ...drawn.places.map((place, i) =>
      box(place, `fill="none" stroke="#000" stroke-width="0.2"${drawn.isTest(i) ? ' stroke-dasharray="2 1"' : ''}`),
    ),
    ...drawn.keepOuts.map((place) => box(place, 'fill="#ccc" stroke="none"')),
    `  <path d="M0 ${round(heightMm + 4)}h${RULER_MM}${ticks}" fill="none" stroke="#000" stroke-width="0.2"/>`,
    `  <text x="${RULER_MM + 2}" y="${round(heightMm + 8)}" font-size="4" font-family="sans-serif">${RULER_MM} mm: check against a rule before cutting</text>`,
    '</svg>',
    '',
  ].join('\n');
}

/** The layout as DXF R12 in mm: closed polylines, the sheet on layer SHEET, pieces on PIECES, test pieces on TEST, keep-outs on KEEPOUT. */
export function sheetDxf(drawn: DrawnSheet): string {
  const sheet: SheetBox = { xMm: 0, yMm: 0, ...drawn.sheet };
  return dxfFile([
    ...outline(sheet, 'SHEET'),
    ...drawn.places.flatMap((place, i) => outline(place, drawn.isTest(i) ? 'TEST' : 'PIECES')),
    ...drawn.keepOuts.flatMap((place) => outline(place, 'KEEPOUT')),
  ]);
}

function outline({ xMm, yMm, widthMm, heightMm }: SheetBox, layer: string): string[] {
  const corners = [
    [xMm, yMm],
    [xMm + widthMm, yMm],
    [xMm + widthMm, yMm + heightMm],
    [xMm, yMm + heightMm],
  ] as const;
  return dxfPolyline(corners, layer, true);
}

function round(mm: number): number {
  return Number(mm.toFixed(4));
}
