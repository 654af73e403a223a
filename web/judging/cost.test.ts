// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { by, item } from '../testing/shop';
import { mountOnTicket } from '../testing/ticket';
import CostPanel from './CostPanel.vue';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));
beforeEach(() => localStorage.clear());
afterEach(() => vi.unstubAllGlobals());

const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const TICKET = {
  ...{ id: id(1), number: 7, version: 1, title: 'Tags', pieces: 6, markWidthMm: 38, markHeightMm: 22, coatMarginMm: 3 },
  ...{ substrateId: id(2), headId: id(4), lensId: id(5), compoundId: null, choiceReason: 'bare', state: 'open' },
  ...{ aim: { tone: 'dark on light', strength: 'clear', work: 'fill' }, foodUse: false },
};
const ITEMS = [
  item('substrate', id(2), { name: 'Stainless', family: 'stainless', layer: 'bare' }),
  item('head', id(4), { name: 'Head', machineId: id(3) }),
  item('lens', id(5), { name: 'Lens', headId: id(4) }),
  item('machine', id(3), { name: 'Long bench', topSpeedMmPerS: 600, laserMinorPerMinute: 20 }),
  item('blank', id(6), { name: 'Dear box', substrateId: id(2), priceMinor: 300 }),
  item('blank', id(7), { name: 'Cheap box', substrateId: id(2), priceMinor: 100 }),
];
const run = (change: object = {}) => ({
  ...{ id: id(8), ticketId: id(1), pieces: 6, minutes: 12, minutesFrom: 'counted', bench: null, grade: 'proved' },
  ...{ at: '2026-03-01T10:00:00.000Z', correctedById: null, cleaning: { minutes: 3 }, judgement: { piecesGood: 5 } },
  ...change,
});
const shown = async (page: object) => (await mountOnTicket(CostPanel, { ticket: TICKET, items: ITEMS, page })).page;

describe('what the pieces came to', () => {
  it('is not in sight before anything ran', async () => {
    expect((await shown({ runs: [] })).find(by('ticket-cost')).exists()).toBe(false);
  });

  it('sets each factor against its plan, a rate that nobody changed left out', async () => {
    const page = await shown({ runs: [run()], recipes: [{ secondsPerPiece: 60 }] });
    const text = page.find(by('ticket-cost')).text();
    expect(text).toMatch(/a good piece, planned/);
    expect(text).toMatch(/5 good of.*6 made/s);
    expect(text).toMatch(/Laser.*1.min.*2.min/s);
    expect(text).not.toContain('Laser rate');
    expect(text).toMatch(/on pieces that are not good/);
    // Nobody said which box: the cheapest of its substrate.
    expect(page.findAll('tbody tr')[0]!.text()).toMatch(/Blank.*1\.00/s);
  });

  it('takes the box that was named, and says what was taken as planned', async () => {
    const named = run({ bench: { blank: { id: id(6) } }, minutesFrom: 'planned', cleaning: null });
    const text = (await shown({ runs: [named] })).find(by('ticket-cost')).text();
    expect(text).toMatch(/3\.00/);
    expect(text).toMatch(/Taken as planned, since nobody kept it: laser minutes, cleaning/);
  });

  it('gives no price of a good piece while none is', async () => {
    const none = await shown({ runs: [run({ judgement: { piecesGood: 0 } })] });
    expect(none.find(by('ticket-cost')).text()).toMatch(/so far for 6 made, none of them judged good/s);
    expect(none.find('table').exists()).toBe(false);
  });
});
