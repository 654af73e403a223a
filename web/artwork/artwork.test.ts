// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { piecePreview } from '@unto/domain';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { defineComponent } from 'vue';
import { by, choose, item } from '../testing/shop';
import { mountOnTicket } from '../testing/ticket';
import ArtworkPanel from './ArtworkPanel.vue';
import ArtworkStage from './ArtworkStage.vue';
import { useArtwork } from './useArtwork';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));
vi.mock('../workers/useComputations', () => ({
  useComputations: () => ({
    stop: () => undefined,
    core: {
      pieceTexts: async ({ entries, job }: { entries: any; job: any }) => {
        try {
          return { ok: true, value: piecePreview(entries, job) };
        } catch (error) {
          return { ok: false, code: 'csv.missing-column', message: (error as Error).message };
        }
      },
    },
  }),
}));
beforeEach(() => localStorage.clear());

const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const TICKET = {
  ...{ id: id(1), number: 7, version: 1, title: 'Tags', pieces: 3, markWidthMm: 38, markHeightMm: 22, coatMarginMm: 3 },
  ...{ substrateId: id(2), headId: id(4), lensId: id(5), compoundId: null, layoutId: null },
};
const swept = { heightMm: 10, extentMm: 12, spansPerRow: 1, markedShare: 1 };
const ARTWORK = {
  ...{
    id: id(8),
    ticketId: id(1),
    fileHash: 'a'.repeat(64),
    name: 'tag.svg',
    kind: 'SVG',
    said: ['Left out: 1 × scripts.'],
  },
  ...{
    entered: { unit: null, closed: 'filled', widthMm: null, darker: 128 },
    at: '2026-03-01T10:00:00.000Z',
    by: id(6),
  },
  measure: {
    ...{ widthMm: 12, heightMm: 10, filledMm2: 104, filledShare: 0.87, swept, sweptUp: swept, linesMm: 0, lines: 0 },
    ...{
      smallestStroke: { mm: 0.08, xMm: 3, yMm: 4 },
      smallestGap: { mm: 1, xMm: 5, yMm: 5 },
      openFills: 0,
      corners: 10,
    },
  },
};
const DRAWING = {
  widthMm: 12,
  heightMm: 10,
  paths: [{ as: 'marked', evenodd: 'evenodd', d: 'M0 0L12 0L12 10L0 10Z' }],
};
const Host = defineComponent({
  components: { ArtworkPanel, ArtworkStage },
  setup: () => ({ state: useArtwork() }),
  template: '<ArtworkPanel :state="state" /><ArtworkStage :state="state" />',
});
const open = (page: object = {}) =>
  mountOnTicket(Host, {
    ticket: TICKET,
    page: { artworks: [], layout: null, ...page },
    items: [
      item('substrate', id(2), { ground: 'light', family: 'stainless' }),
      item('blank', id(9), { substrateId: id(2), name: 'Tag', widthMm: 44, heightMm: 28 }),
    ],
    answers: {
      'POST /api/files?name=tag.svg': { hash: 'a'.repeat(64), name: 'tag.svg', mediaType: 'text/plain', bytes: 9 },
      [`POST /api/tickets/${id(1)}/artworks`]: ARTWORK,
      [`/api/artworks/${id(8)}/drawing`]: DRAWING,
    },
  });
type Mounted = Awaited<ReturnType<typeof open>>['page'];
async function brings(page: Mounted, testId: string, file: File): Promise<void> {
  const input = page.find<HTMLInputElement>(by(testId));
  Object.defineProperty(input.element, 'files', { value: [file], configurable: true });
  await input.trigger('change');
  await flushPromises();
  await flushPromises();
}
const types = async (page: Mounted, testId: string, text: string) => {
  await page.find(by(testId)).setValue(text);
  await page.find(by(testId)).trigger('blur');
  await flushPromises();
};

describe('artwork on a piece', () => {
  it('is kept by content, read by the server, laid to the middle of the blank and drawn', async () => {
    const { page, server } = await open({ artworks: [ARTWORK] });
    expect(page.find(by('keep-layout')).attributes('disabled')).toBeDefined();
    await brings(page, 'artwork-file', new File(['<svg/>'], 'tag.svg'));
    expect(server.posts().map(({ path }) => path)).toEqual([
      '/api/files?name=tag.svg',
      `/api/tickets/${id(1)}/artworks`,
    ]);
    expect(server.posts()[1]!.body).toMatchObject({
      name: 'tag.svg',
      entries: { unit: null, closed: 'filled', widthMm: null },
    });
    expect(page.find<HTMLInputElement>(by('layout-x')).element.value).toBe('16');
    expect(page.find<HTMLInputElement>(by('layout-y')).element.value).toBe('9');
    await vi.waitFor(async () => {
      await flushPromises();
      expect(page.find(`${by('artwork-stage')} path`).exists()).toBe(true);
    });
    expect(page.find(by('artwork-facts')).text()).toMatch(/12 × 10.*87 % of its box/s);
    expect(page.find(by('artwork-warnings')).text()).toMatch(/0\.08 mm wide and the spot 0\.15 mm.*1 × scripts/s);
    expect(page.find(`${by('artwork-stage')} path`).attributes('d')).toBe('M0 0L12 0L12 10L0 10Z');
  });

  it('asks for what a file does not say where it was refused, and reads the same file again with it', async () => {
    const { page, server } = await open();
    const refused = { type: 'invalid-input', status: 422, title: '', detail: 'Is it in millimetres or inches?' };
    server.refusals[`POST /api/tickets/${id(1)}/artworks`] = refused;
    await brings(page, 'artwork-file', new File(['0'], 'tag.svg'));
    expect(page.find(by('artwork-fault')).text()).toMatch(/millimetres or inches/);
    await choose(page, 'artwork-unit', 'in');
    delete server.refusals[`POST /api/tickets/${id(1)}/artworks`];
    await page.find(by('artwork-again')).trigger('click');
    await flushPromises();
    expect(server.posts().at(-1)!.body.entries.unit).toBe('in');
    expect(server.posts().filter(({ path }) => path.startsWith('/api/files'))).toHaveLength(1);
    expect(page.find(by('artwork-fault')).exists()).toBe(false);
  });

  it('is moved by the arrow keys, ten steps with shift, and never off the piece', async () => {
    const { page } = await open({ artworks: [ARTWORK], layout: null });
    await brings(page, 'artwork-file', new File(['<svg/>'], 'tag.svg'));
    const handle = page.find(by('handle-artwork'));
    await handle.trigger('keydown', { key: 'ArrowRight' });
    await handle.trigger('keydown', { key: 'ArrowUp', shiftKey: true });
    expect(page.find<HTMLInputElement>(by('layout-x')).element.value).toBe('16.2');
    expect(page.find<HTMLInputElement>(by('layout-y')).element.value).toBe('11');
    for (let i = 0; i < 20; i += 1) await handle.trigger('keydown', { key: 'ArrowLeft', shiftKey: true });
    expect(page.find<HTMLInputElement>(by('layout-x')).element.value).toBe('0');
  });
});

describe('texts that change from piece to piece', () => {
  const table = (text: string) => new File([text], 'beds.csv');

  it('take the columns of a table, are looked at piece by piece, and kept with it', async () => {
    const { page, server } = await open();
    await brings(page, 'table-file', table('bed,name\n1,north\n2,south\n3,west\n'));
    expect(page.find(by('table-rows')).text()).toMatch(/3 rows for 3 pieces: bed, name/);
    await page.find(by('text-add')).trigger('click');
    await flushPromises();
    expect(page.find<HTMLInputElement>(by('text-says-0')).element.value).toBe('{bed}');
    await types(page, 'text-says-0', 'BED {bed}');
    expect(page.find('h2 + svg').exists() || page.text()).toBeTruthy();
    expect(page.text()).toMatch(/Piece 1 of 3: BED 1/);
    await page.find(by('piece-next')).trigger('click');
    await flushPromises();
    expect(page.text()).toMatch(/Piece 2 of 3: BED 2/);
    await page.find(by('keep-layout')).trigger('click');
    await flushPromises();
    const { path, body } = server.posts().at(-1)!;
    expect(path).toBe(`/api/tickets/${id(1)}/layouts`);
    expect(body.entries).toMatchObject({
      ...{ artworkId: null, fields: [{ says: 'BED {bed}', kind: 'letters' }] },
      table: {
        columns: ['bed', 'name'],
        rows: [
          ['1', 'north'],
          ['2', 'south'],
          ['3', 'west'],
        ],
      },
    });
  });

  it('that cannot be burnt are told with their pieces, and nothing is kept until they are mended', async () => {
    const { page } = await open();
    await brings(page, 'table-file', table('bed,name\n1,north\n1,south\n'));
    await page.find(by('text-add')).trigger('click');
    await flushPromises();
    expect(page.find(by('text-faults')).text()).toMatch(
      /nothing to write\. Piece 3.*same as on an earlier piece\. Piece 2/s,
    );
    expect(page.find(by('keep-layout')).attributes('disabled')).toBeDefined();
    await types(page, 'text-says-0', '{row}');
    expect(page.find(by('text-fault')).text()).toMatch(/no column of the table/);
    await types(page, 'text-says-0', 'No {n:2}');
    expect(page.find(by('text-faults')).exists()).toBe(false);
    expect(page.find(by('keep-layout')).attributes('disabled')).toBeUndefined();
    await page.find(by('text-drop-0')).trigger('click');
    await flushPromises();
    expect(page.find(by('keep-layout')).attributes('disabled')).toBeDefined();
  });

  it('a table that is none is said where it was brought', async () => {
    const { page } = await open();
    await brings(page, 'table-file', table('\n\n'));
    expect(page.find(by('table-fault')).text()).toMatch(/no row to be read/);
    await types(page, 'table-text', 'a;b\nc;d\ne;f');
    await page.find(by('table-take')).trigger('click');
    await flushPromises();
    expect(page.find(by('table-rows')).text()).toMatch(/2 rows for 3 pieces: a, b/);
    await page.find(by('table-drop')).trigger('click');
    await flushPromises();
    expect(page.find(by('table-rows')).exists()).toBe(false);
  });
});
