import qrcode from 'qrcode-generator';
import { runsOf } from '../support/runs.js';
import type { CouponDesign } from './design.js';

/** A QR symbol of the coupon's code on its blank; x, y is the lower left corner of its modules, mm. */
export interface CouponQr {
  readonly xMm: number;
  readonly yMm: number;
  readonly moduleMm: number;
  /** Dark modules row by row from the top. */
  readonly dark: readonly (readonly boolean[])[];
}

/** A module smaller than this is lost to the spot and the camera; a quiet zone of four modules is asked by ISO/IEC 18004. */
const MODULE_MM = 0.35;
const QUIET = 4;

/** Modules of the QR symbol of a text, level M, smallest version that holds it. Source: ISO/IEC 18004, by the package qrcode-generator. */
export function qrModules(text: string): boolean[][] {
  const symbol = qrcode(0, 'M');
  symbol.addData(text);
  symbol.make();
  const size = symbol.getModuleCount();
  return Array.from({ length: size }, (_, row) =>
    Array.from({ length: size }, (_, column) => symbol.isDark(row, column)),
  );
}

/** Runs of dark modules as boxes, mm, y up. */
export function qrRects({ dark, moduleMm, xMm, yMm }: CouponQr): {
  xMm: number;
  yMm: number;
  widthMm: number;
  heightMm: number;
}[] {
  return dark.flatMap((row, r) =>
    runsOf(row).map(([from, to]) => ({
      xMm: xMm + from * moduleMm,
      yMm: yMm + (dark.length - 1 - r) * moduleMm,
      widthMm: (to - from) * moduleMm,
      heightMm: moduleMm,
    })),
  );
}

/** The coupon's code as QR in what the blank leaves free beside or below the cells; null where it does not fit. */
export function placeQr(
  { code, blank, marginMm }: CouponDesign,
  needed: { readonly widthMm: number; readonly heightMm: number },
): CouponQr | null {
  if (!code) return null;
  const dark = qrModules(code);
  const side = dark.length * MODULE_MM;
  const quiet = QUIET * MODULE_MM;
  const beside = blank.widthMm - needed.widthMm >= side + 2 * quiet;
  const below = blank.heightMm - needed.heightMm >= side + 2 * quiet;
  if (!beside && !below) return null;
  const xMm = beside ? needed.widthMm + quiet : needed.widthMm - marginMm - quiet - side;
  return { xMm, yMm: marginMm + quiet, moduleMm: MODULE_MM, dark };
}
