import sharp from 'sharp';
import type { Pixels } from '@unto/core';

/** Pixels of a picture file. */
export async function decoded(file: Buffer): Promise<Pixels> {
  const { data, info } = await sharp(file).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return {
    width: info.width,
    height: info.height,
    data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length),
  };
}

/** Pixels as a JPEG. */
export function encoded({ width, height, data }: Pixels): Promise<Buffer> {
  return sharp(data, { raw: { width, height, channels: 4 } })
    .jpeg({ quality: 88 })
    .toBuffer();
}
