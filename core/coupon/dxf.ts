import { dxfFile, dxfPolyline } from '../formats/dxf.js';
import { designToken } from './embed.js';
import { cellLines } from './cell-lines.js';
import { labelStrokes } from '../lettering/label-strokes.js';
import type { CouponLayout } from './layout.js';
import { moduleRects } from '../lettering/symbols.js';

/**
 * A coupon as DXF R12 in mm, origin at the blank's lower left corner: the blank on BLANK, marks on LABELS and QR, every cell on a layer
 * of its own (CELL_1 …), a closed outline when filled, its strokes otherwise. The design rides in comments (group 999).
 */
export function couponDxf(layout: CouponLayout): string {
  const { design, qr } = layout;
  const box = (x: number, y: number, w: number, h: number) =>
    [
      [x, y],
      [x + w, y],
      [x + w, y + h],
      [x, y + h],
    ] as const;
  const strokes = [...layout.labels.flatMap((label) => labelStrokes(label)), ...layout.frameStrokes];
  const cells = layout.cells.flatMap((cell) => {
    const layer = `CELL_${cell.index + 1}`;
    if (design.fill === 'filled')
      return dxfPolyline(box(cell.xMm, cell.yMm, design.cell.widthMm, design.cell.heightMm), layer, true);
    return cellLines(design, cell).flatMap(({ x0, y0, x1, y1 }) =>
      dxfPolyline(
        [
          [cell.xMm + x0, cell.yMm + y0],
          [cell.xMm + x1, cell.yMm + y1],
        ],
        layer,
        false,
      ),
    );
  });
  return dxfFile(
    [
      ...dxfPolyline(box(0, 0, design.blank.widthMm, design.blank.heightMm), 'BLANK', true),
      ...strokes.flatMap((stroke) => dxfPolyline(stroke, 'LABELS', false)),
      ...(qr
        ? moduleRects(qr).flatMap(({ xMm, yMm, widthMm, heightMm }) =>
            dxfPolyline(box(xMm, yMm, widthMm, heightMm), 'QR', true),
          )
        : []),
      ...cells,
    ],
    designToken(design),
  );
}
