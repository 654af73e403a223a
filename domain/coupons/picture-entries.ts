import type { CouponPictureReading } from '@unto/core';
import type { CouponPictureEntries } from '@unto/contract';

/** A reading as it is kept: which file it is of, and whether somebody put the corners there. */
export function pictureEntriesOf(
  reading: Omit<CouponPictureReading, 'picture'>,
  fileHash: string,
  byHand: boolean,
): CouponPictureEntries {
  const { card, print, reprojectionErrorMm, mmPerPx, blurUm, unevenness, noise, edgeFloorUm, cells, code } = reading;
  const corners = reading.corners.map(({ x, y }) => ({ x, y }));
  return {
    fileHash,
    card,
    print: { ...print, steps: [...print.steps] },
    reprojectionErrorMm,
    mmPerPx,
    blurUm,
    unevenness,
    corners,
    byHand,
    code: code.text,
    noise,
    edgeFloorUm,
    level: null,
    cells,
  };
}
