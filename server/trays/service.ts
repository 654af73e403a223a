import sharp from 'sharp';
import { measureField, spotWidth, trayFindings, type Pixels, type TrayPiece, type TrayReading } from '@unto/core';
import type { CreateTrayReading, DeviceJob, TakeTrayPicture, TrayReadingRecord } from '@unto/contract';
import { familyFor, windowFamilies } from '@unto/domain';
import { layoutFile } from '../artworks/service.js';
import { listCards } from '../cards/service.js';
import { windowEvidence } from '../coupons/window-evidence.js';
import { createOnce, find, insert, list, NEWEST_FIRST, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { askOfDevice } from '../devices/ask-of-device.js';
import { fault } from '../errors/api-error.js';
import { MOST_PICTURE_DOTS, isKept, readFile } from '../files/service.js';
import { equipmentOf } from '../inventory/service.js';
import { pieceSizeOf } from '../prepare/sheets.js';
import { measuresOf } from '../windows/service.js';
import { markedRun, numbersOn, type MarkedRun } from './marked.js';

/** A picture is read at this many pixels across at most: what more there are tells nothing of a mark. */
const MOST_PX = 4400;

/** Asks for a picture of washed pieces. @throws device-away without a camera, wrong-stage where nothing was laid out on them */
export async function askTrayPicture(context: Context, runId: string, { pieces }: TakeTrayPicture): Promise<DeviceJob> {
  numbersOn(await markedRun(context, runId), { pieces });
  return askOfDevice(context, 'picture', { of: 'tray', runId, pieces });
}

/** Reads pieces of a run from a kept picture, here and not where it was brought, and keeps what it tells. */
export async function createTrayReading(
  context: Context,
  runId: string,
  request: CreateTrayReading,
): Promise<TrayReadingRecord[]> {
  await createOnce(context, 'tray reading', request, async () => {
    const marked = await markedRun(context, runId);
    const { id, fileHash, pieces } = request;
    const numbers = numbersOn(marked, request);
    if (!(await isKept(context, fileHash))) throw fault('fileHash', 'That picture is not kept here. Bring it again.');
    await refuseOthers(context, runId, fileHash);
    const pixels = await decoded((await readFile(context, fileHash)).content);
    const reading = await readPieces(context, marked, pixels, numbers);
    const expected = await expectedContrast(context, marked.run);
    const { tone } = marked.ticket.aim;
    const findings = trayFindings(reading.pieces, expected, tone === 'dark on light' ? 1 : -1);
    await insert(context, 'trayReadings', {
      ...{ id, runId, fileHash, at: context.now, byId: context.actor },
      read: {
        ...{
          widthPx: pixels.width,
          heightPx: pixels.height,
          mmPerPx: reading.mmPerPx,
          others: reading.others,
          expected,
        },
        pieces: reading.pieces.map((one, i) => ({ piece: pieces[i]!, ...figuresOf(one), findings: findings[i]! })),
      },
    });
  });
  return trayReadings(context, runId);
}

/** What pictures told of a run's pieces, newest first. */
export async function trayReadings(context: Context, runId: string): Promise<TrayReadingRecord[]> {
  await find(context, 'runs', runId);
  const rows = await list(context, 'trayReadings', { where: { runId }, order: NEWEST_FIRST });
  return rows.map(({ id, fileHash, read, at, byId }) => ({
    ...{ id, runId, fileHash, ...read, at: at.toISOString(), by: byId },
  }));
}

/** One picture shows the pieces of one run. */
async function refuseOthers(context: Context, runId: string, fileHash: string): Promise<void> {
  const earlier = await list(context, 'trayReadings', { where: { fileHash } });
  if (earlier.some((row) => row.runId !== runId))
    throw fault('fileHash', 'This very picture was read for another run already. Bring the picture of these pieces.');
}

async function readPieces(
  context: Context,
  marked: MarkedRun,
  pixels: Pixels,
  numbers: number[],
): Promise<TrayReading> {
  const { run, ticket, layout, marking } = marked;
  const equipment = await equipmentOf(context, run.revisions);
  const cards = await listCards(context);
  return context.pool.run('readTray', {
    ...{ entries: layout.entered, file: await layoutFile(context, layout), pixels, numbers },
    prints: Object.fromEntries(cards.map(({ size, print }) => [size, print])),
    job: {
      ...(await pieceSizeOf(context, ticket, marking?.entered.blankId)),
      ...{ lineMm: spotWidth(equipment.lens), tone: ticket.aim.tone },
    },
  });
}

/** Pixels of a picture, turned as its camera says. @throws invalid-input at the file */
async function decoded(content: Buffer): Promise<Pixels> {
  try {
    const { data, info } = await sharp(content, { limitInputPixels: MOST_PICTURE_DOTS })
      .rotate()
      .resize({ width: MOST_PX, height: MOST_PX, fit: 'inside', withoutEnlargement: true })
      .toColourspace('srgb')
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    return {
      width: info.width,
      height: info.height,
      data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length),
    };
  } catch {
    throw fault('fileHash', 'This picture cannot be read: it is damaged, or no JPEG or PNG.');
  }
}

/** What a mark of a run's setting is expected to read by the cells of its window that pictures told; null where too few did. */
async function expectedContrast(context: Context, run: Rows['runs']): Promise<TrayReadingRecord['expected']> {
  const { substrateId, compoundId, headId, powerW, speedMmPerS, powerPercent } = run;
  if (powerW === null || speedMmPerS === null || powerPercent === null) return null;
  const { lensId } = await find(context, 'tickets', run.ticketId);
  const { cells, coupons } = await windowEvidence(context, { substrateId, compoundId, headId, lensId }, run.revisions);
  const setting = { ...run, powerW, speedMmPerS, powerPercent, coats: null };
  const family = familyFor(windowFamilies(cells), setting);
  if (!family) return null;
  const measures = await measuresOf(
    context,
    coupons.map(({ id }) => id),
  );
  const read = family.cells.map((cell) => ({
    ...cell,
    measures: measures.get(cell.couponId ?? '')?.get(cell.cell) ?? null,
  }));
  const field = measureField(read, 'contrast');
  return field && { ...aimed(field.at(setting)), cells: field.cells };
}

/** Told as the strength of a mark, whichever way it differs from its ground. */
function aimed({ mean, low, high }: { mean: number; low: number; high: number }) {
  return mean >= 0 ? { mean, low, high } : { mean: -mean, low: -high, high: -low };
}

function figuresOf({ corners, unreadable, offset, reading }: TrayPiece) {
  const { contrast, strokes, sd, deltaE, chroma, evenness, coverage, halo, residue } = reading ?? NONE;
  return {
    ...{ corners: corners.map(({ x, y }) => ({ x, y })), unreadable },
    ...{ contrast, strokes, sd, deltaE, chroma, evenness, coverage, halo, residue },
    offMm: offset && Math.hypot(offset.dxMm, offset.dyMm),
  };
}

const NONE = {
  ...{ contrast: null, strokes: null, sd: null, deltaE: null, chroma: null },
  ...{ evenness: null, coverage: null, halo: null, residue: null },
};
