import { runsOf } from '../support/runs.js';
import { markCells } from './marks.js';
import { referenceCard, type CardBox, type CardSize } from './card.js';

/**
 * The reference card as SVG 1.1 at true size in mm: corner marks, grey steps, the window for the coupon, a millimetre ruler to check
 * the print by.
 */
export function cardSvg(size: CardSize): string {
  const card = referenceCard(size);
  const { widthMm: w, heightMm: h, window, ruler } = card;
  const rect = ({ xMm, yMm, widthMm, heightMm }: CardBox, style: string) =>
    `<rect x="${mm(xMm)}" y="${mm(h - yMm - heightMm)}" width="${mm(widthMm)}" height="${mm(heightMm)}" ${style}/>`;
  const marks = card.marks.flatMap((mark) => {
    const side = mark.widthMm / 8;
    return markCells(mark.id).flatMap((row, r) =>
      runsOf(row).map(([from, to]) =>
        rect(
          {
            xMm: mark.xMm + from * side,
            yMm: mark.yMm + mark.heightMm - (r + 1) * side,
            widthMm: (to - from) * side,
            heightMm: side,
          },
          'fill="#000"',
        ),
      ),
    );
  });
  const greys = card.greys.map((grey) => rect(grey, `fill="rgb(${grey.srgb},${grey.srgb},${grey.srgb})"`));
  const y = h - ruler.yMm;
  const ticks = Array.from(
    { length: ruler.lengthMm + 1 },
    (_, i) => `M${mm(ruler.xMm + i)} ${mm(y)}v${i % 10 === 0 ? -3 : i % 5 === 0 ? -2 : -1.2}`,
  ).join('');
  const words = `font-family="Helvetica, sans-serif" font-size="3" fill="#1F262B"`;
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" version="1.1" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">
<title>Unto reference card ${size}</title>
<rect width="${w}" height="${h}" fill="#fff"/>
<g shape-rendering="crispEdges">${marks.join('')}</g>
${greys.join('')}
${rect(window, 'fill="none" stroke="#59636A" stroke-width="0.2" stroke-dasharray="2 2"')}
<path d="M${mm(ruler.xMm)} ${mm(y)}h${ruler.lengthMm}${ticks}" fill="none" stroke="#1F262B" stroke-width="0.15"/>
<text x="${mm(ruler.xMm + ruler.lengthMm + 2)}" y="${mm(y)}" ${words}>100 mm: check against a rule</text>
<text x="${mm(ruler.xMm - 2)}" y="${mm(y)}" text-anchor="end" ${words}>Unto card ${size} · print at 100 %</text>
<text x="${mm(w / 2)}" y="8" text-anchor="middle" ${words}>Lay the coupon inside the dashed line, burnt side up; keep all four marks in view, in even light</text>
</svg>
`;
}

function mm(value: number): string {
  return String(Number(value.toFixed(4)));
}
