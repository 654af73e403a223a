// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import type { CoatMap } from '@unto/core';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { defineComponent } from 'vue';
import { CUT_SHORT } from '../pictures/picture-file';
import { useShop } from '../stores/shop';
import { by, item, stock } from '../testing/shop';
import { mountOnTicket } from '../testing/ticket';
import PicturePanel from './PicturePanel.vue';
import PictureStage from './PictureStage.vue';
import { usePicture } from './usePicture';

const heard = vi.hoisted(() => ({ tasks: [] as any[], map: null as unknown, fault: '', damaged: '' }));
vi.mock('idb-keyval', () => import('../testing/memory-storage'));
vi.mock('../workers/useComputations', () => ({
  useComputations: () => ({
    stop: () => undefined,
    core: {
      openPicture: async () =>
        heard.damaged
          ? { ok: false, code: 'reading.damaged', message: heard.damaged }
          : { ok: true, value: { width: 800, height: 600, corners: null } },
      readCoat: async (task: object) => {
        heard.tasks.push(task);
        return heard.fault
          ? { ok: false, code: 'reading.no-contrast', message: heard.fault }
          : { ok: true, value: heard.map };
      },
    },
  }),
}));

const TICKET = {
  ...{ id: 't', number: 7, title: 'Tags', pieces: 12, markWidthMm: 38, markHeightMm: 22, coatMarginMm: 3 },
  ...{ substrateId: 'metal', headId: 'head', lensId: 'lens', compoundId: 'film' },
};
const JPEG = new Uint8Array([0xff, 0xd8, 0xff, 0xd9]);
const HASH = 'a'.repeat(64);
const KEPT = { hash: HASH, name: 'coat.jpg', mediaType: 'image/jpeg', bytes: 9 };
const mapOf = (film: (x: number, y: number) => number, change: object = {}): CoatMap => ({
  ...{ columns: 44, rows: 28, cellMm: 1, noise: 0.01, bareRead: true, lightFrom: 'surround' as const },
  film: Array.from({ length: 44 * 28 }, (_, i) => film(i % 44, Math.floor(i / 44))),
  ...change,
});

const Host = defineComponent({
  components: { PicturePanel, PictureStage },
  setup: () => ({ picture: usePicture(() => 'w1') }),
  template: '<PicturePanel :picture="picture" /><PictureStage :picture="picture" />',
});

async function open(answers: Record<string, unknown> = {}) {
  const mounted = await mountOnTicket(Host, {
    ticket: TICKET,
    items: [item('substrate', 'metal', { ground: 'light', family: 'stainless' })],
    answers: { [`POST /api/files?name=coat.jpg`]: KEPT, 'POST /api/devices/camera/picture': KEPT, ...answers },
  });
  return mounted;
}
async function bring(page: Awaited<ReturnType<typeof open>>['page'], name = 'coat.jpg', bytes = JPEG) {
  const input = page.find(by('picture-file'));
  Object.defineProperty(input.element, 'files', { value: [new File([bytes], name)], configurable: true });
  await input.trigger('change');
  await vi.waitFor(async () => {
    await flushPromises();
    if (!page.find(by('picture-stage')).exists() && !page.find(by('picture-fault')).exists())
      throw new Error('not open yet');
  });
  await flushPromises();
}
const text = (page: Awaited<ReturnType<typeof open>>['page'], id: string) =>
  page.find(by(id)).text().replaceAll(/\s+/g, ' ');

beforeEach(() => {
  heard.tasks = [];
  heard.fault = '';
  heard.map = mapOf(() => 1);
  heard.damaged = '';
});

describe('a picture of the dry coat', () => {
  it('is kept, read with its marks, and an even one accepted', async () => {
    const { page, server } = await open();
    await bring(page);
    expect(text(page, 'picture-verdict')).toMatch(/Good to fire/);
    expect(heard.tasks.at(-1)).toMatchObject({
      fileHash: HASH,
      widthMm: 44,
      heightMm: 28,
      good: null,
      ground: 'light',
    });
    expect(heard.tasks.at(-1).bare).not.toBeNull();
    await page.find(by('picture-accept')).trigger('click');
    await flushPromises();
    expect(server.posts().at(-1)).toMatchObject({
      path: '/api/tickets/t/coat-pictures',
      body: { weighingId: 'w1', decision: 'accepted', entries: { fileHash: HASH, map: { columns: 44 } } },
    });
  });

  it('names the places with what they cost, draws them, and says what it could not know', async () => {
    heard.map = mapOf((x, y) => (x > 32 && y > 18 ? 0.5 : 1), { bareRead: false, lightFrom: 'part itself' });
    const { page } = await open();
    await bring(page);
    expect(text(page, 'picture-verdict')).toMatch(/Touch it up\. [\d.]+ % of the artwork would come out pale/);
    expect(text(page, 'picture-places')).toMatch(/Thin spot, 11 × 9 mm at 33, 19 mm: about 50 % of a good film/);
    expect(text(page, 'picture-verdict')).toMatch(/bare ground was not read.*cannot be told from the light/);
    expect(page.findAll('polygon.thin')).toHaveLength(11 * 9);
  });

  it('reads again when a mark is moved by the keys, a reference is asked for, or the size is mended', async () => {
    const { page } = await open();
    await bring(page);
    const before = heard.tasks.at(-1).corners[0];
    await page.find(by('handle-lower-left')).trigger('keydown', { key: 'ArrowRight', shiftKey: true });
    await flushPromises();
    expect(heard.tasks.at(-1).corners[0]).toEqual({ x: before.x + 10, y: before.y });
    await page.find(by('use-good')).setValue(true);
    await page.find(by('use-bare')).setValue(false);
    await flushPromises();
    expect(heard.tasks.at(-1)).toMatchObject({ bare: null, good: { x: 400, y: 300 } });
    expect(page.find(by('handle-bare')).exists()).toBe(false);
    await page.find(by('picture-width')).setValue('50');
    await flushPromises();
    expect(heard.tasks.at(-1).widthMm).toBe(50);
  });

  it('says in words what cannot be read, and keeps what was brought', async () => {
    const { page, server } = await open({
      'POST /api/files?name=sheet.jpg': { ...KEPT, mediaType: 'application/pdf' },
    });
    await bring(page, 'sheet.jpg');
    expect(text(page, 'picture-fault')).toMatch(/That is a PDF inside/);
    await bring(page, 'coat.jpg', JPEG.slice(0, 3));
    expect(text(page, 'picture-fault')).toMatch(/cut short or damaged\. The file was kept/);
    heard.damaged = CUT_SHORT;
    await bring(page);
    expect(text(page, 'picture-fault')).toMatch(/cut short or damaged\. The file was kept/);
    heard.damaged = '';
    heard.fault = 'Bare and coated look alike in this picture.';
    await bring(page);
    expect(text(page, 'picture-fault')).toMatch(/look alike/);
    expect(page.find(by('picture-accept')).attributes('disabled')).toBeDefined();
    server.refusals['POST /api/files?name=phone.heic'] = {
      type: 'wrong-file',
      status: 415,
      detail: '“phone.heic” is no PDF, PNG, JPEG, SVG, DXF or G-code inside.',
    };
    await bring(page, 'phone.heic');
    expect(text(page, 'picture-fault')).toMatch(/no PDF, PNG, JPEG/);
  });

  it('comes from the camera where one is tied, and its absence is said', async () => {
    const { page, server } = await open();
    expect(page.find(by('take-picture')).exists()).toBe(false);
    stock({ devices: { scale: false, camera: true, controller: false }, items: useShop().items });
    await flushPromises();
    server.refusals['POST /api/devices/camera/picture'] = {
      type: 'device-away',
      status: 502,
      detail: 'The camera does not answer.',
    };
    await page.find(by('take-picture')).trigger('click');
    await flushPromises();
    expect(text(page, 'picture-fault')).toMatch(/does not answer/);
  });
});
