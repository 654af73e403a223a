import { beforeAll, describe, expect, it } from 'vitest';
import {
  lightness,
  openCardPicture,
  readTray,
  seededRandom,
  trayFindings,
  type CoreError,
  type TrayJob,
  type TrayReading,
} from '@unto/core';
import { paintedPiece, shapesOf, type PaintedPiece } from '../testing/painted-piece.js';
import { decoded } from './decoded.js';
import { photographTray, type TrayShot } from './tray-photo.js';

/** A tag with a bar, an L and a thin rule; nothing about it is the same upside down. */
const TAG = {
  ...{ widthMm: 60, heightMm: 24, ground: 0.5, mark: 0.06 },
  marks: [
    [6, 6, 44, 9],
    [6, 12, 9, 19],
    [12, 14, 30, 19],
    [36, 13, 54, 19],
    [48, 5, 54, 9],
    [6, 20.6, 54, 21],
  ] as const,
};
const TRUE_CONTRAST = lightness(TAG.ground) - lightness(TAG.mark);

async function tray(
  pieces: readonly Partial<PaintedPiece>[],
  seed: number,
  { shot = {}, job = {} }: { shot?: Partial<TrayShot>; job?: Partial<TrayJob> } = {},
): Promise<TrayReading> {
  const painted = pieces.map((change, i) => ({ ...TAG, seed: 10 * seed + i, ...change }));
  const photo = await photographTray({
    ...{
      blanks: painted.map(paintedPiece),
      fault: 'plain',
      random: seededRandom(seed),
      size: { width: 2000, height: 1500 },
    },
    ...shot,
  });
  const marks = pieces.map(() => shapesOf(TAG));
  return readTray(openCardPicture(await decoded(photo)), {
    ...{ widthMm: 60, heightMm: 24, marks, lineMm: 0.2, tone: 'dark on light' },
    ...job,
  });
}
const kinds = (
  reading: TrayReading,
  expected = { mean: TRUE_CONTRAST, low: TRUE_CONTRAST - 5, high: TRUE_CONTRAST + 5 },
) => trayFindings(reading.pieces, expected, 1).map((found) => found.map(({ kind, spot }) => [kind, spot?.x, spot?.y]));
const SIX = Array.from({ length: 6 }, () => ({}));

/** A photograph of several millions of dots is drawn and read each time. */
const LONG = { timeout: 60_000 };

describe('a tray of washed pieces, read from one photograph with the card', LONG, () => {
  let plain: TrayReading;
  beforeAll(async () => {
    plain = await tray(SIX, 1, { shot: { turned: [2, 4] } });
  }, LONG.timeout);

  it('finds every piece, whichever way up it lies, and reads its contrast near the truth', () => {
    expect(plain.pieces).toHaveLength(6);
    for (const { reading, unreadable, offset } of plain.pieces) {
      expect(unreadable).toBeNull();
      expect(reading!.contrast).toBeCloseTo(TRUE_CONTRAST, -0.7);
      expect(Math.abs(reading!.contrast - TRUE_CONTRAST)).toBeLessThan(3);
      expect(offset!.fit).toBeGreaterThan(0.8);
      expect(Math.hypot(offset!.dxMm, offset!.dyMm)).toBeLessThan(0.7);
      expect(reading!.evenness).toBeGreaterThan(0.93);
      expect(reading!.coverage).toBeGreaterThan(0.94);
      expect(reading!.residue).toBeLessThan(0.02);
    }
    expect(kinds(plain)).toEqual(SIX.map(() => []));
  });

  it('tells a washed-off piece, a faint corner, a pale edge, patches, stains and a mark beside its place', async () => {
    const reading = await tray(
      [
        { mark: 0.45 },
        { strength: (u, v) => 1 - 0.75 * Math.max(0, (u - 0.55) / 0.45) * Math.max(0, (v - 0.4) / 0.6) },
        { strength: (u) => (u < 0.3 ? 0.55 : 1) },
        { strength: (u, v) => (Math.sin(40 * u) * Math.sin(17 * v + 1) > 0.2 ? 0.35 : 1) },
        { stain: (x, y) => (x > 30 && x < 48 && y > 9.5 && y < 12.5 ? 0.55 : 1) },
        { off: [1.7, -0.6] },
      ],
      2,
    );
    const found = kinds(reading);
    expect(found[0]![0]![0]).toBe('washed off whole');
    expect(found[1]![0]).toEqual(['faint in one corner', 5 / 6, 1 / 6]);
    expect(found[2]![0]).toEqual(['pale along one edge', 1 / 6, expect.anything()]);
    expect(found[3]!.map(([kind]) => kind)).toContain('patchy');
    expect(found[4]!.map(([kind]) => kind)).toEqual(['residue left']);
    expect(found[5]!.map(([kind]) => kind)).toEqual(['out of place']);
    expect(reading.pieces[5]!.offset!.dxMm).toBeCloseTo(1.7, 0);
  });

  it('reads pale marks on a dark ground by their own sign', async () => {
    const reading = await tray(
      SIX.map(() => ({ ground: 0.05, mark: 0.35 })),
      3,
      { shot: { tray: [0.55, 0.56, 0.5] }, job: { tone: 'light on dark' } },
    );
    const truth = lightness(0.05) - lightness(0.35);
    for (const { reading: one } of reading.pieces) expect(Math.abs(one!.contrast - truth)).toBeLessThan(4);
  });

  it('says how many lie there where one is missing or two touch, and reads nothing under glare', async () => {
    const refused = async (fault: TrayShot['fault']) =>
      tray(SIX, 4, { shot: { fault } }).then(
        () => 'read',
        (error: CoreError) => `${error.code}: ${error.message}`,
      );
    expect(await refused('one is missing')).toMatch(/^reading.piece-count: 5 pieces lie there, 6 were looked for/);
    expect(await refused('two touch')).toMatch(/^reading.piece-count: 4 pieces lie there.*perhaps pieces that touch/);
    expect(await refused('no card')).toMatch(/^reading.no-card/);
    const glared = await tray(SIX, 5, { shot: { fault: 'glare on one' as const } });
    expect(glared.pieces.map(({ unreadable }) => unreadable)).toEqual([null, 'glare', null, null, null, null]);
    expect(glared.pieces[1]!.reading).toBeNull();
  });

  it('is near the truth over trays it never saw: light, lean, ground and strength drawn at random', async () => {
    const random = seededRandom(77);
    const off: number[] = [];
    for (let seed = 20; seed < 23; seed += 1) {
      const ground = 0.3 + 0.4 * random();
      const marks = SIX.map(() => 0.04 + 0.12 * random());
      const reading = await tray(
        marks.map((mark) => ({ ground, mark })),
        seed,
        { shot: { turned: [Math.floor(6 * random())] } },
      );
      reading.pieces.forEach(({ reading: one }, i) =>
        off.push(one!.contrast - (lightness(ground) - lightness(marks[i]!))),
      );
    }
    const rms = Math.sqrt(off.reduce((sum, one) => sum + one * one, 0) / off.length);
    expect(rms).toBeLessThan(3);
  });
});
