// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { by, mountInShop } from '../testing/shop';
import ReadingProgress from './ReadingProgress.vue';
import { useReading } from './useReading';

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

describe('reading a picture', () => {
  it('says its steps, and what is wrong with it', async () => {
    const { doing, fault, run } = useReading(() => undefined);
    const steps: (string | null)[] = [];
    await run(async (step) => {
      steps.push(doing.value);
      step('read');
      steps.push(doing.value);
      throw new Error('Too dark.');
    });
    expect([...steps, doing.value, fault.value]).toEqual(['keep', 'read', null, 'Too dark.']);
    await run(async () => undefined);
    expect(fault.value).toBe('');
  });

  it('is stopped at once, and says nothing more however late it answers', async () => {
    const stopWorker = vi.fn();
    const { doing, fault, run, stop } = useReading(stopWorker);
    let answer: (() => void) | undefined;
    let went = 'nowhere';
    const reading = run(async (step) => {
      await new Promise<void>((resolve) => (answer = resolve));
      step('read');
      went = 'on';
    });
    stop();
    await reading;
    expect([stopWorker.mock.calls.length, doing.value]).toEqual([1, null]);
    expect(fault.value).toMatch(/^Stopped/);
    answer!();
    await flushPromises();
    expect([went, doing.value]).toEqual(['nowhere', null]);
  });

  it('shows how far it is only where it takes its time, with a stop', async () => {
    const { page } = await mountInShop(ReadingProgress, { props: { doing: 'open' } });
    expect(page.find(by('reading-progress')).exists()).toBe(false);
    await vi.advanceTimersByTimeAsync(500);
    expect(page.find(by('reading-progress')).text()).toContain('Opening it, finding the card 2 of 3');
    await page.find(by('stop-reading')).trigger('click');
    expect(page.findComponent(ReadingProgress).emitted('stop')).toHaveLength(1);
    await page.setProps({ doing: null });
    expect(page.find(by('reading-progress')).exists()).toBe(false);
  });
});
