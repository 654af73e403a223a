import { randomUUID } from 'node:crypto';
import type { Sequelize } from 'sequelize';
import { TEXT_TYPE, type KeptFile } from '@unto/contract';
import { artworkKindOf, fileTypeOf, isHeic } from '@unto/domain';
import { list, type Context } from '../db/context.js';
import type { Models } from '../db/models/index.js';
import { ApiError } from '../errors/api-error.js';
import type { FileStore } from '../storage/file-store.js';

/** Dots of a photograph that is opened at most. */
export const MOST_PICTURE_DOTS = 120e6;

/**
 * Keeps a file; the same content again answers the first one's row. Written and flushed before its row commits.
 * @throws wrong-file for anything but PDF, PNG, JPEG and artwork that is a text, told by what is in it
 */
export async function keepFile(context: Context, name: string, bytes: Uint8Array): Promise<KeptFile> {
  const mediaType = fileTypeOf(bytes) ?? (artworkKindOf(bytes) ? TEXT_TYPE : null);
  if (!mediaType && isHeic(bytes))
    throw new ApiError(
      'wrong-file',
      `“${name}” is a HEIC picture, which browsers cannot open. Set the phone's camera to JPEG (“most compatible”), or send it as JPEG. Nothing was kept; your original is where it was.`,
    );
  if (!mediaType)
    throw new ApiError(
      'wrong-file',
      `“${name}” is no PDF, PNG, JPEG, SVG, DXF or G-code inside, whatever its name says. Nothing was kept.`,
    );
  const hash = await context.files.put(bytes);
  const known = async () => (await list(context, 'storedFiles', { where: { hash } }))[0];
  const found = await known();
  const row = found ?? {
    id: randomUUID(),
    hash,
    name,
    mediaType,
    bytes: bytes.length,
    at: context.now,
    byId: context.actor,
  };
  // Somebody may keep the same content in the same moment: the first one's row stands.
  if (!found)
    await context.models.storedFiles.bulkCreate([row], {
      ignoreDuplicates: true,
      transaction: context.transaction ?? null,
    });
  const kept = found ?? (await known())!;
  return { hash: kept.hash, name: kept.name, mediaType: kept.mediaType, bytes: kept.bytes };
}

/** A kept file with its content. @throws not-found */
export async function readFile(context: Context, hash: string): Promise<KeptFile & { content: Buffer }> {
  const [row] = await list(context, 'storedFiles', { where: { hash } });
  const content = row ? await context.files.get(hash) : null;
  if (!row || !content) throw new ApiError('not-found', 'That file is not kept here.');
  return { hash: row.hash, name: row.name, mediaType: row.mediaType, bytes: row.bytes, content };
}

/** Whether a row stands for that content. */
export async function isKept(context: Context, hash: string): Promise<boolean> {
  return (await list(context, 'storedFiles', { where: { hash }, attributes: ['id'] })).length > 0;
}

/** Sets contents aside that no row has named for days: what was written for a row that never committed. For the start of the server. */
export async function sweepFiles(into: { sequelize: Sequelize; models: Models; files: FileStore }): Promise<number> {
  const { id } = (await into.models.installation.findOne({ raw: true }))!;
  const rows = await into.models.storedFiles.findAll({ attributes: ['hash'], raw: true });
  return into.files.sweep(id, new Set(rows.map(({ hash }) => hash)));
}
