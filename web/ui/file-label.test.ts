// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';
import { by } from '../testing/shop';
import { bringFile } from './bring-file';
import FileLabel from './FileLabel.vue';

const PROPS = { label: 'Bring a file', accept: '.csv,.json', testId: 'file' };

describe('words that ask for a file', () => {
  it('hand on the file that was picked, the same one twice, and nothing where nobody picked one', async () => {
    const page = mount(FileLabel, { props: PROPS });
    const input = page.find<HTMLInputElement>(by('file'));
    const file = new File(['a;b'], 'runs.csv');
    for (const files of [[file], [], [file]]) {
      Object.defineProperty(input.element, 'files', { value: files, configurable: true });
      await input.trigger('change');
      expect(input.element.value).toBe('');
    }
    expect(page.emitted('brought')).toEqual([[file], [file]]);
  });

  it('are reached by the keyboard, say what may come, and offer the camera only where a picture is wanted', async () => {
    const page = mount(FileLabel, { props: PROPS });
    const input = page.find(by('file'));
    expect([input.attributes('type'), input.attributes('accept')]).toEqual(['file', '.csv,.json']);
    expect([input.attributes('capture'), input.attributes('tabindex')]).toEqual([undefined, undefined]);
    expect(page.find('label').text()).toBe('Bring a file');
    expect(page.find('label').classes()).toEqual(['link']);
    await page.setProps({ camera: true, look: 'filled' });
    expect(page.find(by('file')).attributes('capture')).toBe('environment');
    expect(page.find('label').classes()).toEqual(['filled']);
  });
});

describe('a brought table', () => {
  it('is handed on with its format', async () => {
    const seen: string[] = [];
    const send = async (format: string) => (seen.push(format), 'kept');
    expect(await bringFile(new File(['{}'], 'All.JSON'), send)).toEqual({ report: 'kept' });
    expect(await bringFile(new File(['a,b'], 'runs.csv'), send)).toEqual({ report: 'kept' });
    expect(seen).toEqual(['json', 'csv']);
  });
});
