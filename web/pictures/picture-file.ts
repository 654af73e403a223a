import type { KeptFile } from '@unto/contract';

/** More than this is scaled down by nobody in time, and no camera of a bench makes it. */
const MOST_MEGAPIXELS = 60;

/** Refuses what cannot be a whole picture before anybody decodes it. @throws Error in words of what is wrong with the file */
export async function checkPictureFile(mediaType: KeptFile['mediaType'], blob: Blob): Promise<void> {
  if (mediaType === 'application/pdf')
    throw new Error('That is a PDF inside, not a picture. It was kept as a file; bring a PNG or JPEG.');
  if (mediaType === 'text/plain') throw new Error('That is a drawing inside, not a picture. Bring a PNG or JPEG.');
  const bytes = new Uint8Array(await blob.arrayBuffer());
  const size = pictureSize(bytes);
  if (size && (size.width * size.height) / 1e6 > MOST_MEGAPIXELS)
    throw new Error(
      `This picture has ${Math.round((size.width * size.height) / 1e6)} megapixels; at most ${MOST_MEGAPIXELS} are read. Set the camera to a smaller size. The file was kept.`,
    );
  if (mediaType === 'image/jpeg' && !endsWhole(bytes)) throw new Error(CUT_SHORT);
}

export const CUT_SHORT =
  'This picture cannot be read: it is cut short or damaged. The file was kept as it is; bring it again.';

/** Width and height as a PNG or JPEG says itself, without decoding it; null where it does not say. */
export function pictureSize(bytes: Uint8Array): { width: number; height: number } | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes[0] === 0x89 && bytes.length > 24) return { width: view.getUint32(16), height: view.getUint32(20) };
  for (let at = 2; at + 9 < bytes.length && bytes[at] === 0xff; at += 2 + view.getUint16(at + 2)) {
    const kind = bytes[at + 1]!;
    // Start of frame, whatever its coding; tables and the like are passed over.
    if (kind >= 0xc0 && kind <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(kind))
      return { width: view.getUint16(at + 7), height: view.getUint16(at + 5) };
  }
  return null;
}

/** A JPEG ends with its end mark; some cameras add a little after it. */
function endsWhole(bytes: Uint8Array): boolean {
  for (let i = bytes.length - 2; i >= Math.max(0, bytes.length - 65_536); i -= 1)
    if (bytes[i] === 0xff && bytes[i + 1] === 0xd9) return true;
  return false;
}
