import { describe, expect, it } from 'vitest';
import { fileTypeOf, isHeic } from './file-kind.js';

describe('a file by its first bytes', () => {
  it.each([
    [[0x25, 0x50, 0x44, 0x46, 0x2d], 'application/pdf'],
    [[0x89, 0x50, 0x4e, 0x47, 0x0d], 'image/png'],
    [[0xff, 0xd8, 0xff, 0xe0], 'image/jpeg'],
    [[0x4d, 0x5a], null],
    [[0xff, 0xd8], null],
    [[], null],
  ])('%j', (bytes, type) => expect(fileTypeOf(Uint8Array.from(bytes))).toBe(type));
});

it('knows a picture of a phone that nothing here can show', () => {
  const heic = Uint8Array.from([0, 0, 0, 24, ...new TextEncoder().encode('ftypheic')]);
  expect(isHeic(heic)).toBe(true);
  expect(isHeic(Uint8Array.from([0xff, 0xd8, 0xff, 0xe0]))).toBe(false);
});
