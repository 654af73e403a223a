import { describe, expect, it } from 'vitest';
import type { Ticket } from '@unto/contract';
import { ticketFieldsOf, undoneBy } from './ticket-fields';

const TICKET = {
  ...{ id: 't', number: 7, version: 3, title: 'Tags', pieces: 48, markWidthMm: 38, markHeightMm: 22, coatMarginMm: 3 },
  ...{ substrateId: 's', headId: 'h', lensId: 'l', compoundId: 'c', choiceReason: 'as ever', state: 'open' },
  ...{ aim: { tone: 'dark on light', strength: 'clear', work: 'fill' }, foodUse: false, wantedOn: null, note: '' },
} as Ticket;

describe('changing a ticket', () => {
  it('says what it undoes, and nothing where it undoes nothing', () => {
    const fields = ticketFieldsOf(TICKET);
    expect(undoneBy(TICKET, { ...fields, title: 'Other', pieces: 50, note: 'rush' })).toEqual([]);
    expect(undoneBy(TICKET, { ...fields, headId: 'h2' }).join()).toMatch(/Prepare and Place[\s\S]*begin anew/);
    expect(undoneBy(TICKET, { ...fields, substrateId: 's2' })[0]).toMatch(/compound is to be chosen again/);
    expect(undoneBy(TICKET, { ...fields, markWidthMm: 60 }).join()).toMatch(/reckoned for the new size/);
    expect(undoneBy(TICKET, { ...fields, aim: { ...fields.aim, tone: 'light on dark' } }).join()).toMatch(/ranks anew/);
  });

  it('takes along what was asked, not what was made of it', () => {
    expect(Object.keys(ticketFieldsOf(TICKET))).not.toContain('compoundId');
  });
});
