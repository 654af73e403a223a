// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import type { MarkedPiece } from '@unto/contract';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { item, by } from '../testing/shop';
import { mountOnTicket } from '../testing/ticket';
import { KEYS } from '../ui/keys';
import CountStation from './CountStation.vue';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));
afterEach(() => vi.unstubAllGlobals());

const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const TICKET = {
  ...{
    id: id(1),
    number: 7,
    version: 1,
    title: 'Tags',
    pieces: 12,
    markWidthMm: 38,
    markHeightMm: 22,
    coatMarginMm: 3,
  },
  ...{ substrateId: id(2), headId: id(4), lensId: id(5), compoundId: null, choiceReason: 'bare' },
  ...{ aim: { tone: 'dark on light', strength: 'clear', work: 'fill' }, foodUse: false },
};
const ITEMS = [
  item('substrate', id(2), { name: 'Stainless', family: 'stainless', layer: 'bare' }),
  item('head', id(4), { name: 'Head', machineId: id(3) }),
  item('lens', id(5), { name: 'Lens', headId: id(4) }),
  item('machine', id(3), { name: 'Long bench', topSpeedMmPerS: 600 }),
];
const said = (piece: number, state: MarkedPiece['state'], secondsAgo: number, change: object = {}): MarkedPiece => ({
  ...{ piece, state, why: null, spot: null, by: id(6) },
  at: new Date(Date.now() - 1000 * secondsAgo).toISOString(),
  ...change,
});
const counting = (counted: readonly MarkedPiece[], change: object = {}) =>
  mountOnTicket(CountStation, {
    ticket: TICKET,
    items: ITEMS,
    page: {
      marking: {
        ...{ id: id(9), ticketId: TICKET.id, recipeId: null, pieces: 6, startedBy: id(6), runId: null, ended: false },
        startedAt: new Date(Date.now() - 600_000).toISOString(),
        ...{ numbers: [1, 2, 3, 4, 5, 6], layoutId: null },
        ...{ firstPiece: null, note: '', checked: ['focus'], counted },
        ...change,
      },
    },
  });

describe('a run that is counted', () => {
  it('counts the piece under the beam at one press, whatever was said of the others', async () => {
    const { page, server } = await counting([said(1, 'done', 500), said(3, 'done', 300)], { firstPiece: 'held' });
    expect(page.find(by('now-piece')).text()).toBe('Piece 2');
    expect(page.find(by('counted')).text()).toMatch(/2 done · 0 set aside · 4 to go/);
    await page.find(by('piece-done')).trigger('click');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({
      path: `/api/markings/${id(9)}/pieces`,
      body: { piece: 2, what: 'done', why: null },
    });
  });

  it('stops after the first piece until somebody says how it stood the pad', async () => {
    const { page, server } = await counting([said(1, 'done', 60)]);
    expect(page.find(by('piece-done')).exists()).toBe(false);
    expect(page.find(by('first-piece')).text()).toMatch(/rinse and scrub piece 1/);
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'd', bubbles: true }));
    await flushPromises();
    expect(server.posts()).toEqual([]);
    await page.find(by('first-lost')).trigger('click');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({ path: `/api/markings/${id(9)}/first-piece`, body: { result: 'lost' } });
  });

  it('warns once the first was lost, and lets the run be ended', async () => {
    const { page, server } = await counting([said(1, 'done', 60)], { firstPiece: 'lost' });
    expect(page.text()).toMatch(/The first piece was lost\. End this run/);
    await page.find(by('end-marking')).trigger('click');
    expect(page.find(by('ending')).text()).toMatch(/End it with 1 of 6 pieces/);
    await page.find(by('end-run')).trigger('click');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({ path: `/api/markings/${id(9)}/end` });
  });

  it('sets a piece aside with what went wrong, and takes that back at a press on its drawing', async () => {
    const aside = said(2, 'set aside', 100, { why: 'scorched', spot: { x: 0.9, y: 0.1 } });
    const { page, server } = await counting([said(1, 'done', 300), aside], { firstPiece: 'held' });
    expect(page.text()).toMatch(/Piece 2 is set aside:\s*scorched/);
    await page.find(by('piece-wrong')).trigger('click');
    await page.find(by('spoilt-out of focus')).trigger('click');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({ body: { piece: 3, what: 'set aside', why: 'out of focus' } });
    await page.find(by('piece-2')).trigger('click');
    await flushPromises();
    expect(server.posts()[1]).toMatchObject({ body: { piece: 2, what: 'taken back', why: null } });
  });

  it('has its key in the list of keys', () => {
    expect(KEYS.some(({ keys, where }) => keys === 'D' && where === 'Mark')).toBe(true);
  });
});
