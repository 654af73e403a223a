import aruco from 'js-aruco2/src/aruco.js';
import type { Point2 } from '../imaging/homography.js';
import type { Pixels } from '../imaging/picture.js';
import { MARK_DICTIONARY, MARK_IDS, MOST_WRONG_BITS } from './card.js';

/** Bits along a side of a mark, its black rim left out. */
const BITS = 6;

/** A mark found in a picture; corners from the mark's own upper left, clockwise as it lies on the card, px. */
export interface FoundMark {
  readonly id: number;
  readonly corners: readonly Point2[];
}

/** Cells of a mark row by row from the top, its black rim included; true is black. */
export function markCells(id: number): boolean[][] {
  const code = new aruco.AR.Dictionary(MARK_DICTIONARY).codeList[id]!;
  return Array.from({ length: BITS + 2 }, (_, row) =>
    Array.from({ length: BITS + 2 }, (_, column) => {
      const inside = row > 0 && column > 0 && row <= BITS && column <= BITS;
      return !inside || code[(row - 1) * BITS + column - 1] !== '1';
    }),
  );
}

/** The cards' own marks alone, so that a square which is none is held against a few codes, not hundreds. */
const CARD_DICTIONARY = 'UNTO_CARDS';
const { codeList } = new aruco.AR.Dictionary(MARK_DICTIONARY);
aruco.AR.DICTIONARIES[CARD_DICTIONARY] = {
  nBits: BITS ** 2,
  tau: MOST_WRONG_BITS,
  codeList: MARK_IDS.map((id) => Number.parseInt(codeList[id]!, 2).toString(16)),
};

/** Marks in a picture; it should be a few hundred pixels across, at full size the search takes seconds. By the package js-aruco2. */
export function findMarks({ width, height, data }: Pixels): FoundMark[] {
  const detector = new aruco.AR.Detector({ dictionaryName: CARD_DICTIONARY, maxHammingDistance: MOST_WRONG_BITS });
  return detector.detectImage(width, height, data).map(({ id, corners }) => ({ id: MARK_IDS[id]!, corners }));
}
