import { FILE_TYPES, type FileType } from '@unto/contract';

/** Whether a file is a HEIC picture, as some phones make them: nothing here can show one. */
export function isHeic(bytes: Uint8Array): boolean {
  const brand = String.fromCharCode(...bytes.subarray(4, 12));
  return /^ftyp(heic|heix|hevc|mif1|msf1)/.test(brand);
}

/** What a file's first bytes say it is; null for anything that is not kept. */
export function fileTypeOf(bytes: Uint8Array): FileType | null {
  const found = Object.entries(FILE_TYPES).find(([, start]) => start.every((byte, i) => bytes[i] === byte));
  return (found?.[0] as FileType | undefined) ?? null;
}
