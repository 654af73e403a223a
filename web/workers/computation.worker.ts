import { expose } from 'comlink';
import {
  cellsCsv,
  coatMap,
  CoreError,
  couponDxf,
  couponGcode,
  couponRunTime,
  couponSvg,
  findPart,
  fitWindow,
  labelDose,
  layoutCoupon,
  levelBytes,
  openCardPicture,
  patchLuminance,
  predictCells,
  readCellsCsv,
  readCoupon,
  settingFromWindow,
  straighten,
  widestRunUp,
  windowMap,
  type Pixels,
  type Point2,
  type ReadablePicture,
} from '@unto/core';
import { workOutSheet } from '@unto/contract';
import { answered, answeredLater, type Computations } from './computations';

/** Pixels across that a reading needs; larger pictures are scaled down. */
const MOST_PX = 1600;
/** Radius of a reference mark, as a share of the picture’s width. */
const MARK = 0.008;
/** The picture that is open. */
let open: Pixels | null = null;

/** A camera's picture is read as it is, up to this; beyond it is scaled down. */
const MOST_COUPON_PX = 4600;
/** Pictures of coupons that are open, the newest last. */
const coupons = new Map<string, ReadablePicture>();

function pixelsOf(bitmap: ImageBitmap, mostPx: number): Pixels {
  const scale = Math.min(1, mostPx / Math.max(bitmap.width, bitmap.height));
  const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)];
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  return { width, height, data: context.getImageData(0, 0, width, height).data };
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

/** The heavy part of the core, away from the page. */
const computations: Computations = {
  design: async ({ design, limits, bench }) =>
    answered(() => {
      const layout = layoutCoupon(design, limits);
      return {
        layout,
        predictions: predictCells(layout, bench),
        runTimeS: couponRunTime(layout, bench.motion),
        runUpMm: widestRunUp(layout, bench.motion),
        labelDose: labelDose(layout, bench),
      };
    }),
  program: async ({ layout, options }) => answered(() => couponGcode(layout, options)),
  drawing: async (layout) => answered(() => couponSvg(layout)),
  dxf: async (layout) => answered(() => couponDxf(layout)),
  table: async ({ layout, predictions, outcomes }) => answered(() => cellsCsv(layout, predictions, outcomes)),
  readTable: async ({ text, layout }) => answered(() => readCellsCsv(text, layout)),
  openPicture: async (bitmap) =>
    answered(() => {
      open = pixelsOf(bitmap, MOST_PX);
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
  openCoupon: async ({ key, bitmap }) =>
    answered(() => {
      const pixels = pixelsOf(bitmap, MOST_COUPON_PX);
      coupons.delete(key);
      coupons.set(key, openCardPicture(pixels));
      for (const old of [...coupons.keys()].slice(0, -2)) coupons.delete(old);
      return { width: pixels.width, height: pixels.height };
    }),
  readCoupon: ({ key, layout, corners }) =>
    answeredLater(async () => {
      const begun = performance.now();
      const open = coupons.get(key);
      if (!open) throw new CoreError('reading.outside', 'That picture is not open.');
      const { picture, ...reading } = readCoupon(open, layout, corners);
      const tookMs = performance.now() - begun;
      return { reading, level: await jpegOf(levelBytes(picture)), levelPxMm: picture.pxMm, tookMs };
    }),
  sheet: async (entries, tell) => answered(() => workOutSheet(entries, (progress) => void tell(progress))),
  window: async ({ cells, bench, seed, job, map }) =>
    answered(() => {
      const fit = fitWindow({ cells, bench, seed });
      return { fit, map: windowMap(fit, map), answer: settingFromWindow(fit, job) };
    }),
};

expose(computations);
