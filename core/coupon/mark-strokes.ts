import { labelStrokes, type Point } from '../lettering/label-strokes.js';
import type { CouponLayout } from './layout.js';
import { moduleRects } from '../lettering/symbols.js';
import type { CouponQr } from './qr.js';

/** Spot that the rows of a QR symbol are planned for where nobody says one, mm. */
const USUAL_SPOT_MM = 0.15;

/** Every stroke that is burnt beside the cells, in the order of the program: labels, corner marks, QR. */
export function markStrokes(layout: CouponLayout, spotMm?: number): (readonly Point[])[] {
  return [
    ...layout.labels.flatMap(labelStrokes),
    ...layout.frameStrokes,
    ...(layout.qr ? qrStrokes(layout.qr, spotMm) : []),
  ];
}

/** Every run of dark modules as lines of a fine hatch. @param spotMm width of the spot, mm */
export function qrStrokes(qr: CouponQr, spotMm = USUAL_SPOT_MM): Point[][] {
  const lines = Math.max(2, Math.round(qr.moduleMm / spotMm));
  const inset = Math.min(spotMm / 2, qr.moduleMm / 3);
  return moduleRects(qr).flatMap(({ xMm, yMm, widthMm, heightMm }) =>
    Array.from({ length: lines }, (_, k): Point[] => {
      const y = yMm + ((k + 0.5) * heightMm) / lines;
      return [
        [xMm + inset, y],
        [xMm + widthMm - inset, y],
      ];
    }),
  );
}
