import { describe, expect, it } from 'vitest';
import { checkPictureFile, pictureSize } from './picture-file';

describe('picture files', () => {
  const jpeg = (width: number, height: number, end = [0xff, 0xd9]) =>
    new Uint8Array([
      ...[0xff, 0xd8, 0xff, 0xe0, 0, 4, 0, 0, 0xff, 0xc0, 0, 17, 8],
      ...[height >> 8, height & 255, width >> 8, width & 255, 3, 1, 2, 3, ...end],
    ]);

  it('say their size without being decoded', () => {
    expect(pictureSize(jpeg(4032, 3024))).toEqual({ width: 4032, height: 3024 });
    const png = new Uint8Array(33);
    png.set([0x89, 0x50, 0x4e, 0x47]);
    new DataView(png.buffer).setUint32(16, 640);
    new DataView(png.buffer).setUint32(20, 480);
    expect(pictureSize(png)).toEqual({ width: 640, height: 480 });
    expect(pictureSize(new Uint8Array([1, 2, 3]))).toBeNull();
  });

  it.each([
    ['application/pdf', jpeg(10, 10), /PDF inside/],
    ['image/jpeg', jpeg(20_000, 10_000), /200 megapixels; at most 60/],
    ['image/jpeg', jpeg(10, 10, []), /cut short or damaged/],
  ] as const)('of %s are refused in words', async (mediaType, bytes, words) => {
    await expect(checkPictureFile(mediaType, new Blob([bytes]))).rejects.toThrow(words);
  });

  it.each([
    ['a whole JPEG', 'image/jpeg', jpeg(4032, 3024)],
    ['a JPEG with a little after its end, as some cameras write', 'image/jpeg', jpeg(40, 30, [0xff, 0xd9, 0, 0, 7])],
    ['a PNG, which ends by its own chunk', 'image/png', new Uint8Array([0x89, 0x50, 0x4e, 0x47])],
  ] as const)('let %s pass', async (_, mediaType, bytes) => {
    await expect(checkPictureFile(mediaType, new Blob([bytes]))).resolves.toBeUndefined();
  });
});
