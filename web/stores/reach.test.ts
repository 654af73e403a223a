// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import AwayStrip from '../app/AwayStrip.vue';
import { by, fakeServer, mountInShop, SHOP } from '../testing/shop';
import { useReach } from './reach';

beforeEach(() => vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] }));
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('whether the server answers', () => {
  it('is said with the time of what stands there, tried again, and taken back', async () => {
    const { page } = await mountInShop(AwayStrip);
    useReach().start();
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no')));
    await expect(api.call('workshop', {})).rejects.toThrow(/does not answer/);
    await flushPromises();
    expect(page.find(by('away')).text()).toMatch(/as it was at \d\d:\d\d/);
    fakeServer({ '/api/workshop': SHOP, '/api/inventory?retired=1&limit=500': { records: [], next: null } });
    await vi.advanceTimersByTimeAsync(3100);
    await flushPromises();
    expect(page.find(by('away')).exists()).toBe(false);
  });
});
