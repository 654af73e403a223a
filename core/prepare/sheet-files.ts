import type { SheetBox, SheetJob, SheetLayout } from './sheet-layout.js';

/** Length of the ruler to lay a steel rule against, mm. */
const RULER_MM = 50;
/** Width the ruler and its words take, mm. */
const FOOT_MM = 140;

/** The layout as SVG 1.1 at true scale in mm, with a ruler below the sheet to check a printout by. */
export function sheetSvg(job: SheetJob, layout: SheetLayout): string {
  const { widthMm, heightMm } = job.sheet;
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
    ...layout.places.map((place) => box(place, 'fill="none" stroke="#000" stroke-width="0.2"')),
    ...job.keepOuts.map((place) => box(place, 'fill="#ccc" stroke="none"')),
    `  <path d="M0 ${round(heightMm + 4)}h${RULER_MM}${ticks}" fill="none" stroke="#000" stroke-width="0.2"/>`,
    `  <text x="${RULER_MM + 2}" y="${round(heightMm + 8)}" font-size="4" font-family="sans-serif">${RULER_MM} mm: check against a rule before cutting</text>`,
    '</svg>',
    '',
  ].join('\n');
}

/** The layout as DXF R12 in mm: closed polylines, the sheet on layer SHEET, pieces on PIECES, keep-outs on KEEPOUT. */
export function sheetDxf(job: SheetJob, layout: SheetLayout): string {
  const sheet: SheetBox = { xMm: 0, yMm: 0, ...job.sheet };
  const entities = [
    ...polyline(sheet, 'SHEET'),
    ...layout.places.flatMap((place) => polyline(place, 'PIECES')),
    ...job.keepOuts.flatMap((place) => polyline(place, 'KEEPOUT')),
  ];
  const header = ['0', 'SECTION', '2', 'HEADER', '9', '$ACADVER', '1', 'AC1009', '0', 'ENDSEC'];
  return [...header, '0', 'SECTION', '2', 'ENTITIES', ...entities, '0', 'ENDSEC', '0', 'EOF', ''].join('\r\n');
}

function polyline({ xMm, yMm, widthMm, heightMm }: SheetBox, layer: string): string[] {
  const corners = [
    [xMm, yMm],
    [xMm + widthMm, yMm],
    [xMm + widthMm, yMm + heightMm],
    [xMm, yMm + heightMm],
  ];
  return [
    ...['0', 'POLYLINE', '8', layer, '66', '1', '70', '1', '10', '0', '20', '0', '30', '0'],
    ...corners.flatMap(([x, y]) => [
      '0',
      'VERTEX',
      '8',
      layer,
      '10',
      String(round(x!)),
      '20',
      String(round(y!)),
      '30',
      '0',
    ]),
    ...['0', 'SEQEND', '8', layer],
  ];
}

function round(mm: number): number {
  return Number(mm.toFixed(4));
}
