import { openCardPicture, readTray, seededRandom, type Pixels } from '@unto/core';
import { decoded, photographTray } from '@unto/simulators/camera';
import { paintedPiece, shapesOf } from '@unto/simulators/testing';
import { median, type Line } from './line.js';

const TAG = {
  ...{ widthMm: 44, heightMm: 28, ground: 0.5, mark: 0.06 },
  marks: [
    [5, 4, 39, 6],
    [5, 7, 14, 10],
    [5, 14, 30, 20],
  ] as const,
};
const TWELVE_MEGAPIXELS = { width: 4032, height: 3024 };

/** A photograph of 24 pieces read, against decoding it. */
export async function trayRead(): Promise<Line> {
  const blanks = Array.from({ length: 24 }, (_, seed) => paintedPiece({ ...TAG, seed }));
  const jpeg = await photographTray({ blanks, fault: 'plain', random: seededRandom(3), size: TWELVE_MEGAPIXELS });
  const times: number[] = [];
  let pixels!: Pixels;
  for (let i = 0; i < 5; i += 1) {
    const begun = performance.now();
    pixels = await decoded(jpeg);
    times.push(performance.now() - begun);
  }
  const decoding = times.sort((a, b) => a - b)[2]!;
  const picture = openCardPicture(pixels);
  const marks = blanks.map(() => shapesOf(TAG));
  const card = median(3, () => openCardPicture(pixels));
  const read = median(5, () => readTray(picture, { ...TAG, marks, lineMm: 0.2, tone: 'dark on light' }));
  return {
    what: 'a photograph of 24 pieces read',
    figure: `${read.toFixed(0)} ms; finding the card ${card.toFixed(0)} ms more`,
    against: 'decoding its 12 megapixels',
    ratio: (read / decoding).toFixed(1),
    goal: '≤ 3 ×',
    met: read <= 3 * decoding,
  };
}
