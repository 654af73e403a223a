// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import JudgeStation from '../runs/JudgeStation.vue';
import { by, item } from '../testing/shop';
import { mountOnTicket } from '../testing/ticket';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));
beforeEach(() => localStorage.clear());
afterEach(() => vi.unstubAllGlobals());

const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const TICKET = {
  ...{ id: id(1), number: 7, version: 1, title: 'Tags', pieces: 4, markWidthMm: 38, markHeightMm: 22, coatMarginMm: 3 },
  ...{ substrateId: id(2), headId: id(4), lensId: id(5), compoundId: null, choiceReason: 'bare', state: 'open' },
  ...{ aim: { tone: 'dark on light', strength: 'clear', work: 'fill' }, foodUse: false },
};
const ITEMS = [
  item('substrate', id(2), { name: 'Stainless', family: 'stainless', layer: 'bare' }),
  item('head', id(4), { name: 'Head', machineId: id(3) }),
  item('lens', id(5), { name: 'Lens', headId: id(4) }),
  item('machine', id(3), { name: 'Long bench', topSpeedMmPerS: 600 }),
];
const RUN = {
  ...{ id: id(7), ticketId: id(1), pieces: 4, at: '2026-03-01T10:00:00.000Z', grade: 'proved', correctedById: null },
  cleaning: null,
  judgement: null,
};
const CORNERS = [
  { x: 10, y: 90 },
  { x: 90, y: 90 },
  { x: 90, y: 50 },
  { x: 10, y: 50 },
];
const read = (piece: number, change: object = {}) => ({
  ...{
    piece,
    corners: CORNERS,
    unreadable: null,
    contrast: 46,
    strokes: null,
    sd: 1,
    deltaE: 40,
    chroma: 2,
    evenness: 0.99,
  },
  ...{ coverage: 1, halo: 0, residue: 0, offMm: 0.2, findings: [] },
  ...change,
});
const READING = {
  ...{ id: id(8), runId: id(7), fileHash: 'h', widthPx: 4000, heightPx: 3000, mmPerPx: 0.12, others: 0 },
  expected: { mean: 46, low: 41, high: 51, cells: 24 },
  pieces: [
    read(1),
    read(2, {
      ...{ contrast: 38 },
      findings: [
        { kind: 'pale along one edge', words: 'left edge reads 20 L*, the rest 45', spot: { x: 0.17, y: 0.5 } },
      ],
    }),
    read(3, { unreadable: 'glare', contrast: null }),
  ],
  ...{ at: '2026-03-01T11:00:00.000Z', by: id(6) },
};
const SAMPLE = {
  ...{ runId: id(7), aside: [], scrub: 3, drawn: [3, 1, 2], names: ['BED 1', 'BED 2', 'BED 3', 'BED 4'] },
  ...{ faults: [], checks: [] },
};

async function station(trays: object[], ticket: object = {}) {
  const mounted = await mountOnTicket(JudgeStation, {
    ...{ ticket: TICKET, items: ITEMS, page: { runs: [RUN], layout: { entered: {} }, ...ticket } },
    answers: { [`/api/runs/${id(7)}/trays`]: trays, [`/api/runs/${id(7)}/sample`]: SAMPLE },
  });
  await flushPromises();
  return mounted;
}

describe('a tray read from a picture at Judge', () => {
  it('asks for the drawn pieces first, and says that a picture tells nothing of what the pad does', async () => {
    const { page } = await station([]);
    expect((page.find(by('tray-pieces')).element as HTMLInputElement).value).toBe('1-3');
    expect(page.find(by('tray-picture')).exists()).toBe(false);
  });

  it('proposes what it found piece by piece: it is a fault only once somebody says so', async () => {
    const { page, server } = await station([READING]);
    expect(page.find(by('tray-says')).text()).toMatch(/2 of 3 read: contrast 38 to 46 L\*.*expect 46 \(41 to\s+51/s);
    expect(page.find(by('found-2')).text()).toMatch(/BED 2: pale along one edge\? left edge reads 20/);
    expect(page.find(by('tray')).text()).toMatch(/BED 3 is not read:\s+a reflection lies on it/);
    expect(page.findAll('[data-test-id="tray-picture"] path').length).toBe(3);
    expect(server.posts()).toEqual([]);
    await page.find(by('take-2')).trigger('click');
    await flushPromises();
    expect(server.posts().at(-1)).toMatchObject({
      path: `/api/runs/${id(7)}/piece-faults`,
      body: { piece: 2, fault: 'pale along one edge', spot: { x: 0.17, y: 0.5 } },
    });
    const ticked = page.find(by('fault-pale along one edge')).element as HTMLInputElement;
    expect(ticked.checked).toBe(true);
  });

  it('says why there is nothing to read where nothing was laid out', async () => {
    const { page } = await station([], { layout: null });
    expect(page.find(by('tray')).text()).toMatch(/bring the artwork at Place/);
  });
});
