import { settingWords, type MarkSetting, type ProgramSetting } from '@unto/core';
import type { Layout, Ticket } from '@unto/contract';
import {
  panelReading,
  rowMotion,
  settingOnEquipment,
  shopUnits,
  type AskedPieces,
  type FittedEquipment,
  type LaidPlace,
} from '@unto/domain';
import type { Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { ApiError } from '../errors/api-error.js';
import { FileAnswer } from '../http/file-answer.js';
import { equipmentOf, loadEquipment } from '../inventory/service.js';
import { placesOf } from '../prepare/sheets.js';
import { recipesOf } from '../recipes/views.js';
import { getTicket } from '../tickets/service.js';
import { workshop } from '../workshop/service.js';
import { layoutFile, layoutOf } from '../artworks/service.js';

export type ProgramFormat = 'gcode' | 'svg' | 'dxf';
const MEDIA: Record<ProgramFormat, readonly [media: string, ending: string]> = {
  gcode: ['text/plain', 'gcode'],
  svg: ['image/svg+xml', 'svg'],
  dxf: ['application/dxf', 'dxf'],
};

/** How the one piece of a program lies: its lower left corner, how it is turned, and how far off its focus is set there; as planned without a word. */
interface PieceLies {
  readonly xMm?: number;
  readonly yMm?: number;
  readonly turnDeg?: number;
  readonly focusMm?: number | null;
}

function placeOf({ xMm, yMm, turnDeg = 0 }: PieceLies): LaidPlace | null {
  return xMm === undefined || yMm === undefined ? null : { xMm, yMm, widthMm: 0, heightMm: 0, turnDeg };
}

/**
 * The pieces of a ticket in the places of its jig under its recipe: as G-code for a gantry, or as a drawing for a head that is driven otherwise.
 * @throws wrong-stage without a layout or a recipe, or for G-code of a galvo
 */
export async function ticketProgram(
  context: Context,
  ticketId: string,
  format: ProgramFormat,
  asked: AskedPieces,
  lies: PieceLies = {},
): Promise<FileAnswer> {
  const ticket = await getTicket(context, ticketId);
  const layout = requireLaidOut(await layoutOf(context, ticket.layoutId));
  const [recipe] = await recipesOf(context, ticket);
  if (!recipe) throw new ApiError('wrong-stage', 'No setting is in use on this ticket yet: take one at Prove.');
  const { equipment } = await loadEquipment(context, ticket);
  const setting = { ...recipe, focusOffsetMm: recipe.focusOffsetMm + (lies.focusMm ?? 0) };
  const input = await programInput(context, { ticket, layout, equipment, setting, asked, place: placeOf(lies) });
  const [media, ending] = MEDIA[format];
  const text = await context.pool.run('writeProgram', { ...input, format });
  return new FileAnswer(`ticket-${ticket.number}.${ending}`, media, text);
}

/**
 * A load of a run that is counted, as G-code: as its pieces were laid out and its setting stood when it began.
 * @param numbers of its pieces on the ticket @throws wrong-stage without a layout, or a setting that is known only in part
 */
export async function runProgram(
  context: Context,
  marking: Rows['markings'],
  numbers: readonly number[],
): Promise<string> {
  const layout = requireLaidOut(await layoutOf(context, marking.layoutId));
  const equipment = await equipmentOf(context, marking.revisions);
  const setting = settingOnEquipment(marking.entered, equipment);
  const asked = { pieces: numbers.join(',') };
  const ticket = await getTicket(context, marking.ticketId);
  const input = await programInput(context, { ticket, layout, equipment, setting, asked });
  return context.pool.run('writeProgram', { ...input, format: 'gcode' });
}

/** How many pieces lie under the head at once: the places of the jig, or every one where they are laid in one by one. */
export async function loadOf(context: Context, ticket: Pick<Ticket, 'id' | 'pieces'>): Promise<number> {
  return (await placesOf(context, ticket.id))?.length ?? ticket.pieces;
}

function requireLaidOut(layout: Layout | null): Layout {
  if (!layout) throw new ApiError('wrong-stage', 'Nothing is laid out on the pieces yet: bring artwork at Place.');
  return layout;
}

interface Asked {
  readonly ticket: Ticket;
  readonly layout: Layout;
  readonly equipment: FittedEquipment;
  readonly setting: MarkSetting;
  readonly asked: AskedPieces;
  /** Where its one piece lies; null, or left out, for the places of the ticket. */
  readonly place?: LaidPlace | null;
}

async function programInput(context: Context, { ticket, layout, equipment, setting, asked, place }: Asked) {
  const { machine } = equipment;
  const { work, outlineFirst } = layout.entered;
  const places = place ? [place] : await placesOf(context, ticket.id);
  return {
    ...{ entries: layout.entered, count: ticket.pieces, places, asked, setting: known(setting) },
    file: await layoutFile(context, layout),
    options: {
      ...{ title: ticket.title, motion: rowMotion(machine), fullScaleS: machine.fullScaleS },
      // A part of a fill is cut off where its region ends: that is no outline.
      ...{ work, outlineFirst: outlineFirst && !asked.region, oneByOne: places === null },
      laserOn: laserOnOf(setting),
    },
    words: settingWords(setting, panelReading(shopUnits(await workshop(context)), equipment)),
  };
}

/** How the beam is put on: power held at turns, or falling with the speed. */
export const laserOnOf = ({ powerMode }: Pick<MarkSetting, 'powerMode'>): 'M3' | 'M4' =>
  powerMode === 'constant' ? 'M3' : 'M4';

function known({ powerPercent, speedMmPerS, intervalMm, directions, ...rest }: MarkSetting): ProgramSetting {
  if (powerPercent === null || speedMmPerS === null || intervalMm === null)
    throw new ApiError('wrong-stage', 'Power, speed and interval must be known for a program.');
  return { ...rest, powerPercent, speedMmPerS, intervalMm, directions: directions ?? 'two-way' };
}
