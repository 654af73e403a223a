import type { CreateRemark, ListRemarksQuery, Remark, RetireRemark } from '@unto/contract';
import { createOnce, find, insert, list, OLDEST_FIRST, rowsOf, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';

/** Remarks beside a ticket and its runs, or beside one run of it, oldest first. */
export async function listRemarks(context: Context, { ticketId, runId }: ListRemarksQuery): Promise<Remark[]> {
  await find(context, 'tickets', ticketId);
  const where = { ticketId, retired: false, ...(runId ? { runId } : {}) };
  return views(context, await list(context, 'remarks', { where, order: OLDEST_FIRST }));
}

/** Puts a remark beside a ticket, or beside one of its runs. @throws not-found, invalid-input at `runId` or `fileHash` */
export async function createRemark(context: Context, request: CreateRemark): Promise<Remark> {
  await createOnce(context, 'remark', request, async () => {
    const { id, ticketId, runId, words, fileHash, shows } = request;
    await find(context, 'tickets', ticketId);
    if (runId && (await find(context, 'runs', runId)).ticketId !== ticketId)
      throw fault('runId', 'That run belongs to another ticket.');
    if (fileHash && !(await rowsOf(context, 'storedFiles', [fileHash], { key: 'hash' })).length)
      throw fault('fileHash', 'That picture is not kept here; bring it again.');
    const row = { id, ticketId, runId, words: words.trim(), fileHash, shows, retired: false };
    await insert(context, 'remarks', { ...row, at: context.now, byId: context.actor });
  });
  return view(context, request.id);
}

/** Takes a remark out of sight, or back. @throws not-found */
export async function retireRemark(context: Context, id: string, { retired }: RetireRemark): Promise<Remark> {
  await find(context, 'remarks', id);
  await context.models.remarks.update({ retired }, { where: { id }, transaction: context.transaction ?? null });
  return view(context, id);
}

const view = async (context: Context, id: string): Promise<Remark> =>
  (await views(context, [await find(context, 'remarks', id)]))[0]!;

async function views(context: Context, rows: readonly Rows['remarks'][]): Promise<Remark[]> {
  const hashes = rows.flatMap(({ fileHash }) => fileHash ?? []);
  const files = new Map(
    (await rowsOf(context, 'storedFiles', hashes, { key: 'hash' })).map((file) => [file.hash, file]),
  );
  return rows.map(({ fileHash, byId, at, ...row }) => {
    const file = fileHash && files.get(fileHash);
    return {
      ...{
        id: row.id,
        ticketId: row.ticketId,
        runId: row.runId,
        words: row.words,
        shows: row.shows,
        retired: row.retired,
      },
      file: file ? { hash: file.hash, name: file.name, mediaType: file.mediaType } : null,
      at: at.toISOString(),
      by: byId,
    };
  });
}
