import { qrModules } from '../lettering/symbols.js';
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
