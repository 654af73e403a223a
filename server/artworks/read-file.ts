import sharp from 'sharp';
import type { ArtworkFile, GreyPicture } from '@unto/domain';
import type { Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';
import { readFile } from '../files/service.js';

/** More dots than anybody marks. */
const MOST_DOTS = 30e6;

/** Content of a kind of artwork as it is read: a picture decoded, anything else as it is. @throws invalid-input at the file */
export async function readable(
  content: Buffer,
  { kind, entered }: Pick<Rows['artworks'], 'kind' | 'entered'>,
): Promise<ArtworkFile> {
  return { kind, entered, content: kind === 'picture' ? await greyOf(content) : content };
}

/** The file of an artwork that was brought; null of none. @throws invalid-input at the file */
export async function artworkFile(context: Context, artwork: Rows['artworks'] | null): Promise<ArtworkFile | null> {
  return artwork && readable((await readFile(context, artwork.fileHash)).content, artwork);
}

async function greyOf(content: Buffer): Promise<GreyPicture> {
  try {
    const picture = sharp(content, { limitInputPixels: MOST_DOTS });
    const { density } = await picture.metadata();
    // What shines through is the part, not the mark.
    const { data, info } = await picture
      .rotate()
      .flatten({ background: '#fff' })
      .greyscale()
      .toColourspace('b-w')
      .raw()
      .toBuffer({ resolveWithObject: true });
    return { width: info.width, height: info.height, grey: data, dotsPerInch: density ?? null };
  } catch {
    throw fault('fileHash', 'This picture cannot be read: it is damaged, or has more than 30 million dots.');
  }
}
