import type { CompoundBody } from '@unto/contract';
import { find, type Context } from '../db/context.js';
import { ApiError } from '../errors/api-error.js';
import type { FileAnswer } from '../http/file-answer.js';
import { itemsById } from '../inventory/service.js';
import { timersWhere } from '../timers/service.js';
import { workshop } from '../workshop/service.js';
import { pdf } from './pdf.js';

/**
 * A label for every tray of a ticket that dries: what lies on it, since when, and before when it is not touched.
 * @throws not-found, wrong-stage where no tray dries
 */
export async function trayLabels(context: Context, ticketId: string): Promise<FileAnswer> {
  const ticket = await find(context, 'tickets', ticketId);
  const trays = await timersWhere(context, { ticketId, kind: 'dry', endedAt: null });
  if (!trays.length)
    throw new ApiError('wrong-stage', 'No tray of this ticket dries: a label is for one whose clock runs.');
  const items = await itemsById(context, [ticket.substrateId, ...(ticket.compoundId ? [ticket.compoundId] : [])]);
  const compound = (items.get(ticket.compoundId ?? '')?.body ?? null) as CompoundBody | null;
  const { timeZone } = await workshop(context);
  const clock = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  });
  const labels = trays.map(({ tray, pieces, startedAt, minimumS }) => {
    const laid = new Date(startedAt);
    return {
      unbreakable: true,
      margin: [0, 0, 0, 10],
      table: {
        widths: ['*'],
        body: [
          [
            {
              margin: [8, 6, 8, 6],
              stack: [
                {
                  text: `Tray ${tray}${pieces === null ? '' : ` · ${pieces} piece${pieces === 1 ? '' : 's'}`}`,
                  fontSize: 20,
                  bold: true,
                },
                { text: `Ticket ${ticket.number}, ${ticket.title}`, fontSize: 12 },
                `${compound?.name ?? ''} on ${items.get(ticket.substrateId)?.body.name ?? ''}`,
                { text: `laid ${clock.format(laid)}`, margin: [0, 6, 0, 0] },
                {
                  text: `not before ${clock.format(new Date(laid.getTime() + minimumS * 1000))}`,
                  fontSize: 16,
                  bold: true,
                },
                { text: 'and then only with all gloss gone: never fire a wet coat.', margin: [0, 0, 0, 4] },
                { text: 'gloss gone at ________   looked at by ________________' },
              ],
            },
          ],
        ],
      },
    };
  });
  return pdf(`trays-of-ticket-${ticket.number}.pdf`, {
    pageSize: 'A4',
    pageMargins: [42, 40, 300, 40],
    content: labels,
  });
}
