import { settingWords, type ProgramSetting } from '@unto/core';
import type { Ticket } from '@unto/contract';
import { panelReading, rowMotion, shopUnits, workOutSheet, type AskedPieces } from '@unto/domain';
import type { Context } from '../db/context.js';
import { ApiError } from '../errors/api-error.js';
import { FileAnswer } from '../http/file-answer.js';
import { loadEquipment } from '../inventory/service.js';
import { newestSheet } from '../prepare/sheets.js';
import { recipesOf } from '../recipes/views.js';
import { getTicket } from '../tickets/service.js';
import { workshop } from '../workshop/service.js';
import { layoutFile, layoutOf } from '../artworks/service.js';

type Format = 'gcode' | 'svg' | 'dxf';
const MEDIA: Record<Format, readonly [media: string, ending: string]> = {
  gcode: ['text/plain', 'gcode'],
  svg: ['image/svg+xml', 'svg'],
  dxf: ['application/dxf', 'dxf'],
};

/**
 * The pieces of a ticket in the places of its jig under its recipe: as G-code for a gantry, or as a drawing for a head that is driven otherwise.
 * @throws wrong-stage without a layout or a recipe, or for G-code of a galvo
 */
export async function ticketProgram(
  context: Context,
  ticketId: string,
  format: Format,
  asked: AskedPieces,
): Promise<FileAnswer> {
  const ticket = await getTicket(context, ticketId);
  const text = await context.pool.run('writeProgram', { ...(await programInput(context, ticket, asked)), format });
  const [media, ending] = MEDIA[format];
  return new FileAnswer(`ticket-${ticket.number}.${ending}`, media, text);
}

async function programInput(context: Context, ticket: Ticket, asked: AskedPieces) {
  const layout = await layoutOf(context, ticket.layoutId);
  if (!layout) throw new ApiError('wrong-stage', 'Nothing is laid out on the pieces yet: bring artwork at Place.');
  const [recipe] = await recipesOf(context, ticket);
  if (!recipe) throw new ApiError('wrong-stage', 'No setting is in use on this ticket yet: take one at Prove.');
  const { equipment } = await loadEquipment(context, ticket);
  const { machine } = equipment;
  const setting: ProgramSetting = { ...recipe, directions: recipe.directions ?? 'two-way' };
  const reading = panelReading(shopUnits(await workshop(context)), equipment);
  const places = await placesOf(context, ticket.id);
  return {
    ...{ entries: layout.entered, count: ticket.pieces, places, asked, setting },
    file: await layoutFile(context, layout),
    options: {
      ...{ title: ticket.title, motion: rowMotion(machine), fullScaleS: machine.fullScaleS },
      ...{ work: layout.entered.work, outlineFirst: layout.entered.outlineFirst, oneByOne: places === null },
      laserOn: recipe.powerMode === 'constant' ? ('M3' as const) : ('M4' as const),
    },
    words: settingWords(recipe, reading),
  };
}

/** Places of the ticket's jig; null where none was laid out. */
async function placesOf(context: Context, ticketId: string) {
  const sheet = await newestSheet(context, ticketId);
  if (sheet?.entries.mode !== 'rows') return null;
  return workOutSheet(sheet.entries).places.filter(({ test }) => !test);
}
