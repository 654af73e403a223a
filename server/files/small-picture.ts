import sharp from 'sharp';
import type { Context } from '../db/context.js';
import { ApiError } from '../errors/api-error.js';
import { MOST_PICTURE_DOTS, readFile } from './service.js';

/** Longest side of a small picture, px: twice what a list shows, for sharp screens. */
const SIDE_PX = 320;

/** A kept picture the right way up, no larger than a list shows. @throws not-found; wrong-file for what is no picture or cannot be opened */
export async function smallPicture(context: Context, hash: string): Promise<{ name: string; content: Buffer }> {
  const { name, mediaType, content } = await readFile(context, hash);
  if (!mediaType.startsWith('image/')) throw new ApiError('wrong-file', `“${name}” is no picture.`);
  try {
    const small = sharp(content, { limitInputPixels: MOST_PICTURE_DOTS })
      .rotate()
      .resize(SIDE_PX, SIDE_PX, { fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' });
    return { name, content: await small.jpeg({ quality: 80 }).toBuffer() };
  } catch {
    throw new ApiError('wrong-file', `“${name}” cannot be opened as a picture.`);
  }
}
