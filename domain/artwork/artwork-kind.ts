import type { ArtworkKind } from '@unto/contract';
import { fileTypeOf } from '../files/file-kind.js';

/** What kind of artwork a file is, by what is in it; null for anything else. */
export function artworkKindOf(bytes: Uint8Array): ArtworkKind | null {
  const picture = fileTypeOf(bytes);
  if (picture) return picture === 'application/pdf' ? null : 'picture';
  const start = new TextDecoder()
    .decode(bytes.subarray(0, 8192))
    .replace(/^\uFEFF/, '')
    .trimStart();
  if (start.includes('\0')) return null;
  if (/^<(\?xml|!--|!DOCTYPE svg|svg|[\w-]+:svg)/i.test(start) && /<([\w-]+:)?svg[\s/>]/i.test(start)) return 'SVG';
  if (/^(\s*999\s*\r?\n[^\r\n]*\r?\n)*\s*0\s*\r?\nSECTION\b/.test(start)) return 'DXF';
  return /^(\s*(\([^)]*\)|;.*|%|O\d+)?\s*\r?\n?)*\s*[GM]\d/i.test(start) ? 'G-code' : null;
}
