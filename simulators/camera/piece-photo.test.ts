import { beforeAll, describe, expect, it } from 'vitest';
import {
  CoreError,
  fitHomography,
  openCardPicture,
  project,
  readPiece,
  type CouponLayout,
  type Point2,
  type ReadablePicture,
} from '@unto/core';
import type { TimedMove } from '../burn/index.js';
import { decoded } from './decoded.js';
import {
  STUDY_DESIGN,
  studyBlank,
  studyMoves,
  studyPhoto,
  studyReading,
  trueLightness,
} from '../testing/coupon-study.js';

let layout: CouponLayout;
let moves: TimedMove[];
let first: Awaited<ReturnType<typeof pictured>>;
beforeAll(async () => {
  ({ layout, moves } = studyMoves(STUDY_DESIGN));
  first = await pictured(1);
});

/** A picture of a blank with where a place of it (mm) lies in it. */
async function pictured(seed: number, change: Partial<Parameters<typeof studyPhoto>[0]> = {}) {
  const blank = studyBlank(seed, 'scrubbed', moves);
  let corners: readonly Point2[] = [];
  const photo = await studyPhoto({ seed, blank, quarters: 0, tell: (seen) => (corners = seen), ...change });
  const { widthMm: w, heightMm: h } = STUDY_DESIGN.blank;
  const onBlank = [
    { x: 0, y: 0 },
    { x: w, y: 0 },
    { x: w, y: h },
    { x: 0, y: h },
  ];
  const toPicture = fitHomography(onBlank, [...corners]);
  const at = (x: number, y: number) => project(toPicture, { x, y });
  return { blank, photo, at, picture: openCardPicture(await decoded(photo)) };
}

/** Reads a cell of the coupon as if it were a piece, bare ground in the gap to its right. */
function readCell({ picture, at }: { picture: ReadablePicture; at: (x: number, y: number) => Point2 }, index: number) {
  const cell = layout.cells[index]!;
  const { widthMm: w, heightMm: h } = STUDY_DESIGN.cell;
  return readPiece(picture, {
    mark: at(cell.xMm + w / 2, cell.yMm + h / 2),
    bare: at(cell.xMm + w + 0.5, cell.yMm + h / 2),
    sizeMm: 0.6,
  });
}

describe('a mark on any piece, read from a photograph with the card', () => {
  it('reads as the coupon’s own reading has it, and near the truth', async () => {
    const off: number[] = [];
    for (const seed of [1, 3]) {
      const shot = seed === 1 ? first : await pictured(seed);
      const truth = trueLightness(shot.blank, layout);
      const { cells } = await studyReading(shot.photo, layout);
      for (const { cell, contrast, chroma, unreadable } of cells) {
        if (unreadable || contrast === null || contrast < 25) continue;
        const piece = readCell(shot, cell);
        off.push(Math.abs(piece.mark.l - truth[cell]!));
        expect(Math.abs(piece.contrast - contrast), `seed ${seed}, cell ${cell + 1}`).toBeLessThan(6);
        if (chroma !== null && piece.chroma !== null) expect(Math.abs(piece.chroma - chroma)).toBeLessThan(4);
      }
    }
    off.sort((a, b) => a - b);
    expect(off.length).toBeGreaterThan(12);
    expect(off[Math.floor(off.length / 2)]!).toBeLessThan(2);
  }, 60_000);

  it('tells the edge between the spots about as the coupon’s reading does', async () => {
    const { cells } = await studyReading(first.photo, layout);
    const both = cells
      .filter(({ contrast, edgeUm }) => edgeUm !== null && contrast! > 30)
      .flatMap(({ cell, edgeUm }) => {
        const own = readCell(first, cell).edgeUm;
        return own === null ? [] : [own - edgeUm!];
      })
      .sort((a, b) => a - b);
    expect(both.length).toBeGreaterThan(5);
    expect(Math.abs(both[Math.floor(both.length / 2)]!)).toBeLessThan(120);
  }, 60_000);

  it('says what is wrong with where the spots lie', () => {
    const { picture, at } = first;
    const code = (mark: Point2, bare: Point2, sizeMm: number) => {
      try {
        readPiece(picture, { mark, bare, sizeMm });
        return null;
      } catch (error) {
        return (error as CoreError).code;
      }
    };
    expect(code(at(20, 20), at(20.2, 20), 1)).toBe('reading.points');
    expect(code(at(0, 0), at(70, 60), 1)).toBe('reading.points');
    expect(code(at(1, 30), at(1, 33), 1)).toBe('reading.no-contrast');
    expect(code(at(20, 20), at(25, 20), 0.1)).toBe('reading.outside');
  });

  it('reads nothing from a spot in glare', async () => {
    const cell = layout.cells[20]!;
    const shot = await pictured(3, {
      fault: 'glare on some cells',
      spoilt: [{ x: cell.xMm + 2.5, y: cell.yMm + 2, radiusMm: 6 }],
    });
    expect(() => readCell(shot, 20)).toThrow(/glare|alike/);
  }, 60_000);
});
