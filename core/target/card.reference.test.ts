import aruco from 'js-aruco2/src/aruco.js';
import { converter } from 'culori';
import fc from 'fast-check';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { lightness, linearToSrgb, luminance, SRGB_TO_LINEAR } from '../imaging/colour.js';
import { fitHomography, project, type Homography, type Point2 } from '../imaging/homography.js';
import type { Pixels } from '../imaging/picture.js';
import {
  CARD_SIZES,
  cardSvg,
  cardToPicture,
  findCard,
  findMarks,
  levelPicture,
  lightAt,
  MARK_DICTIONARY,
  markCells,
  ON_CARD,
  pictureToCard,
  readCardLight,
  reflectanceOf,
  TYPICAL_PRINT,
  referenceCard,
  SCALE_STEP_L,
  SCALE_STEPS,
  shrunk,
  stepScaleSvg,
  TONE_STEPS,
  TONE_TOP,
  type CardPose,
  type CardSize,
} from './index.js';

/** The card drawn by librsvg, so many pixels a millimetre. */
const PX = 8;
async function drawn(size: CardSize): Promise<Pixels> {
  const { widthMm, heightMm } = referenceCard(size);
  const { data, info } = await sharp(Buffer.from(cardSvg(size)), { density: PX * 25.4 })
    .resize(widthMm * PX, heightMm * PX, { fit: 'fill' })
    .flatten({ background: '#fff' })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
}
const greyAt = ({ width, data }: Pixels, x: number, y: number) => data[4 * (Math.round(y) * width + Math.round(x))]!;

describe('the printed card', () => {
  // Sizes: ISO 216. The dictionary and its reading: js-aruco2's own, whole.
  it.each(CARD_SIZES)(
    '%s shows its marks to a reader of the whole dictionary, where the geometry says',
    async (size) => {
      const card = referenceCard(size);
      expect([card.widthMm, card.heightMm]).toEqual(size === 'A5' ? [210, 148] : [297, 210]);
      const picture = await drawn(size);
      const detector = new aruco.AR.Detector({ dictionaryName: MARK_DICTIONARY, maxHammingDistance: 1 });
      const { small, scale } = shrunk(picture, 640);
      const found = detector.detectImage(small.width, small.height, small.data);
      expect(found.map(({ id }) => id).sort()).toEqual(card.marks.map(({ id }) => id).sort());
      for (const { id, corners } of found) {
        const mark = card.marks.find((one) => one.id === id)!;
        const upperLeft = { x: mark.xMm * PX, y: (card.heightMm - mark.yMm - mark.heightMm) * PX };
        expect(Math.hypot(corners[0]!.x * scale - upperLeft.x, corners[0]!.y * scale - upperLeft.y)).toBeLessThan(
          1.5 * PX,
        );
      }
      // The product's own search knows the same marks by the same numbers.
      expect(
        findMarks(small)
          .map(({ id }) => id)
          .sort(),
      ).toEqual(found.map(({ id }) => id).sort());
    },
  );

  it.each(CARD_SIZES)('%s has its grey steps in print as they are counted on, nothing over another', async (size) => {
    const card = referenceCard(size);
    const picture = await drawn(size);
    const centre = ({ xMm, yMm, widthMm, heightMm }: (typeof card.whites)[number]) =>
      [(xMm + widthMm / 2) * PX, (card.heightMm - yMm - heightMm / 2) * PX] as const;
    for (const grey of card.greys) expect(greyAt(picture, ...centre(grey))).toBe(grey.srgb);
    for (const white of card.whites) expect(greyAt(picture, ...centre(white))).toBe(255);
    const boxes = [...card.greys, ...card.marks, card.window];
    for (const [i, a] of boxes.entries())
      for (const b of boxes.slice(i + 1))
        expect(
          a.xMm + a.widthMm <= b.xMm ||
            b.xMm + b.widthMm <= a.xMm ||
            a.yMm + a.heightMm <= b.yMm ||
            b.yMm + b.heightMm <= a.yMm,
        ).toBe(true);
  });

  it('has a ruler of a hundred whole millimetres', () => {
    const ticks = /<path d="M[\d.]+ [\d.]+h100((?:M[\d.]+ [\d.]+v-[\d.]+)+)"/.exec(cardSvg('A5'))![1]!;
    const at = [...ticks.matchAll(/M([\d.]+)/g)].map(([, x]) => Number(x));
    expect(at).toHaveLength(101);
    expect(at.slice(1).every((x, i) => Math.abs(x - at[i]! - 1) < 1e-9)).toBe(true);
  });
});

describe('marks', () => {
  const SIDE = 12;
  function drawnMark(cells: boolean[][]): Pixels {
    const width = (cells.length + 6) * SIDE;
    const data = new Uint8ClampedArray(4 * width * width).fill(255);
    cells.forEach((row, r) =>
      row.forEach((black, c) => {
        if (!black) return;
        for (let y = 0; y < SIDE; y += 1)
          for (let x = 0; x < SIDE; x += 1)
            data.fill(
              0,
              4 * (((r + 3) * SIDE + y) * width + (c + 3) * SIDE + x),
              4 * (((r + 3) * SIDE + y) * width + (c + 3) * SIDE + x) + 3,
            );
      }),
    );
    return { width, height: width, data };
  }

  it('are read through one or two damaged cells, and not through six', () => {
    const spoilt = (ids: readonly [number, number][]) => {
      const cells = markCells(11);
      for (const [r, c] of ids) cells[r]![c] = !cells[r]![c];
      return findMarks(drawnMark(cells)).map(({ id }) => id);
    };
    expect(spoilt([])).toEqual([11]);
    expect(spoilt([[2, 3]])).toEqual([11]);
    expect(
      spoilt([
        [2, 3],
        [5, 4],
      ]),
    ).toEqual([11]);
    expect(
      spoilt([
        [1, 1],
        [1, 4],
        [2, 3],
        [5, 4],
        [6, 2],
        [4, 6],
      ]),
    ).toEqual([]);
  });

  it('of the dictionary that no card has are none of ours', () => {
    for (const id of [0, 9, 14, 30, 200]) expect(findMarks(drawnMark(markCells(id)))).toEqual([]);
  });
});

describe('a shrunk picture', () => {
  it('keeps a flat grey and the mean of a ramp', () => {
    const [width, height] = [1280, 60];
    const data = new Uint8ClampedArray(4 * width * height);
    for (let i = 0; i < width * height; i += 1) data.set([(i % width) / 8, 90, 200, 255], 4 * i);
    const { small, scale } = shrunk({ width, height, data }, 320);
    expect([scale, small.width, small.height]).toEqual([4, 320, 15]);
    for (const x of [0, 100, 319]) {
      expect(Math.abs(small.data[4 * x]! - (x + 0.5) / 2)).toBeLessThan(1);
      expect([...small.data.slice(4 * x + 1, 4 * x + 4)]).toEqual([90, 200, 255]);
    }
  });
});

describe('the step scale', () => {
  it('steps by equal lightness, as culori makes Lab of its greys', () => {
    const toLab = converter('lab65');
    const greys = [...stepScaleSvg().matchAll(/fill="rgb\((\d+),/g)].map(([, grey]) => Number(grey) / 255);
    expect(greys).toHaveLength(SCALE_STEPS);
    const l = greys.map((grey) => toLab({ mode: 'rgb', r: grey, g: grey, b: grey }).l);
    for (let i = 1; i < l.length; i += 1) expect(Math.abs(l[i - 1]! - l[i]! - SCALE_STEP_L)).toBeLessThan(0.4);
  });
});

/** A camera of known tilt and lens; light falls off by a known quadratic. Written out plainly, pixel by pixel. */
const CARD = referenceCard('A5');
const SIZE = { width: 1500, height: 1100 };
const MIDDLE = { x: (SIZE.width - 1) / 2, y: (SIZE.height - 1) / 2 };
const HALF = Math.hypot(SIZE.width, SIZE.height) / 2;
const corner = (x: number, y: number) => ({ x, y });
const TILT: Homography = fitHomography(
  [corner(0, 0), corner(210, 0), corner(210, 148), corner(0, 148)],
  [corner(120, 1000), corner(1370, 1030), corner(1330, 110), corner(160, 60)],
);
const K1 = 0.06;
const light = (x: number, y: number) => {
  const [u, v] = [(2 * x) / CARD.widthMm - 1, (2 * y) / CARD.heightMm - 1];
  return Math.exp(0.12 * u - 0.2 * v - 0.1 * u * u + 0.05 * u * v - 0.08 * v * v);
};
function undistorted({ x, y }: Point2): Point2 {
  let [ux, uy] = [x - MIDDLE.x, y - MIDDLE.y];
  const [dx, dy] = [ux, uy];
  for (let i = 0; i < 30; i += 1) {
    const stretch = 1 + (K1 * (ux * ux + uy * uy)) / HALF ** 2;
    [ux, uy] = [dx / stretch, dy / stretch];
  }
  return { x: MIDDLE.x + ux, y: MIDDLE.y + uy };
}

async function photographed(): Promise<Pixels> {
  const card = await drawn('A5');
  const { width, height } = SIZE;
  const back = fitHomography(
    [corner(120, 1000), corner(1370, 1030), corner(1330, 110), corner(160, 60)],
    [corner(0, 0), corner(210, 0), corner(210, 148), corner(0, 148)],
  );
  const data = new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      let sum = 0;
      for (const [ox, oy] of [
        [-0.25, -0.25],
        [0.25, -0.25],
        [-0.25, 0.25],
        [0.25, 0.25],
      ] as const) {
        const mm = project(back, undistorted({ x: x + ox, y: y + oy }));
        const inside = mm.x > 0 && mm.y > 0 && mm.x < 210 && mm.y < 148;
        const srgb = inside
          ? greyAt(card, Math.min(card.width - 1, mm.x * PX - 0.5), Math.min(card.height - 1, (148 - mm.y) * PX - 0.5))
          : 60;
        sum += (inside ? reflectanceOf(srgb) : 0.05) * light(mm.x, mm.y) * 0.7;
      }
      data.fill(Math.round(255 * linearToSrgb(Math.min(1, sum / 4))), 4 * (y * width + x), 4 * (y * width + x) + 3);
      data[4 * (y * width + x) + 3] = 255;
    }
  }
  return { width, height, data };
}

describe('a card photographed by a camera of known tilt, lens and light', () => {
  let pixels: Pixels;
  let pose: CardPose;
  beforeAll(async () => {
    pixels = await photographed();
    pose = findCard(pixels);
  }, 60_000);

  it('is found where it lies, to a few hundredths of a millimetre, lens included', () => {
    expect([pose.card.size, pose.missing]).toEqual(['A5', []]);
    expect(pose.k1).toBeCloseTo(K1, 1);
    expect(pose.reprojectionErrorMm).toBeLessThan(0.05);
    for (const [x, y] of [
      [20, 20],
      [105, 74],
      [190, 130],
      [60, 110],
    ] as const) {
      const flat = project(TILT, { x, y });
      const [dx, dy] = [flat.x - MIDDLE.x, flat.y - MIDDLE.y];
      const stretch = 1 + (K1 * (dx * dx + dy * dy)) / HALF ** 2;
      const seen = pictureToCard(pose, { x: MIDDLE.x + dx * stretch, y: MIDDLE.y + dy * stretch });
      expect(Math.hypot(seen.x - x, seen.y - y), `${x}, ${y}`).toBeLessThan(0.06);
    }
  });

  it('goes from card to picture and back without loss', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 210, noNaN: true }),
        fc.double({ min: 0, max: 148, noNaN: true }),
        (x, y) => {
          const back = pictureToCard(pose, cardToPicture(pose, { x, y }));
          return Math.hypot(back.x - x, back.y - y) < 1e-3;
        },
      ),
    );
  });

  it('tells how the light falls off', () => {
    const { fall, unevenness } = readCardLight(pixels, pose, TYPICAL_PRINT);
    const places = [
      [45, 35],
      [165, 35],
      [105, 74],
      [45, 112],
      [165, 112],
    ] as const;
    const known = places.map(([x, y]) => light(x, y) / light(105, 74));
    const found = places.map(([x, y]) => lightAt(fall, pose, { x, y }) / lightAt(fall, pose, { x: 105, y: 74 }));
    for (const [i, value] of found.entries()) expect(value / known[i]!).toBeCloseTo(1, 1.7);
    const { window } = CARD;
    const all = Array.from({ length: 25 }, (_, i) =>
      light(window.xMm + (window.widthMm * (i % 5)) / 4, window.yMm + (window.heightMm * Math.floor(i / 5)) / 4),
    );
    expect(unevenness).toBeCloseTo(Math.max(...all) / Math.min(...all), 1);
  });

  it('gives every grey step its own lightness wherever it lies, the light taken off', () => {
    const readable = { pixels, pose, print: TYPICAL_PRINT, light: readCardLight(pixels, pose, TYPICAL_PRINT) };
    for (const grey of CARD.greys) {
      const level = levelPicture(readable, ON_CARD, { ...grey, pxMm: 0.5 });
      const middle = level.l[Math.floor(level.rows / 2) * level.columns + Math.floor(level.columns / 2)]!;
      expect(Math.abs(middle - lightness(reflectanceOf(grey.srgb))), `grey ${grey.srgb}`).toBeLessThan(1.5);
    }
  });

  it('is levelled by the quick path as by the plain formula, place by place', () => {
    const cardLight = readCardLight(pixels, pose, TYPICAL_PRINT);
    const box = { xMm: 20, yMm: 12, widthMm: 60, heightMm: 40, pxMm: 0.25 };
    const turned: Homography = [0.98, -0.17, 30, 0.17, 0.98, 15, 0.0002, -0.0001, 1];
    const quick = levelPicture({ pixels, pose, print: TYPICAL_PRINT, light: cardLight }, turned, box);
    const toned = (k: number, x: number) =>
      cardLight.tone[k]![Math.min(TONE_STEPS - 1, Math.floor((x * (TONE_STEPS - 1)) / TONE_TOP))]!;
    let worst = 0;
    for (let i = 0; i < quick.l.length; i += 37) {
      const own = {
        x: box.xMm + ((i % quick.columns) + 0.5) * 0.25,
        y: box.yMm + (Math.floor(i / quick.columns) + 0.5) * 0.25,
      };
      const onCard = project(turned, own);
      const at = cardToPicture(pose, onCard);
      const [x0, y0] = [Math.floor(at.x), Math.floor(at.y)];
      const [fx, fy] = [at.x - x0, at.y - y0];
      const byte = (x: number, y: number, k: number) => pixels.data[4 * (y * SIZE.width + x) + k]!;
      const rgb = [0, 1, 2].map((k) => {
        const value =
          (byte(x0, y0, k) * (1 - fx) + byte(x0 + 1, y0, k) * fx) * (1 - fy) +
          (byte(x0, y0 + 1, k) * (1 - fx) + byte(x0 + 1, y0 + 1, k) * fx) * fy;
        const [low, high] = [SRGB_TO_LINEAR[Math.floor(value)]!, SRGB_TO_LINEAR[Math.min(255, Math.floor(value) + 1)]!];
        const linear = low + (high - low) * (value - Math.floor(value));
        return toned(k, linear / lightAt(cardLight.fall, pose, onCard) / cardLight.paper[k]!);
      });
      worst = Math.max(worst, Math.abs(quick.l[i]! - lightness(luminance(rgb[0]!, rgb[1]!, rgb[2]!))));
    }
    // Edges of marks are steep: a hundredth of a pixel is some tenths of L* there.
    expect(worst).toBeLessThan(1);
  });
});
