// @vitest-environment happy-dom
import { STATIONS } from '@unto/core';
import { describe, expect, it } from 'vitest';
import { by, mountInShop } from '../testing/shop';
import { WHYS } from './why';
import WhyStation from './WhyStation.vue';

describe('why a station is there', () => {
  it.each(STATIONS)(
    '%s: three sentences, one drawing, and which way is taken where schools disagree',
    async (station) => {
      const { page } = await mountInShop(WhyStation, { props: { station } });
      expect(page.find(by('why-station')).exists()).toBe(false);
      await page.find(by('why')).trigger('click');
      const { title, sentences, schools } = WHYS[station];
      const text = page.text();
      for (const part of [title, ...sentences, ...(schools ? [...schools.views, schools.here] : [])])
        expect(text).toContain(part);
      expect(page.findAll('svg[viewBox="0 0 320 150"]')).toHaveLength(1);
      expect(page.find('svg[viewBox="0 0 320 150"]').element.childElementCount).toBeGreaterThan(1);
      // Beside the work: nothing is laid over it.
      expect(page.find('.p-drawer-mask.p-overlay-mask').exists()).toBe(false);
    },
  );
});
