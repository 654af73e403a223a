import { escapeXml, mmText as mm } from '../formats/xml.js';
import { designToken } from './embed.js';
import { cellLines } from './cell-lines.js';
import { labelStrokes } from '../lettering/label-strokes.js';
import { moduleRects } from '../lettering/symbols.js';
import type { CouponLayout } from './layout.js';
import { settingWords } from '../setting/setting-words.js';

/**
 * A coupon as SVG 1.1 at true size in mm: one group a cell (a rectangle when filled, strokes for line cells) carrying its setting
 * in a title and data attributes, labels as single strokes, the blank's outline. The design rides in the metadata.
 */
export function couponSvg(layout: CouponLayout): string {
  const { blank } = layout.design;
  const cells = layout.cells.map((cell) => cellGroup(cell, layout)).join('\n');
  const labels = [...layout.labels.flatMap((label) => labelStrokes(label)), ...layout.frameStrokes]
    .map((stroke) => stroke.map(([x, y], i) => `${i ? 'L' : 'M'}${mm(x)} ${mm(blank.heightMm - y)}`).join(' '))
    .join(' ');
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" version="1.1" width="${blank.widthMm}mm" height="${blank.heightMm}mm" viewBox="0 0 ${blank.widthMm} ${blank.heightMm}">
<title>Coupon ${escapeXml(layout.design.code)}</title>
<metadata>${designToken(layout.design)}</metadata>
<rect id="blank" x="0" y="0" width="${blank.widthMm}" height="${blank.heightMm}" fill="none" stroke="#59636A" stroke-width="0.1"/>
<g id="cells" stroke="#1F262B" stroke-width="0.05">
${cells}
</g>
<path id="labels" d="${labels}" fill="none" stroke="#1F262B" stroke-width="0.15"/>${qrGroup(layout)}
</svg>
`;
}

function cellGroup(cell: CouponLayout['cells'][number], { design }: CouponLayout): string {
  const top = design.blank.heightMm - cell.yMm - design.cell.heightMm;
  const setting = settingWords(cell, design.labels.reading ?? undefined);
  const shape =
    design.fill === 'filled'
      ? `<rect x="${mm(cell.xMm)}" y="${mm(top)}" width="${mm(design.cell.widthMm)}" height="${mm(design.cell.heightMm)}"/>`
      : `<path fill="none" d="${linePath(cell, design)}"/>`;
  return `<g id="cell-${cell.index + 1}" data-power-percent="${n(cell.powerPercent)}" data-speed-mm-per-s="${n(cell.speedMmPerS)}" data-interval-mm="${n(cell.intervalMm)}"><title>${setting}</title>${shape}</g>`;
}

function qrGroup({ qr, design }: CouponLayout): string {
  if (!qr) return '';
  const rects = moduleRects(qr).map(
    ({ xMm, yMm, widthMm, heightMm }) =>
      `<rect x="${mm(xMm)}" y="${mm(design.blank.heightMm - yMm - heightMm)}" width="${mm(widthMm)}" height="${mm(heightMm)}"/>`,
  );
  return `\n<g id="qr" fill="#1F262B" shape-rendering="crispEdges">${rects.join('')}</g>`;
}

function linePath(cell: CouponLayout['cells'][number], design: CouponLayout['design']): string {
  const lines = cellLines(design, cell);
  const flip = (y: number) => mm(design.blank.heightMm - cell.yMm - y);
  return lines
    .map((line) => `M${mm(cell.xMm + line.x0)} ${flip(line.y0)} L${mm(cell.xMm + line.x1)} ${flip(line.y1)}`)
    .join(' ');
}

function n(value: number): string {
  return String(Number(value.toPrecision(6)));
}
