import type { ArtworkDrawing, ArtworkRecord, CreateArtwork, CreateLayout, Layout } from '@unto/contract';
import { artworkKindOf } from '@unto/domain';
import { spotWidth, type ProgramSetting, type RowMotion } from '@unto/core';
import { createOnce, find, insert, list, NEWEST_FIRST, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';
import { isKept, readFile } from '../files/service.js';
import { loadEquipment } from '../inventory/service.js';
import { remembered } from '../pool/remembered.js';
import { artworkFile, readable } from './read-file.js';

/** Brings a kept file to a ticket as artwork: read and measured here, whatever a browser said of it. */
export async function createArtwork(
  context: Context,
  ticketId: string,
  request: CreateArtwork,
): Promise<ArtworkRecord> {
  const { id, fileHash, name, entries } = request;
  await createOnce(context, 'artwork', request, async () => {
    await find(context, 'tickets', ticketId);
    if (!(await isKept(context, fileHash))) throw fault('fileHash', 'That file is not kept here. Bring it again.');
    const { content } = await readFile(context, fileHash);
    const kind = artworkKindOf(content);
    if (!kind) throw fault('fileHash', `“${name}” is no SVG, DXF, G-code, PNG or JPEG inside.`);
    const file = await readable(content, { kind, entered: entries });
    const { measure, said } = await context.pool.run('measureArtwork', file);
    await insert(context, 'artworks', {
      ...{ id, ticketId, fileHash, name, kind, entered: entries, measure, said },
      ...{ at: context.now, byId: context.actor },
    });
  });
  return artworkView(await find(context, 'artworks', id));
}

/** Artworks of a ticket, newest first. */
export async function artworksOf(context: Context, ticketId: string): Promise<ArtworkRecord[]> {
  return (await list(context, 'artworks', { where: { ticketId }, order: NEWEST_FIRST })).map(artworkView);
}

export async function artworkDrawing(context: Context, id: string): Promise<ArtworkDrawing> {
  return context.pool.run('drawArtwork', (await artworkFile(context, await find(context, 'artworks', id)))!);
}

/**
 * Keeps how a ticket's pieces are marked. The ticket's mark becomes the box of what lies on the piece, and what rows over it come to is what its
 * times go by.
 */
export async function createLayout(context: Context, ticketId: string, request: CreateLayout): Promise<Layout[]> {
  const { id, entries } = request;
  await createOnce(context, 'layout', request, async () => {
    const ticket = await find(context, 'tickets', ticketId, { lock: true });
    const artwork = entries.artworkId ? await find(context, 'artworks', entries.artworkId) : null;
    if (artwork && artwork.ticketId !== ticketId)
      throw fault('entries.artworkId', 'That artwork belongs to another ticket. Bring it to this one.');
    if (!artwork && !entries.fields.length)
      throw fault('entries.artworkId', 'Nothing is laid out: bring artwork, or add a text.');
    const { equipment } = await loadEquipment(context, ticket);
    const measure = await context.pool.run('layOutPieces', {
      ...{ entries, file: await artworkFile(context, artwork), pieces: ticket.pieces, intervalMm: null },
      spotMm: spotWidth(equipment.lens),
    });
    await insert(context, 'layouts', {
      ...{ id, ticketId, artworkId: entries.artworkId, entered: entries, measure },
      ...{ at: context.now, byId: context.actor },
    });
    await takeOver(context, ticket, { id, measure });
  });
  return layoutsOf(context, ticketId);
}

async function takeOver(context: Context, ticket: Rows['tickets'], { id, measure }: Pick<Layout, 'id' | 'measure'>) {
  const { swept } = measure;
  const side = (mm: number) => Math.max(0.01, mm);
  await context.models.tickets.update(
    {
      ...{ layoutId: id, markWidthMm: side(measure.widthMm), markHeightMm: side(measure.heightMm) },
      ...(swept.extentMm > 0
        ? { sweptWidthMm: swept.extentMm, sweptHeightMm: swept.heightMm }
        : { sweptWidthMm: null, sweptHeightMm: null }),
      ...{ version: ticket.version + 1, changedAt: context.now },
    },
    { where: { id: ticket.id }, transaction: context.transaction ?? null },
  );
}

/** How pieces of a ticket were to be marked, newest first. */
export async function layoutsOf(context: Context, ticketId: string): Promise<Layout[]> {
  return (await list(context, 'layouts', { where: { ticketId }, order: NEWEST_FIRST })).map(layoutView);
}

/** How the pieces of a ticket are marked; null where nobody laid anything out, or the mark was sized by hand since. */
export async function layoutOf(context: Context, layoutId: string | null): Promise<Layout | null> {
  return layoutId ? layoutView(await find(context, 'layouts', layoutId)) : null;
}

/** The file of the artwork that a layout lays; null where it lays none. */
export async function layoutFile(context: Context, { artworkId }: Pick<Layout, 'artworkId'>) {
  return artworkFile(context, artworkId ? await find(context, 'artworks', artworkId) : null);
}

function artworkView({ at, byId, ...row }: Rows['artworks']): ArtworkRecord {
  return { ...row, at: at.toISOString(), by: byId };
}

function layoutView({ at, byId, ...row }: Rows['layouts']): Layout {
  return { ...row, at: at.toISOString(), by: byId };
}

/** Times that are remembered: a ticket's page asks again with every press. */
const REMEMBERED = 200;

interface TimedLayout {
  readonly context: Context;
  readonly layoutId: string;
  readonly pieces: number;
  readonly setting: ProgramSetting;
  readonly motion: RowMotion;
}

/** Seconds a piece takes by the path of its artwork and texts. */
export const layoutSeconds = remembered(
  REMEMBERED,
  async ({ context, layoutId, ...job }: TimedLayout): Promise<number> => {
    const layout = (await layoutOf(context, layoutId))!;
    const file = await layoutFile(context, layout);
    return context.pool.run('pieceSeconds', { entries: layout.entered, file, ...job });
  },
  ({ context: _context, ...data }) => data,
);
