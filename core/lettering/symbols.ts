import qrcode from 'qrcode-generator';
import { CoreError } from '../support/core-error.js';
import { runsOf } from '../support/runs.js';

/** Dark modules of a symbol, row by row from the top. */
export type Modules = readonly (readonly boolean[])[];

/** Where a symbol stands: the lower left corner of its modules, and how large one is, mm. */
export interface PlacedModules {
  readonly dark: Modules;
  readonly xMm: number;
  readonly yMm: number;
  readonly moduleMm: number;
}

/** Kinds of symbol a text can be written as. */
export type SymbolKind = 'QR' | 'data matrix';

/**
 * Modules of the QR symbol of a text, level M, smallest version that holds it. Source: ISO/IEC 18004, by the package qrcode-generator.
 * @throws artwork.text-too-long
 */
export function qrModules(text: string): boolean[][] {
  const symbol = qrcode(0, 'M');
  try {
    symbol.addData(text);
    symbol.make();
  } catch {
    throw tooLong(text, 'QR');
  }
  const size = symbol.getModuleCount();
  return Array.from({ length: size }, (_, row) =>
    Array.from({ length: size }, (_, column) => symbol.isDark(row, column)),
  );
}

/** Runs of dark modules as boxes, mm, y up. */
export function moduleRects({ dark, moduleMm, xMm, yMm }: PlacedModules): {
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

/** A text that a symbol has no room or letters for. */
export function tooLong(text: string, kind: SymbolKind): CoreError {
  return new CoreError(
    'artwork.text-too-long',
    `“${text.length > 24 ? `${text.slice(0, 24)}…` : text}” cannot be written as a ${kind}: it is too long, or has letters the symbol lacks.`,
  );
}
