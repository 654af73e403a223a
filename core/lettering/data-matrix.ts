import bwip from 'bwip-js';
import { qrModules, tooLong, type SymbolKind } from './symbols.js';

/**
 * Modules of the square data matrix (ECC 200) of a text, smallest size that holds it. Source: ISO/IEC 16022, by the package bwip-js.
 * @throws artwork.text-too-long, or for a text of letters it has none for
 */
export function dataMatrixModules(text: string): boolean[][] {
  try {
    const [symbol] = bwip.raw({ bcid: 'datamatrix', text }) as [{ pixs: number[]; pixx: number; pixy: number }];
    return Array.from({ length: symbol.pixy }, (_, row) =>
      symbol.pixs.slice(row * symbol.pixx, (row + 1) * symbol.pixx).map((dark) => dark === 1),
    );
  } catch {
    throw tooLong(text, 'data matrix');
  }
}

/** Modules of a text as either symbol. @throws artwork.text-too-long */
export function symbolModules(kind: SymbolKind, text: string): boolean[][] {
  return kind === 'QR' ? qrModules(text) : dataMatrixModules(text);
}
