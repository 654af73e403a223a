import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { coatMap, findPart, judgeCoatMap, patchLuminance, seededRandom, straighten, type Pixels } from '@unto/core';
import { COAT_FAULTS, type CoatFault } from '../ground-truth/coat-film.js';
import { SimulatedCamera } from './camera.js';

const COAT = { widthMm: 44, heightMm: 28 };
const ART = { xMm: 3, yMm: 3, widthMm: 38, heightMm: 22 };

const nothing = (): never => {
  throw new Error('No blank lies there.');
};

async function taken(scene: CoatFault, seed: number, ground: 'light' | 'dark' = 'light', laid = 1): Promise<Pixels> {
  const camera = new SimulatedCamera(seededRandom(seed), { width: 1000, height: 750 });
  camera.scene = scene;
  camera.place({ kind: 'coat', batch: 't', ...COAT, ground });
  const jpeg = await camera.take({
    blankOf: nothing,
    blanksOf: nothing,
    filmOf: () => laid,
  });
  const { data, info } = await sharp(jpeg).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
}

/** Takes a picture of a scene, finds the part and reads it as the page does. */
async function read(scene: CoatFault, seed: number, ground: 'light' | 'dark' = 'light') {
  const pixels = await taken(scene, seed, ground);
  const corners = findPart(pixels)!;
  const [, right] = corners;
  // The bare twin lies to the right of the part.
  const bare = patchLuminance(pixels, { x: right.x + 112, y: right.y - 125, radius: 8 });
  const straight = straighten(pixels, corners, { ...COAT, cellMm: 1 });
  return judgeCoatMap(coatMap(straight, { bare, good: null, ground }), ART);
}

describe('what is read from the simulated camera’s pictures', () => {
  it('is what the hidden hand did, over five seeds', async () => {
    const seen: Record<string, string[]> = {};
    for (const scene of COAT_FAULTS) {
      for (const seed of [1, 2, 3, 4, 5]) {
        const { places, brush, advice } = await read(scene, seed);
        const worst = places.find(({ ofArtwork }) => ofArtwork > 0.004)?.fault;
        (seen[scene] ??= []).push(brush ? 'brush marks' : (worst ?? advice));
      }
    }
    expect(seen).toEqual({
      even: Array(5).fill('accept'),
      'thin corner': Array(5).fill('thin spot'),
      run: Array(5).fill('run'),
      touched: Array(5).fill('touched'),
      'brush marks': Array(5).fill('brush marks'),
    });
  }, 60_000);

  it('holds on a dark ground under a light coat', async () => {
    expect((await read('touched', 7, 'dark')).places[0]!.fault).toBe('touched');
    expect((await read('even', 7, 'dark')).advice).toBe('accept');
  }, 30_000);

  it('shows less of a light ground under a coat that was weighed heavy, and more under a light one', async () => {
    const middle = async (laid: number) => {
      const [ll, , ur] = findPart(await taken('even', 3))!;
      const place = { x: (ll.x + ur.x) / 2, y: (ll.y + ur.y) / 2, radius: 60 };
      return patchLuminance(await taken('even', 3, 'light', laid), place);
    };
    const [thin, meant, heavy] = [await middle(0.6), await middle(1), await middle(1.4)];
    expect(thin / meant).toBeGreaterThan(1.2);
    expect(heavy / meant).toBeLessThan(0.95);
  }, 30_000);
});
