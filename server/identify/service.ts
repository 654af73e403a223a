import {
  densityFromWeighing,
  identifyPart,
  IDENTIFY_MODEL_VERSION,
  massToG,
  type Observations,
  type PartGuess,
} from '@unto/core';
import type { BlankBody, CreateIdentification, IdentificationRecord, WeighedPart } from '@unto/contract';
import { createOnce, find, insert, type Context } from '../db/context.js';
import { pageOf, type Asked } from '../db/page.js';
import type { Rows } from '../db/models/index.js';
import { atField, fault } from '../errors/api-error.js';
import { reviseInventoryItem, inventoryItem } from '../inventory/service.js';

/** Guesses that are kept beside the one that was taken. */
const KEPT_GUESSES = 6;

/**
 * Keeps what was seen of a part and what it is taken to be; probabilities are computed here from the entries. A ticket or a blank
 * it belongs to is booked on the substrate named.
 */
export async function createIdentification(
  context: Context,
  request: CreateIdentification,
): Promise<IdentificationRecord> {
  await createOnce(context, 'identification', request, async () => {
    const density = request.weighed ? weighedDensity(request.weighed) : null;
    const found = identifyPart({ words: request.words, ...(density ? { density } : {}) });
    const taken = found.ranked.find(({ guess }) => guess.key === request.guessKey)!;
    if (request.substrateId) await requireSameMaterial(context, request.substrateId, taken.guess);
    await insert(context, 'identifications', {
      id: request.id,
      label: request.label,
      ticketId: request.ticketId,
      blankId: request.blankId,
      words: request.words as Record<string, string>,
      weighed: request.weighed,
      density,
      modelVersion: IDENTIFY_MODEL_VERSION,
      probabilities: found.ranked
        .slice(0, KEPT_GUESSES)
        .map(({ guess, probability }) => ({ key: guess.key, name: guess.name, probability })),
      guessKey: request.guessKey,
      probability: taken.probability,
      grade: 'usual',
      substrateId: request.substrateId,
      at: context.now,
      byId: context.actor,
    });
    if (request.substrateId) await book(context, request, request.substrateId);
  });
  return view(await find(context, 'identifications', request.id));
}

/** A page of identifications, newest first. */
export async function listIdentifications(
  context: Context,
  { ticketId, blankId, ...asked }: { ticketId?: string | undefined; blankId?: string | undefined } & Asked,
): Promise<{ records: IdentificationRecord[]; next: string | null }> {
  const where = { ...(ticketId ? { ticketId } : {}), ...(blankId ? { blankId } : {}) };
  const { rows, next } = await pageOf(context, 'identifications', { key: 'at', where }, asked);
  return { records: rows.map(view), next };
}

function weighedDensity(weighed: WeighedPart): NonNullable<Observations['density']> {
  const grams = massToG(weighed.mass.value, weighed.mass.unit);
  const needed = (value: number | null, path: string, words: string): number => {
    if (value === null) throw fault(`weighed.${path}`, `${words} is missing.`);
    return value;
  };
  const volume =
    weighed.by === 'water'
      ? { by: 'water' as const, displacedMl: needed(weighed.displacedMl, 'displacedMl', 'The water pushed away') }
      : {
          by: 'sheet' as const,
          lengthMm: needed(weighed.lengthMm, 'lengthMm', 'The length'),
          widthMm: needed(weighed.widthMm, 'widthMm', 'The width'),
          thicknessMm: needed(weighed.thicknessMm, 'thicknessMm', 'The thickness'),
        };
  return atField('weighed.mass.value', () => densityFromWeighing(grams, volume));
}

async function requireSameMaterial(context: Context, substrateId: string, guess: PartGuess): Promise<void> {
  const { body } = await inventoryItem(context, 'substrate', substrateId);
  if (body.family !== guess.family || body.layer !== guess.layer)
    throw fault('substrateId', `${body.name} is ${body.family}, ${body.layer}; the part is taken to be ${guess.name}.`);
}

async function book(context: Context, request: CreateIdentification, substrateId: string): Promise<void> {
  if (request.ticketId) {
    const ticket = await find(context, 'tickets', request.ticketId, { lock: true });
    if (ticket.substrateId !== substrateId) {
      await context.models.tickets.update(
        { substrateId, version: ticket.version + 1, changedAt: context.now },
        { where: { id: ticket.id }, transaction: context.transaction ?? null },
      );
    }
  }
  if (request.blankId) {
    const blank = await inventoryItem(context, 'blank', request.blankId);
    const body: BlankBody = { ...blank.body, substrateId };
    await reviseInventoryItem(context, blank.id, { version: blank.version, body });
  }
}

function view({ byId, at, ...row }: Rows['identifications']): IdentificationRecord {
  return { ...row, at: at.toISOString(), by: byId } as IdentificationRecord;
}
