import { beforeAll, describe, expect, it } from 'vitest';
import {
  alignTwoPoints,
  bedCorners,
  bedPicture,
  cardToPicture,
  crossNear,
  openCardPicture,
  pictureToCard,
  seededRandom,
  type PlanePoint,
  type ReadablePicture,
} from '@unto/core';
import { paintedPiece } from '../testing/painted-piece.js';
import { decoded } from './decoded.js';
import { photographTray, type TrayShot } from './tray-photo.js';

const PIECE = { widthMm: 50, heightMm: 30 };
const LONG = { timeout: 60_000 };
type Told = Parameters<NonNullable<TrayShot['tell']>>[0];
/** How the tray of the picture lies in a machine nobody knows: turned, and moved. */
const TURN = (7 * Math.PI) / 180;
const onMachine = ({ x, y }: { x: number; y: number }): PlanePoint => ({
  xMm: 31 + Math.cos(TURN) * x - Math.sin(TURN) * y,
  yMm: -12 + Math.sin(TURN) * x + Math.cos(TURN) * y,
});

describe('pieces placed by a photograph of the bed', LONG, () => {
  let told: Told;
  let picture: ReadablePicture;
  beforeAll(async () => {
    const blanks = [1, 2, 3, 4].map((seed) => paintedPiece({ ...PIECE, ground: 0.45, mark: 0.1, marks: [], seed }));
    const photo = await photographTray({
      ...{ blanks, fault: 'plain', random: seededRandom(9), size: { width: 2000, height: 1500 } },
      tell: (seen) => (told = seen),
    });
    picture = openCardPicture(await decoded(photo));
  }, LONG.timeout);

  /** Two crosses of which the machine knows where it burnt them, and somebody where the picture shows them. */
  function learnt(offPx = 0) {
    const at = [told.middles[0]!, told.middles[3]!];
    const seen = at.map((place, i) => {
      const { x, y } = told.toPicture(place);
      const card = pictureToCard(picture.pose, { x: x + (i ? offPx : 0), y: y + (i ? offPx : 0) });
      return { xMm: card.x, yMm: card.y };
    });
    return alignTwoPoints(
      seen as unknown as [PlanePoint, PlanePoint],
      at.map(onMachine) as unknown as [PlanePoint, PlanePoint],
    );
  }

  it('lie on the machine where they are: within half a millimetre and half a degree', () => {
    const card = learnt();
    expect(Math.abs(card.longerMm)).toBeLessThan(0.4);
    const bed = bedPicture(picture.pixels, picture.pose, card, PIECE);
    expect(bed.pieces).toHaveLength(4);
    bed.pieces.forEach((piece) => {
      const [a, , c] = bedCorners(piece, PIECE);
      const middle = { xMm: (a!.xMm + c!.xMm) / 2, yMm: (a!.yMm + c!.yMm) / 2 };
      const off = told.middles.map((one) => {
        const at = onMachine(one);
        return { mm: Math.hypot(at.xMm - middle.xMm, at.yMm - middle.yMm), turnDeg: one.turnDeg + 7 - piece.turnDeg };
      });
      const nearest = off.reduce((best, one) => (one.mm < best.mm ? one : best));
      expect(nearest.mm).toBeLessThan(0.6);
      expect(Math.abs(nearest.turnDeg)).toBeLessThan(0.8);
    });
  });

  it('says how far off they may be told, and is not further off than it says', async () => {
    const shares: number[] = [];
    for (const seed of [31, 32, 33]) {
      let tray!: Told;
      const photo = await photographTray({
        blanks: [1, 2, 3, 4, 5, 6].map((one) =>
          paintedPiece({ ...PIECE, ground: 0.45, mark: 0.1, marks: [], seed: one }),
        ),
        ...{ fault: 'plain', random: seededRandom(seed), size: { width: 2000, height: 1500 } },
        tell: (seen) => (tray = seen),
      });
      const opened = openCardPicture(await decoded(photo));
      // The card lies where it was learnt to: nothing is off but what the picture tells.
      const card = { turnDegrees: 0, zero: { xMm: tray.card.x, yMm: tray.card.y } };
      const bed = bedPicture(opened.pixels, opened.pose, card, PIECE);
      for (const piece of bed.pieces) {
        const [a, , c] = bedCorners(piece, PIECE);
        const off = tray.middles.map(({ x, y }) => Math.hypot(x - (a!.xMm + c!.xMm) / 2, y - (a!.yMm + c!.yMm) / 2));
        shares.push(Math.min(...off) / Math.hypot(bed.spreadMm, 0.6));
      }
    }
    expect(shares).toHaveLength(18);
    // Six pieces of a picture are off together: two pictures of three are asked for.
    expect(shares.filter((share) => share < 1).length).toBeGreaterThanOrEqual(12);
  });

  it('finds the middle of a burnt cross near where somebody points, and none on bare ground', async () => {
    let tray!: Told;
    const cross = (x: number, y: number) =>
      [
        [x - 4, y - 0.25, x + 4, y + 0.25],
        [x - 0.25, y - 4, x + 0.25, y + 4],
      ] as const;
    const scrap = {
      widthMm: 160,
      heightMm: 110,
      ground: 0.55,
      mark: 0.08,
      seed: 3,
      marks: [...cross(15, 15), ...cross(145, 95)],
    };
    const photo = await photographTray({
      ...{
        blanks: [paintedPiece(scrap)],
        fault: 'plain',
        random: seededRandom(4),
        size: { width: 2000, height: 1500 },
      },
      tell: (seen) => (tray = seen),
    });
    const opened = openCardPicture(await decoded(photo));
    const [middle] = tray.middles;
    const turn = (middle!.turnDeg * Math.PI) / 180;
    for (const [x, y] of [
      [15, 15],
      [145, 95],
    ] as const) {
      const [dx, dy] = [x - 80, y - 55];
      const place = {
        x: middle!.x + Math.cos(turn) * dx - Math.sin(turn) * dy,
        y: middle!.y + Math.sin(turn) * dx + Math.cos(turn) * dy,
      };
      const px = tray.toPicture({ x: place.x + 2.1, y: place.y - 1.6 });
      const found = crossNear(opened, px)!;
      const [shown, truth] = [cardToPicture(opened.pose, { x: found.xMm, y: found.yMm }), tray.toPicture(place)];
      expect(opened.pose.mmPerPx * Math.hypot(shown.x - truth.x, shown.y - truth.y)).toBeLessThan(0.3);
    }
    expect(crossNear(opened, tray.toPicture({ x: middle!.x, y: middle!.y }))).toBeNull();
  });

  it('shows the bed straight, in the machine’s own millimetres', () => {
    const bed = bedPicture(picture.pixels, picture.pose, learnt(), PIECE);
    const pxMm = bed.widthMm / bed.pixels.width;
    const lightAt = ({ xMm, yMm }: PlanePoint) => {
      const column = Math.round((xMm - bed.xMm) / pxMm);
      const row = Math.round((bed.yMm + bed.heightMm - yMm) / pxMm);
      return bed.pixels.data[4 * (row * bed.pixels.width + column) + 1]!;
    };
    // Metal in the middle of every piece, tray in the corner of the picture.
    for (const one of told.middles) expect(lightAt(onMachine(one))).toBeGreaterThan(140);
    expect(lightAt({ xMm: bed.xMm + bed.widthMm - 3, yMm: bed.yMm + 3 })).toBeLessThan(130);
  });

  it('tells by how much two crosses disagree with where they were burnt', () => {
    expect(Math.abs(learnt(30).longerMm)).toBeGreaterThan(1);
  });

  it('finds none where nothing of the size lies there', () => {
    const bed = bedPicture(picture.pixels, picture.pose, learnt(), { widthMm: 90, heightMm: 70 });
    expect(bed.pieces).toEqual([]);
  });
});
