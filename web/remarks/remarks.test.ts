// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { by, fakeServer, mountInShop } from '../testing/shop';
import { useNotices } from '../stores/notices';
import RemarkDrawer from './RemarkDrawer.vue';

afterEach(() => vi.unstubAllGlobals());

const TICKET = '11111111-1111-4111-8111-111111111111';
const NOTE = {
  ...{ id: '22222222-2222-4222-8222-222222222222', ticketId: TICKET, runId: null, words: 'Two lines.\nBoth kept.' },
  ...{ file: { hash: 'a'.repeat(64), name: 'rim.jpg', mediaType: 'image/jpeg' }, shows: 'part', retired: false },
  ...{ at: '2026-03-01T09:00:00.000Z', by: '33333333-3333-4333-8333-333333333333' },
};

async function open() {
  const server = fakeServer({
    [`GET /api/remarks?ticketId=${TICKET}`]: [NOTE],
    'POST /api/remarks': NOTE,
    [`PUT /api/remarks/${NOTE.id}/retired`]: { ...NOTE, retired: true },
  });
  const mounted = await mountInShop(RemarkDrawer, { props: { ticketId: TICKET } });
  await mounted.page.find(by('remarks')).trigger('click');
  await flushPromises();
  return { ...mounted, server };
}

describe('notes and pictures of a ticket', () => {
  it('are counted beside the work and shown with their picture, what it shows and when', async () => {
    const { page } = await open();
    expect(page.find(by('remarks')).text()).toBe('Notes 1');
    const shown = page.find(by('remark'));
    expect(shown.text()).toMatch(/Two lines\.\s+Both kept\..*1 Mar.*the part/s);
    expect(shown.find('img').attributes()).toMatchObject({ src: `/api/files/${'a'.repeat(64)}`, alt: NOTE.words });
  });

  it('are written, and refused empty where they are written', async () => {
    const { page, server } = await open();
    await page.find('form').trigger('submit');
    await flushPromises();
    expect(page.text()).toContain('Write a note, or bring a picture.');
    await page.find(by('remark-words')).setValue('Jig three pulls left.');
    await page.find('form').trigger('submit');
    await flushPromises();
    expect(server.posts().at(-1)!.body).toMatchObject({
      ticketId: TICKET,
      runId: null,
      words: 'Jig three pulls left.',
    });
    expect((page.find(by('remark-words')).element as HTMLTextAreaElement).value).toBe('');
  });

  it('are taken out of sight with the way back', async () => {
    const { page, server } = await open();
    await page.find(by('retire-remark')).trigger('click');
    await flushPromises();
    expect(server.posts().at(-1)!.body).toEqual({ retired: true });
    useNotices().notice!.undo!();
    await flushPromises();
    expect(server.posts().at(-1)!.body).toEqual({ retired: false });
  });
});
