import { describe, expect, it } from 'vitest';
import {
  PLAIN_SETTING,
  sameSetting,
  SETTING_PARTS,
  settingDifferences,
  settingOf,
  settingWords,
  type MarkSetting,
  type SettingPart,
} from './index.js';

const SETTING: MarkSetting = {
  ...PLAIN_SETTING,
  powerPercent: 80,
  powerW: 44,
  speedMmPerS: 150,
  intervalMm: 0.06,
  frequencyKHz: 60,
  pulseNs: 120,
  directions: 'two-way',
  powerMode: 'constant',
  air: 'off',
  extraction: 'on',
};

/** Every part, and a value of it that is another. */
const OTHERS: Record<SettingPart, unknown> = {
  powerPercent: 82,
  speedMmPerS: 155,
  intervalMm: 0.07,
  passes: 2,
  hatches: 2,
  angleDeg: 45,
  fill: 'lines',
  focusOffsetMm: 1.5,
  frequencyKHz: 80,
  pulseNs: 200,
  directions: 'one-way',
  powerMode: 'scaled',
  air: 'on',
  extraction: 'off',
};

describe('one setting', () => {
  it('is the same as itself, and within what a scale lets read', () => {
    expect(sameSetting(SETTING, { ...SETTING })).toBe(true);
    expect(sameSetting(SETTING, { ...SETTING, speedMmPerS: 151, focusOffsetMm: 0.01, angleDeg: 0.5 })).toBe(true);
  });

  it.each(SETTING_PARTS)('is another when only its %s differs', (part) => {
    expect(settingDifferences(SETTING, { ...SETTING, [part]: OTHERS[part] })).toEqual([part]);
  });

  it.each(['air', 'extraction', 'powerMode', 'directions', 'powerPercent'] as const)(
    'is never known to be the same where the %s was not noted',
    (part) => {
      const blank = { ...SETTING, [part]: null };
      expect(settingDifferences(blank, { ...blank })).toEqual([part]);
    },
  );

  it('takes a head without frequency for another than one set to some', () => {
    const plain = { ...SETTING, frequencyKHz: null, pulseNs: null };
    expect(sameSetting(plain, { ...plain })).toBe(true);
    expect(settingDifferences(plain, SETTING)).toEqual(['frequencyKHz', 'pulseNs']);
  });

  it('leaves behind what else a record holds', () => {
    expect(settingOf({ ...SETTING, id: 'r' } as MarkSetting)).toEqual(SETTING);
  });

  it('says all that is out of the ordinary', () => {
    expect(settingWords(SETTING)).toBe('80 %, 150 mm/s, 0.06 mm, 60 kHz, 120 ns, at focus, air off');
    expect(
      settingWords({
        ...SETTING,
        hatches: 2,
        angleDeg: 45,
        focusOffsetMm: 1.5,
        air: 'on',
        extraction: 'off',
        fill: 'lines',
      }),
    ).toBe('80 %, 150 mm/s, 0.06 mm, crossed, 45°, lines apart, 60 kHz, 120 ns, focus +1.5 mm, air on, extraction off');
    expect(settingWords({ ...SETTING, powerPercent: null, speedMmPerS: null, coats: 2 })).toMatch(/^0.06 mm.*2 coats/);
  });
});
