import {
  emptyBody,
  shelfFields,
  INVENTORY_BODIES,
  INVENTORY_KINDS,
  type HeadBody,
  type InventoryItem,
  type InventoryKind,
} from '@unto/contract';
import { describe, expect, it } from 'vitest';
import { isMoney, KIND_WORDS } from './kinds';
import { shownValue } from './shown-value';
import { rowsToText, textToRows } from './table-text';
import { lensFromBeam, thicknessFromGauge } from './work-out';
import { inCoreUnits } from '../testing/shop';

describe('store forms read off their schemas', () => {
  it.each(INVENTORY_KINDS)('%s: a field for every key, labelled, and a blank body with the same keys', (kind) => {
    const fields = shelfFields(kind);
    expect(fields.map(({ key }) => key)).toEqual(Object.keys(INVENTORY_BODIES[kind].fields));
    for (const field of fields) expect(field.label, field.key).not.toBe(field.key);
    expect(Object.keys(emptyBody(kind))).toEqual(fields.map(({ key }) => key));
  });

  it('knows links, choices, tables, units and what may stay empty', () => {
    const compound = Object.fromEntries(shelfFields('compound').map((field) => [field.key, field]));
    expect(compound['form']!.kind).toBe('one');
    expect(compound['statedBeams']!.kind).toBe('many');
    expect(compound['dryFilmMinUm']).toMatchObject({ kind: 'number', unit: 'µm', optional: false });
    expect(compound['shelfLifeDays']!.optional).toBe(true);
    expect(shelfFields('lens').find(({ key }) => key === 'headId')).toMatchObject({ kind: 'link', linkTo: 'head' });
    expect(
      shelfFields('calibration')
        .find(({ key }) => key === 'rows')!
        .columns.map(({ key }) => key),
    ).toEqual(['percent', 'watts']);
  });

  it('reads a pasted table back, tabs or semicolons, and keeps a bad cell as a fault', () => {
    const field = shelfFields('calibration').find(({ key }) => key === 'rows')!;
    const rows = [
      { percent: 7, watts: 1.2 },
      { percent: 100, watts: 50.6 },
    ];
    expect(textToRows(field, rowsToText(field, rows))).toEqual(rows);
    expect(textToRows(field, '7\t1,2\r\n100\t50,6\r\n')).toEqual(rows);
    expect(textToRows(field, '7; x')[0]!['watts']).toBeNaN();
  });

  it('keeps money in minor units and shows it in major ones', () => {
    const field = shelfFields('compound').find(({ key }) => key === 'sizes')!;
    const rows = [{ label: '420 g can', netG: 420, priceMinor: 6800 }];
    expect(rowsToText(field, rows)).toBe('420 g can; 420; 68.00');
    expect(textToRows(field, '420 g can; 420; 68,00')).toEqual(rows);
    expect(isMoney('laserMinorPerMinute')).toBe(true);
    expect(isMoney('netG')).toBe(false);
  });

  it('names every kind, and leaves what may stay empty at nothing', () => {
    expect(Object.keys(KIND_WORDS)).toEqual([...INVENTORY_KINDS]);
    const substrate = Object.fromEntries(shelfFields('substrate').map((field) => [field.key, field]));
    expect(substrate['gaugeMetal']).toMatchObject({ kind: 'one', optional: true });
    expect(substrate['gaugeMetal']!.words).not.toContain(null);
    expect(emptyBody('substrate')).toMatchObject({ gaugeMetal: null, gaugeNumber: null, family: '' });
    expect(shelfFields('compound').find(({ key }) => key === 'dataSheet')).toMatchObject({
      kind: 'file',
      optional: true,
    });
    expect(emptyBody('blank')).toMatchObject({ substrateId: null });
  });
});

describe('what can be filled in from elsewhere', () => {
  it('takes the thickness of a gauge, and refuses one without its metal', () => {
    expect(thicknessFromGauge(24, 'stainless')).toBe(0.635);
    expect(thicknessFromGauge(24, 'steel')).toBe(0.607);
    expect(() => thicknessFromGauge(24, null)).toThrow(/until the metal is named/);
  });

  it('works a spot out from beam, wavelength and focal length, or says what is missing', () => {
    const head = { name: 'CO2', wavelengthNm: 10_600, m2: 1.2, beamDiameterMm: 5 } as HeadBody;
    // d = 4·1.2·0.0106·50.8/(π·5) = 0.1645 mm; zR = 1.672 mm; ± 0.320 zR for 5 %.
    expect(lensFromBeam(head, { focalLengthMm: 50.8, depthGrowth: Number.NaN })).toEqual({
      fields: { spotXMm: 0.165, spotYMm: 0.165, spotSource: 'worked out', depthOfFocusMm: 0.535, depthGrowth: 0.05 },
    });
    expect(lensFromBeam(null, { focalLengthMm: 50.8, depthGrowth: 0.05 })).toEqual({
      missing: expect.stringMatching(/head first/),
    });
    expect(lensFromBeam({ ...head, beamDiameterMm: null }, { focalLengthMm: 50.8, depthGrowth: 0.05 })).toEqual({
      missing: expect.stringMatching(/no beam diameter/),
    });
    expect(lensFromBeam(head, { focalLengthMm: Number.NaN, depthGrowth: 0.05 })).toEqual({
      missing: expect.stringMatching(/focal length/),
    });
  });
});

describe('a field as it is read', () => {
  const shop = { nameOf: (id: string) => (id === 'c' ? 'Corvid Film' : ''), currency: 'CR', units: inCoreUnits };
  const shown = (kind: InventoryKind, key: string, body: object) =>
    shownValue(
      shelfFields(kind).find((field) => field.key === key)!,
      { kind, body } as InventoryItem,
      shop,
    );

  it('has its unit, its currency, its names and its files', () => {
    expect(shown('container', 'compoundId', { compoundId: 'c' })).toBe('Corvid Film');
    expect(shown('container', 'priceMinor', { priceMinor: 6800 })).toMatch(/^68\.00\sCR$/);
    expect(shown('machine', 'laserMinorPerMinute', { laserMinorPerMinute: 25 })).toMatch(/^0\.25\sCR per minute$/);
    expect(shown('compound', 'dryS', { dryS: 240 })).toMatch(/^240\ss$/);
    expect(shown('compound', 'containsPtfe', { containsPtfe: false })).toBe('no');
    expect(shown('compound', 'statedBeams', { statedBeams: ['co2', 'blue'] })).toBe('co2, blue');
    expect(shown('compound', 'dataSheet', { dataSheet: { hash: 'x', name: 'sheet.pdf' } })).toBe('sheet.pdf');
    expect(shown('compound', 'sizes', { sizes: [{ label: 'can', netG: 420, priceMinor: 6800 }] })).toMatch(
      /^can · 420 · 68\.00\sCR$/,
    );
    expect(shown('compound', 'potLifeHours', { potLifeHours: null })).toBe('–');
    expect(shown('compound', 'potLifeHours', {})).toBe('–');
  });
});
