import type { CoatPicture, CreateCoatPicture } from '@unto/contract';
import { judgePicture } from '@unto/domain';
import { type Context, createOnce, find, insert, list, OLDEST_FIRST } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';
import { isKept } from '../files/service.js';
import { requireOwnWeighing } from './readings.js';

/** Keeps a picture of a coat: its file is kept already; the map is judged here. */
export async function createCoatPicture(
  context: Context,
  ticketId: string,
  request: CreateCoatPicture,
): Promise<CoatPicture[]> {
  await createOnce(context, 'coat picture', request, async () => {
    const ticket = await find(context, 'tickets', ticketId);
    await requireOwnWeighing(context, ticketId, request.weighingId);
    const { entries } = request;
    if (!(await isKept(context, entries.fileHash)))
      throw fault('entries.fileHash', 'That picture is not kept here. Bring it again.');
    const judgement = judgePicture(entries.map, entries, ticket);
    await insert(context, 'coatPictures', { ...request, ticketId, judgement, at: context.now, byId: context.actor });
  });
  return coatPicturesOf(context, ticketId);
}

/** Pictures of a ticket's coats, oldest first. */
export async function coatPicturesOf(context: Context, ticketId: string): Promise<CoatPicture[]> {
  const rows = await list(context, 'coatPictures', { where: { ticketId }, order: OLDEST_FIRST });
  return rows.map(({ byId, at, ...row }: Rows['coatPictures']) => ({ ...row, at: at.toISOString(), by: byId }));
}
