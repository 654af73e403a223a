// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';
import { by, mountInShop } from '../testing/shop';
import CodeAsked from './CodeAsked.vue';

describe('a code that cannot be read', () => {
  it('is asked for, and taken once somebody looked at the coupon', async () => {
    const said: unknown[] = [];
    const props = {
      modelValue: false,
      read: 'K-2?4',
      code: 'K-204',
      'onUpdate:modelValue': (on: unknown) => said.push(on),
    };
    const { page } = await mountInShop(CodeAsked, { props });
    expect(page.text()).toMatch(/Code not readable: is this K-204\?[\s\S]*tells K-2\?4/);
    await page.find(by('code-sure')).setValue(true);
    await flushPromises();
    expect(said).toEqual([true]);
  });
});
