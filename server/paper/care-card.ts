import type { SubstrateBody } from '@unto/contract';
import { careLines } from '@unto/domain';
import { find, list, type Context } from '../db/context.js';
import { lastingRows } from '../durability/service.js';
import { ApiError } from '../errors/api-error.js';
import type { FileAnswer } from '../http/file-answer.js';
import { inventoryItem } from '../inventory/service.js';
import { workshop } from '../workshop/service.js';
import { pdf } from './pdf.js';

/** Cards on a sheet, to be cut apart. */
const CARDS = 4;

/** How the pieces of a ticket are to be kept, for whoever gets them: from what was tested on them. @throws wrong-stage before anything is marked */
export async function careCard(context: Context, ticketId: string): Promise<FileAnswer> {
  const ticket = await find(context, 'tickets', ticketId);
  const runs = await list(context, 'standingRuns', { where: { ticketId } });
  if (!runs.length) throw new ApiError('wrong-stage', 'Nothing is marked on this ticket yet.');
  const { body } = await inventoryItem(context, 'substrate', ticket.substrateId);
  const stood = await lastingRows(context, { runIds: runs.map(({ id }) => id) });
  const lines = careLines({ stood, foodUse: ticket.foodUse, family: (body as SubstrateBody).family });
  const { name } = await workshop(context);
  const card = {
    margin: [10, 8, 10, 8],
    stack: [
      { text: ticket.title, fontSize: 14, bold: true },
      { text: `How to keep it · ${name}`, margin: [0, 0, 0, 6] },
      { ul: lines },
    ],
  };
  const rows = Array.from({ length: CARDS / 2 }, () => [card, card]);
  return pdf(`care-of-ticket-${ticket.number}.pdf`, {
    pageSize: 'A4',
    pageMargins: [36, 36, 36, 36],
    content: [{ table: { widths: ['*', '*'], body: rows, dontBreakRows: true } }],
  });
}
