import { expose } from 'comlink';
import {
  aimedContrast,
  bedPicture,
  crossNear,
  pictureToCard,
  CHOICES,
  expectedGain,
  measureField,
  seenEffects,
  type WindowPoint,
  cellsCsv,
  coatMap,
  CoreError,
  couponDxf,
  couponGcode,
  couponRunTime,
  spotWidth,
  couponSvg,
  findPart,
  fitNotes,
  fitNoteWords,
  labelDose,
  layoutCoupon,
  leftOut,
  levelBytes,
  nextBlock,
  oddCells,
  characteriseCard,
  openCardPicture,
  patchLuminance,
  predictCells,
  readCellsCsv,
  readCoupon,
  readPiece,
  settingFromWindow,
  straighten,
  widestRunUp,
  windowMap,
  type Pixels,
  type Point2,
  type ReadablePicture,
} from '@unto/core';
import { piecePreview, workOutSheet } from '@unto/domain';
import { CUT_SHORT } from '../pictures/picture-file';
import { measureMap } from './measure-maps';
import { compareWindows } from './compare-windows';
import { earlierOf } from './earlier';
import { judgedWindow } from './judged-window';
import { matchWindow } from './match-window';
import { answered, answeredLater, type Computations, type DrawnWindow } from './computations';

/** Pixels across that a reading needs; larger pictures are scaled down. */
const MOST_PX = 1600;
/** Radius of a reference mark, as a share of the picture’s width. */
const MARK = 0.008;
/** The picture that is open. */
let open: Pixels | null = null;

/** Pixels across that a coupon's picture is read at: a tenth of a millimetre of the larger card, as fine as a coupon is straightened. */
const MOST_COUPON_PX = 3200;
/** Pictures of coupons that are open, the newest last. */
const coupons = new Map<string, ReadablePicture>();

/** Decodes a picture, turned as its camera says, and scaled down to `mostPx` across where it is larger. */
async function pixelsOf(picture: Blob, mostPx: number): Promise<Pixels> {
  const bitmap = await createImageBitmap(picture, { imageOrientation: 'from-image' }).catch(() => {
    throw new CoreError('reading.damaged', CUT_SHORT);
  });
  const scale = Math.min(1, mostPx / Math.max(bitmap.width, bitmap.height));
  const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)];
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  const { data } = context.getImageData(0, 0, width, height);
  // A large canvas is given back now, not when somebody collects it.
  [canvas.width, canvas.height] = [0, 0];
  return { width, height, data };
}

async function jpegOf({ width, height, data }: Pixels): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')!.putImageData(new ImageData(data as Uint8ClampedArray<ArrayBuffer>, width, height), 0, 0);
  return canvas.convertToBlob({ type: 'image/jpeg', quality: 0.92 });
}

function opened(): Pixels {
  if (!open) throw new CoreError('reading.outside', 'No picture is open.');
  return open;
}

function openedCard(key: string): ReadablePicture {
  const open = coupons.get(key);
  if (!open) throw new CoreError('reading.outside', 'That picture is not open.');
  return open;
}

/** The heavy part of the core, away from the page. */
const computations: Computations = {
  design: async ({ design, limits, equipment }) =>
    answered(() => {
      const layout = layoutCoupon(design, limits);
      return {
        layout,
        predictions: predictCells(layout, equipment),
        runTimeS: couponRunTime(layout, equipment.motion, spotWidth(equipment)),
        runUpMm: widestRunUp(layout, equipment.motion),
        labelDose: labelDose(layout, equipment),
      };
    }),
  program: async ({ layout, options }) => answered(() => couponGcode(layout, options)),
  drawing: async (layout) => answered(() => couponSvg(layout)),
  dxf: async (layout) => answered(() => couponDxf(layout)),
  table: async ({ layout, predictions, outcomes }) => answered(() => cellsCsv(layout, predictions, outcomes)),
  readTable: async ({ text, layout }) => answered(() => readCellsCsv(text, layout)),
  openPicture: (picture) =>
    answeredLater(async () => {
      open = await pixelsOf(picture, MOST_PX);
      return { width: open.width, height: open.height, corners: findPart(open) };
    }),
  readCoat: async ({ corners, bare, good, ground, ...part }) =>
    answered(() => {
      const pixels = opened();
      const radius = MARK * pixels.width;
      const straight = straighten(pixels, corners as unknown as [Point2, Point2, Point2, Point2], part);
      const read = (spot: Point2 | null) => (spot ? patchLuminance(pixels, { ...spot, radius }) : null);
      return coatMap(straight, { bare: read(bare), good: read(good), ground });
    }),
  openCoupon: ({ key, picture, prints }) =>
    answeredLater(async () => {
      const pixels = await pixelsOf(picture, MOST_COUPON_PX);
      coupons.delete(key);
      coupons.set(key, openCardPicture(pixels, prints));
      for (const old of [...coupons.keys()].slice(0, -2)) coupons.delete(old);
      return { width: pixels.width, height: pixels.height };
    }),
  readCoupon: ({ key, layout, corners }) =>
    answeredLater(async () => {
      const begun = performance.now();
      const { picture, ...reading } = readCoupon(openedCard(key), layout, corners);
      const tookMs = performance.now() - begun;
      return { reading, level: await jpegOf(levelBytes(picture)), levelPxMm: picture.pxMm, tookMs };
    }),
  crosses: async ({ key, places }) =>
    answered(() =>
      places.map((place) => {
        const cross = crossNear(openedCard(key), place);
        const { x, y } = pictureToCard(openedCard(key).pose, place);
        return cross ? { ...cross, cross: true } : { xMm: x, yMm: y, cross: false };
      }),
    ),
  bedPicture: ({ key, card, size }) =>
    answeredLater(async () => {
      const { pixels, pose } = openedCard(key);
      const { pixels: level, ...bed } = bedPicture(pixels, pose, card, size);
      return { ...bed, level: await jpegOf(level) };
    }),
  readPiece: async ({ key, spots }) => answered(() => readPiece(openedCard(key), spots)),
  match: async ({ windows, target, seed }) =>
    answered(() => windows.map((window) => matchWindow(window, target, seed))),
  characteriseCard: ({ picture, white }) =>
    answeredLater(async () => characteriseCard(await pixelsOf(picture, MOST_COUPON_PX), white)),
  pieceTexts: async ({ entries, job }) => answered(() => piecePreview(entries, job)),
  sheet: async (entries, tell) => answered(() => workOutSheet(entries, (progress) => void tell(progress))),
  gain: async ({ fit, job, block, proven, equipment, teachings }) =>
    answered(() => expectedGain(fit, job, { block, proven, equipment, earlier: earlierOf(teachings) })),
  map: async ({ fit, grid }) => answered(() => windowMap(fit, grid)),
  measureMap: async ({ cells, measure, map }) => answered(() => measureMap(cells, measure, map)),
  compare: async ({ windows, powersW, seed }) => answered(() => compareWindows(windows, powersW, seed)),
  window: async ({ seed, cost, tone, mix, reach, ...window }) =>
    answered(() => {
      const { fit, job, offered } = judgedWindow(window, seed);
      const contrast = measureField(window.family.cells, 'contrast');
      const strong = contrast && ((point: WindowPoint) => aimedContrast(contrast.mean(point), tone));
      const found = settingFromWindow(fit, job, cost, strong, mix);
      const alone = leftOut(fit);
      const answer = CHOICES.map((kind) => {
        const choice = found[kind];
        return [kind, choice && offered(choice, contrast && contrast.at(choice))];
      });
      return {
        fit,
        answer: Object.fromEntries(answer) as DrawnWindow['answer'],
        seen: seenEffects(fit),
        odd: oddCells(fit, alone),
        notes: fitNotes(fit, alone).map((note) => fitNoteWords(fit, note, alone)),
        next: nextBlock(fit, job, { reach, proven: found.quickest }),
      };
    }),
};

expose(computations);
