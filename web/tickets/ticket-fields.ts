import type { CreateTicket, Ticket } from '@unto/contract';

/** What a ticket was asked, without what was made of it since. */
export function ticketFieldsOf(ticket: Ticket): Omit<CreateTicket, 'id'> {
  const { title, pieces, markWidthMm, markHeightMm, coatMarginMm, substrateId, headId, lensId } = ticket;
  const { aim, foodUse, wantedOn, note } = ticket;
  return {
    ...{ title, pieces, markWidthMm, markHeightMm, coatMarginMm, substrateId, headId, lensId },
    ...{ aim: { ...aim }, foodUse, wantedOn, note },
  };
}

/** What a change of a ticket undoes, in words; nothing for what undoes nothing. */
export function undoneBy(before: Ticket, now: Omit<CreateTicket, 'id'>): string[] {
  const changed = (key: 'substrateId' | 'headId' | 'lensId' | 'markWidthMm' | 'markHeightMm' | 'pieces') =>
    before[key] !== now[key];
  return [
    changed('substrateId') ? 'Another substrate: the compound is to be chosen again.' : '',
    changed('substrateId') || changed('headId') || changed('lensId')
      ? 'What was ticked at Prepare and Place, and the setting that was taken, begin anew. Runs, cleanings and judgements stay.'
      : '',
    changed('markWidthMm') || changed('markHeightMm')
      ? 'Compound, strokes and time are reckoned for the new size; coats laid before were weighed for the old one.'
      : '',
    before.aim.tone !== now.aim.tone ? 'Another tone: Choose ranks anew, and pictures are read for it.' : '',
  ].filter(Boolean);
}
